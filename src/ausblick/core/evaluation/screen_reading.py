"""Level and evenness of the screen, all surfaces that the frame needs taken as one, and each by itself."""

from __future__ import annotations

import numpy as np

from ..camera.exposure import luma, stops
from ..camera.level_schools import key_channel
from ..colour.curves import encode
from ..geometry.quantiles import quantiles
from ..geometry.vectors import Floats
from ..plan import Plan
from .results import Evaluation, ScreenMap, ScreenReading, SurfaceReading


def screen_reading(plan: Plan, maps: tuple[ScreenMap, ...]) -> ScreenReading | None:
    """None where no needed screen is in view."""
    seen = tuple(one for one in maps if one.judged.any())
    if not seen:
        return None
    share = _all(seen, "share")
    even = {one.grid.sheet.name: one.even_lux[one.judged] for one in seen}
    least, most = min(float(v.min()) for v in even.values()), max(float(v.max()) for v in even.values())
    trace = _all(seen, "luma" if plan.targets.level_trace == "luma" else "key_channel")
    low, high = _quantiles(trace, share, (0.01, 0.99))
    mean = float(np.average(_all(seen, "lux"), weights=share))
    return ScreenReading(
        level_luma=float(np.average(_all(seen, "luma"), weights=share)),
        level_key_channel=float(np.average(_all(seen, "key_channel"), weights=share)),
        lux_mean=mean,
        lux_min=least,
        lux_max=most,
        uniformity=least / mean if mean > 0.0 else 0.0,
        spread_stops=_spread(least, most),
        band_percent=high - low,
        surfaces=tuple(_surface(one, float(share.sum())) for one in seen),
        darkest=min(even, key=lambda name: float(even[name].min())),
        brightest=max(even, key=lambda name: float(even[name].max())),
    )


def levels_as_rec709(evaluation: Evaluation) -> tuple[float, float]:
    """Luma and key channel in % of the needed screen, as Rec.709 would record its light: what schools are told in.

    Raises ValueError where no needed screen is in view.
    """
    plan, reading = evaluation.plan, evaluation.screen
    if reading is None:
        raise ValueError("no needed screen is in view")
    if plan.camera.curve == "rec709":
        return reading.level_luma, reading.level_key_channel
    seen = tuple(one for one in evaluation.screen_maps if one.judged.any())
    recorded = 100.0 * encode(_all(seen, "linear"), "rec709", "")
    key = recorded[:, key_channel(plan.screen.hue, np.array(plan.screen.reflectance))]
    share = _all(seen, "share")
    return float(np.average(luma(recorded), weights=share)), float(np.average(key, weights=share))


def _all(maps: tuple[ScreenMap, ...], values: str) -> Floats:
    return np.concatenate([getattr(one, values)[one.judged] for one in maps])


def _surface(one: ScreenMap, whole: float) -> SurfaceReading:
    share, lux = one.share[one.judged], one.even_lux[one.judged]
    return SurfaceReading(
        name=one.grid.sheet.name,
        share_percent=100.0 * float(share.sum()) / whole,
        level_luma=float(np.average(one.luma[one.judged], weights=share)),
        level_key_channel=float(np.average(one.key_channel[one.judged], weights=share)),
        lux_mean=float(np.average(one.lux[one.judged], weights=share)),
        lux_min=float(lux.min()),
        lux_max=float(lux.max()),
        spread_stops=_spread(float(lux.min()), float(lux.max())),
    )


def _spread(least: float, most: float) -> float:
    return stops(most / least) if least > 0.0 else float("inf") if most > 0.0 else 0.0


def _quantiles(values: Floats, share: Floats, at: tuple[float, float]) -> tuple[float, float]:
    """Of values that count for different shares; where all count alike, the usual ones."""
    if float(np.ptp(share)) < 1e-12:
        low, high = quantiles(values, at)
        return float(low), float(high)
    order = np.argsort(values)
    along = np.cumsum(share[order]) - 0.5 * share[order]
    low, high = np.interp(at, along / share.sum(), values[order])
    return float(low), float(high)
