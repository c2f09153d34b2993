"""The figure of the test key: tapered limbs and ellipses as signed distances, in the plane of the mark.

Coverage of a pixel is clip(0.5 - distance in px): exact enough for a matte's truth. Units are shares of
the height, x to the right as the camera sees it, y up from the floor.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Floats


@dataclass(frozen=True)
class Limb:
    """From (ax, ay) with radius ar to (bx, by) with radius br."""

    ax: float
    ay: float
    ar: float
    bx: float
    by: float
    br: float


@dataclass(frozen=True)
class Layer:
    """Limbs of one material, united by the nearest; `half` is the half width that its shading turns over.

    `moves`: part of what the fastest movement carries.
    """

    name: str
    limbs: tuple[Limb, ...]
    half: float
    moves: bool = False


def pair(*limbs: tuple[float, ...]) -> tuple[Limb, ...]:
    mirrored = [(-ax, ay, ar, -bx, by, br) for ax, ay, ar, bx, by, br in limbs]
    return tuple(Limb(*limb) for limb in (*limbs, *mirrored))


def hand(x: float, y: float, turn: float, size: float = 1.0) -> tuple[Limb, ...]:
    """A palm and five fingers, spread a little; `turn` in degrees from upright."""
    a = math.radians(turn)

    def put(px: float, py: float) -> tuple[float, float]:
        px, py = size * px, size * py
        return x + px * math.cos(a) + py * math.sin(a), y - px * math.sin(a) + py * math.cos(a)

    limbs = [Limb(*put(0.0, -0.012), 0.013 * size, *put(0.0, 0.014), 0.021 * size)]
    for i, (across, long) in enumerate(((-0.019, 0.036), (-0.0065, 0.042), (0.0065, 0.040), (0.019, 0.032))):
        lean = 0.16 * (i - 1.5)
        tip = put(across + long * math.sin(lean), 0.026 + long * math.cos(lean))
        limbs.append(Limb(*put(across, 0.024), 0.0062 * size, *tip, 0.0048 * size))
    limbs.append(Limb(*put(-0.018, 0.0), 0.0075 * size, *put(-0.040, 0.020), 0.0055 * size))
    return tuple(limbs)


LAYERS: tuple[Layer, ...] = (
    Layer("legs", pair((0.048, 0.48, 0.052, 0.054, 0.27, 0.037), (0.054, 0.27, 0.037, 0.058, 0.05, 0.024)), 0.05),
    Layer("feet", pair((0.058, 0.02, 0.02, 0.086, 0.013, 0.013)), 0.03),
    Layer("torso", (
        Limb(0.0, 0.775, 0.094, 0.0, 0.66, 0.086), Limb(0.0, 0.66, 0.086, 0.0, 0.54, 0.094),
        Limb(-0.085, 0.79, 0.036, 0.085, 0.79, 0.036), Limb(0.0, 0.86, 0.03, 0.0, 0.82, 0.055),
    ), 0.105),
    Layer("sleeve", (
        Limb(-0.108, 0.785, 0.034, -0.150, 0.645, 0.026), Limb(-0.150, 0.645, 0.026, -0.152, 0.52, 0.020),
    ), 0.03),
    Layer("hands", hand(-0.153, 0.485, 178.0), 0.025),
    Layer("neck", (Limb(0.0, 0.885, 0.026, 0.0, 0.85, 0.029),), 0.03),
    Layer("head", (Limb(0.0, 0.945, 0.044, 0.0, 0.915, 0.040), Limb(0.0, 0.915, 0.040, 0.0, 0.888, 0.026)), 0.045),
    Layer("upper arm", (Limb(0.108, 0.785, 0.034, 0.170, 0.680, 0.027),), 0.03),
    Layer("forearm", (Limb(0.170, 0.680, 0.027, 0.208, 0.800, 0.018),), 0.025, moves=True),
    Layer("moving hand", hand(0.213, 0.826, 12.0, 1.05), 0.025, moves=True),
)  # fmt: skip
HAIR_CAP = Limb(0.0, 0.962, 0.048, 0.0, 0.940, 0.050)
HAND_AT = (0.213, 0.835)


def distance(limbs: tuple[Limb, ...], x: Floats, y: Floats) -> Floats:
    """Signed distance (...) from the nearest limb at places x, y (...), in the limbs' units; inside < 0."""
    nearest = np.full(x.shape, np.inf)
    for limb in limbs:
        dx, dy = limb.bx - limb.ax, limb.by - limb.ay
        share = ((x - limb.ax) * dx + (y - limb.ay) * dy) / max(dx * dx + dy * dy, 1e-12)
        share = np.clip(share, 0.0, 1.0)
        away = np.hypot(x - limb.ax - share * dx, y - limb.ay - share * dy)
        np.minimum(nearest, away - (limb.ar + share * (limb.br - limb.ar)), out=nearest)
    return nearest


def bounds(limbs: tuple[Limb, ...]) -> tuple[float, float, float, float]:
    """x0, y0, x1, y1 of the limbs."""
    xs = [v for b in limbs for v in (b.ax - b.ar, b.ax + b.ar, b.bx - b.br, b.bx + b.br)]
    ys = [v for b in limbs for v in (b.ay - b.ar, b.ay + b.ar, b.by - b.br, b.by + b.br)]
    return min(xs), min(ys), max(xs), max(ys)


@dataclass(frozen=True)
class Strands:
    """Single hairs as polylines: points (S, P, 2) in shares of the height; `width` of a hair in m."""

    points: Floats
    width: float


KINDS = {"smooth": (0.006, 0.2, 900), "fine": (0.022, 0.7, 2000), "curly": (0.030, 2.4, 2000), "none": (0.0, 0.0, 0)}
"""How far strands stand off in shares of the height, how much they wind, and how many there are."""


def strands(kind: str, seed: int) -> Strands:
    """Loose hair round the head; the same for the same seed."""
    off, wind, count = KINDS[kind]
    rng = np.random.default_rng(seed)
    t = np.linspace(0.0, 1.0, 14)[None, :]
    root = rng.uniform(-0.15 * math.pi, 1.15 * math.pi, (count, 1))
    reach = off * rng.gamma(2.0, 0.5, (count, 1))
    bend = wind * rng.normal(0.0, 0.5, (count, 1))
    phase = rng.uniform(0.0, 2.0 * math.pi, (count, 1))
    turn = root + bend * t * 0.6 + 0.18 * wind * np.sin(7.0 * t + phase) * t
    radius = 0.047 + reach * t
    x = radius * np.cos(turn)
    # Hair falls: what stands off sideways hangs a little lower at its end.
    y = 0.952 + 1.08 * radius * np.sin(turn) - 0.5 * reach * t * t
    return Strands(np.stack([x, y], axis=2), 0.0002)
