"""Colour of a light as linear Rec.709 weights, relative to the camera's white balance.

Planckian locus: Krystek (Color Research & Application 10, 1985), CIE 1960 u, v; Duv is the distance
from it, positive toward green. Primaries: ITU-R BT.709-6, 3.2 (D65), scaled channel by channel so
that a lamp of the camera's white balance is white.
"""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from ..geometry.vectors import Floats
from .rec709 import LUMA

XYZ_TO_709 = np.array(
    [
        [3.2404542, -1.5371385, -0.4985314],
        [-0.9692660, 1.8760108, 0.0415560],
        [0.0556434, -0.2040259, 1.0572252],
    ]
)


def planck_uv(kelvin: Floats) -> tuple[Floats, Floats]:
    """CIE 1960 (u, v) of black bodies; the fit holds from 1000 to 15000 K, and bends little beyond."""
    t = kelvin
    u = (0.860117757 + 1.54118254e-4 * t + 1.28641212e-7 * t * t) / (1.0 + 8.42420235e-4 * t + 7.08145163e-7 * t * t)
    v = (0.317398726 + 4.22806245e-5 * t + 4.20481691e-8 * t * t) / (1.0 - 2.89741816e-5 * t + 1.61456053e-7 * t * t)
    return u, v


def _rgb(kelvin: Floats, duv: Floats) -> Floats:
    (u, v), (u_next, v_next) = planck_uv(kelvin), planck_uv(kelvin * 1.001)
    step_u, step_v = u_next - u, v_next - v
    # Along the locus u falls as the temperature rises; turned by 90 degrees that points up, to green.
    by = duv / np.hypot(step_u, step_v)
    u, v = u + by * step_v, v - by * step_u
    x, y = 3.0 * u / (2.0 * u - 8.0 * v + 4.0), 2.0 * v / (2.0 * u - 8.0 * v + 4.0)
    return np.asarray(np.maximum(np.stack([x / y, np.ones_like(x), (1.0 - x - y) / y], axis=-1) @ XYZ_TO_709.T, 1e-4))


def lights_rgb(cct: Floats, duv: Floats, white_balance_k: Floats, tint: Floats) -> Floats:
    """Weights (..., 3) of R, G, B per lux of lights whose numbers (...) go together: white is (1, 1, 1), luminance is
    always 1.

    Kelvin; Duv in CIE 1960 units; tint in thousandths of Duv.
    """
    weights = _rgb(cct, duv) / _rgb(white_balance_k, tint / 1000.0)
    return np.asarray(weights / (weights @ LUMA)[..., None])


@lru_cache(maxsize=1024)
def light_rgb(cct: float, duv: float, white_balance_k: float, tint: float) -> Floats:
    """Weights (3,) of one light, which are remembered."""
    weights = lights_rgb(*(np.array(value) for value in (cct, duv, white_balance_k, tint)))
    weights.setflags(write=False)
    return weights
