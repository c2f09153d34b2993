"""The screen as the camera will see it: lamps, returned light, the figure's shadow, folds and gloss."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..camera.coverage import Coverage
from ..camera.exposure import signal
from ..camera.level_schools import screen_levels, trace_of
from ..camera.screen_grid import Grid, screen_grid, seen_cells
from ..camera.view import View
from ..colour.rec709 import colour_differences
from ..geometry.vectors import Bools, Floats
from ..light.basis import FRONT, BasisStore, lamp_maps
from ..light.cloth import highlights, wrinkle_contrast
from ..light.figure_shadow import figure_of, hidden_by
from ..light.mix import ambient_rgb, dimmed, scalar_lux, summed
from ..light.returned import SceneLight, returned_to_screen, scene_light
from ..light.total import lost_maps
from ..plan import Plan
from ..standards.limits import LIMITS
from .results import Blur, ScreenMap, Shadow, Texture

COLUMNS, ROWS = 61, 41
SHADOW_SEEN = LIMITS["light.shadow"].at / 100.0
"""A place counts as shadow from this lost share of light: one point of signal at usual levels."""


@dataclass(frozen=True)
class ScreenLight:
    """On the screen's grid: lamp maps (L, H, W) at full power, lost shares (L, H, W), all light without
    and with the figure's shadow (H, W, 3) in lux, and the judged cells (H, W)."""

    grid: Grid
    maps: Floats
    lost: Floats
    open: Floats
    shown: Floats
    judged: Bools


def direct_light(plan: Plan, maps: Floats) -> Floats:
    """Lamps (L, H, W) summed with dimmers and colours, ambient, and light through the cloth: (H, W, 3)."""
    everywhere = ambient_rgb(plan, FRONT) + plan.screen.transmittance * plan.screen.behind_lux
    return summed(plan, maps) + everywhere


def screen_light_of(plan: Plan, coverage: Coverage, view: View, scene: SceneLight, store: BasisStore) -> ScreenLight:
    grid = screen_grid(plan.screen, COLUMNS, ROWS)
    maps, lost = lamp_maps(plan, grid, store), lost_maps(plan, grid, store)
    full = direct_light(plan, maps) + returned_to_screen(plan, grid, scene, store)
    taken = summed(plan, maps * lost)
    return ScreenLight(grid, maps, lost, full, full - taken, _judged(plan, grid, coverage, view, store))


def _judged(plan: Plan, grid: Grid, coverage: Coverage, view: View, store: BasisStore) -> Bools:
    """Needed cells that the figure does not hide; all needed ones where it hides every one."""
    needed = seen_cells(grid, coverage)
    if plan.subject is None or not needed.any():
        return needed
    figure = figure_of(plan.subject)

    def hidden() -> Floats:
        points = grid.points()
        return hidden_by(figure, points, np.broadcast_to(view.lens, points.shape)).reshape(grid.shape).astype(float)

    key = ("behind the figure", grid.x.tobytes(), grid.y.tobytes(), figure, view.lens.tobytes())
    seen = needed & (store.get(key, hidden) == 0.0)
    return seen if seen.any() else needed


def screen_map_of(plan: Plan, light: ScreenLight, view: View, blur: Blur, store: BasisStore) -> ScreenMap:
    lux, shown = scalar_lux(light.open), scalar_lux(light.shown)
    shadow = np.where(lux > 0.0, 1.0 - shown / np.where(lux > 0.0, lux, 1.0), 0.0)
    lit = dimmed(plan, light.maps * (1.0 - light.lost))
    folds = wrinkle_contrast(plan, lit, shown, light.grid, _melt_m(plan, view, blur), store)
    levels = screen_levels(plan, light.shown)
    half = 0.5 * np.clip(folds, 0.0, 1.0)[..., None]
    bright = trace_of(plan, *screen_levels(plan, light.shown * (1.0 + half)))
    dark = trace_of(plan, *screen_levels(plan, light.shown * (1.0 - half)))
    return ScreenMap(light.grid, shown, *levels, np.clip(shadow, 0.0, 1.0), bright - dark, light.judged)


def _melt_m(plan: Plan, view: View, blur: Blur) -> float:
    """Diameter on the screen of the lens's blur disc, m."""
    if blur.screen_defocus_px is None:
        return 0.0
    return blur.screen_defocus_px / plan.camera.sensor.px_w * 2.0 * view.tan_h * abs(float(view.lens[2]))


def shadow_of(plan: Plan, light: ScreenLight) -> Shadow | None:
    """None without a figure, or where no needed screen is in view."""
    if plan.subject is None or not light.judged.any():
        return None
    lux, shown = scalar_lux(light.open), scalar_lux(light.shown)
    lost = np.where(light.judged & (lux > 0.0), 1.0 - shown / np.where(lux > 0.0, lux, 1.0), 0.0)
    seen = lost >= SHADOW_SEEN
    area = 100.0 * float(seen.sum()) / float(light.judged.sum())
    if not seen.any():
        return Shadow(100.0 * max(0.0, float(lost.max())), 0.0, None, None)
    xs, ys = np.meshgrid(light.grid.x, light.grid.y)
    share = np.where(seen, lost, 0.0) / lost[seen].sum()
    middle = (float((xs * share).sum()), float((ys * share).sum()))
    caused = dimmed(plan, (light.maps * light.lost)[:, seen].sum(axis=1))
    return Shadow(100.0 * float(lost.max()), area, middle, plan.lights[int(np.argmax(caused))].id)


def texture_of(
    plan: Plan, light: ScreenLight, screen_map: ScreenMap, view: View, store: BasisStore
) -> Texture | None:
    if not light.judged.any():
        return None
    lit = dimmed(plan, light.maps)
    shown = scalar_lux(light.shown)
    spots = highlights(plan, lit, shown, light.grid, light.judged, view.lens, store)
    return Texture(float(np.quantile(screen_map.wrinkles[light.judged], 0.95)), tuple(spots))


@dataclass(frozen=True)
class MapLux:
    """Lux (H, W) over a grid: lamps and around; the same with the figure's shadow; with returned light."""

    direct: Floats
    shadowed: Floats
    total: Floats


def map_lux(plan: Plan, grid: Grid, store: BasisStore) -> MapLux:
    maps, lost = lamp_maps(plan, grid, store), lost_maps(plan, grid, store)
    direct = direct_light(plan, maps)
    taken = summed(plan, maps * lost)
    returned = returned_to_screen(plan, grid, scene_light(plan, store), store)
    return MapLux(scalar_lux(direct), scalar_lux(direct - taken), scalar_lux(direct + returned))


def hue_spread_of(plan: Plan, light: ScreenLight) -> float | None:
    """Degrees of the vectorscope between the 1st and 99th percentile of the judged screen's hue.

    None where the screen is too dark or too grey to have one.
    """
    shown = light.shown[light.judged]
    if not len(shown) or float(scalar_lux(shown).min()) <= 0.0:
        return None
    encoded = signal(np.array(plan.screen.reflectance), shown, plan.camera) / 100.0
    cb, cr = colour_differences(encoded)
    if float(np.hypot(cb, cr).min()) < 0.01:
        return None
    middle = math.atan2(float(cr.mean()), float(cb.mean()))
    off = np.degrees(np.angle(np.exp(1j * (np.arctan2(cr, cb) - middle))))
    low, high = np.quantile(off, (0.01, 0.99))
    return float(high - low)
