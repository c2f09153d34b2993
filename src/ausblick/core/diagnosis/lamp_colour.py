"""Which lamp is warm, or whether the white balance is off: the ratio of red to blue light over the screen."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.optimize import minimize_scalar

from ..camera.screen_grid import screen_grid
from ..colour.white_point import light_rgb
from ..geometry.vectors import Floats
from ..light.basis import BasisStore, lamp_maps, weights
from ..plan import Change, Plan, edit
from .observed_light import COLUMNS, ROWS, ObservedLight, cells_of

CLEARLY_MIRED = 14.0
MOST_MIRED = 140.0
LEAST_SHARE = 0.08


@dataclass(frozen=True)
class ColourFit:
    """`mired`: colour over planned, positive is warmer; `lamp` None when all of it is shifted alike."""

    lamp: str | None
    mired: float
    says: str
    cure: str
    changes: tuple[Change, ...]


def fit_colour(plan: Plan, observed: ObservedLight, store: BasisStore) -> ColourFit | None:
    """None where the colours are as planned, or too little is observed. `observed.rgb`: lux of each channel."""
    lit = weights(plan)
    if len(observed.lux) < 12 or not np.any(lit > 0.0):
        return None
    grid = screen_grid(plan.screen, COLUMNS, ROWS)
    row, column = cells_of(grid, observed.at)
    share = (lit[:, None, None] * lamp_maps(plan, grid, store))[:, row, column]
    measured = np.log2(np.maximum(observed.rgb[:, 0], 1e-6) / np.maximum(observed.rgb[:, 2], 1e-6))
    camera = plan.camera

    def ratio(mireds: Floats, balance: float) -> Floats:
        colours = [
            light_rgb(_shifted(lamp.fixture.cct, by), lamp.fixture.duv, balance, camera.tint) * np.array(lamp.gel)
            for lamp, by in zip(plan.lights, mireds, strict=True)
        ]
        rgb = np.tensordot(share, np.array(colours), axes=(0, 0))
        return np.asarray(np.log2(rgb[:, 0] / rgb[:, 2]))

    none = np.zeros(len(plan.lights))
    base = _misfit(ratio(none, camera.white_balance_k) - measured)
    found: list[tuple[float, int | None, float]] = []

    def balanced(by: float) -> float:
        return _misfit(ratio(none, _shifted(camera.white_balance_k, by)) - measured)

    answer = minimize_scalar(balanced, bounds=(-MOST_MIRED, MOST_MIRED), method="bounded", options={"xatol": 2.0})
    found.append((float(answer.fun), None, -float(answer.x)))
    total = share.mean(axis=1)
    for i in np.nonzero(total > LEAST_SHARE * total.sum())[0]:

        def alone(by: float, index: int = int(i)) -> float:
            mireds = none.copy()
            mireds[index] = by
            return _misfit(ratio(mireds, camera.white_balance_k) - measured)

        answer = minimize_scalar(alone, bounds=(-MOST_MIRED, MOST_MIRED), method="bounded", options={"xatol": 2.0})
        found.append((float(answer.fun), int(i), float(answer.x)))
    misfit, index, mired = min(found, key=lambda f: f[0])
    if abs(mired) < CLEARLY_MIRED or misfit > 0.8 * base:
        return None
    return _explained(plan, index, mired)


def _shifted(kelvin: float, mired: float) -> float:
    return float(np.clip(1e6 / max(1e6 / kelvin + mired, 30.0), 1000.0, 25000.0))


def _misfit(off: Floats) -> float:
    return float(np.sqrt(np.minimum(off * off, 0.25).mean()))


def _explained(plan: Plan, index: int | None, mired: float) -> ColourFit:
    word = "warmer" if mired > 0 else "colder"
    if index is None:
        camera = plan.camera
        really = round(_shifted(camera.white_balance_k, -mired) / 50.0) * 50.0
        return ColourFit(
            None, mired, f"Everything is {abs(mired):.0f} mired {word} than planned: the white balance",
            f"Set white balance to {camera.white_balance_k:.0f} K and lock it; it stands near {really:.0f} K",
            (edit.camera.white_balance_k(really),),
        )  # fmt: skip
    lamp = plan.lights[index]
    really = round(_shifted(lamp.fixture.cct, mired) / 50.0) * 50.0
    return ColourFit(
        lamp.id, mired, f"{lamp.name} is {abs(mired):.0f} mired {word} than planned, near {really:.0f} K",
        f"Set {lamp.name} to {lamp.fixture.cct:.0f} K, or gel it",
        (edit.lamp(index).cct(really),),
    )  # fmt: skip
