"""The screen as the camera will see it, surface by surface: lamps, returned light, shadows, folds and sheen."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from ..camera.coverage import Coverage
from ..camera.exposure import scene_light as linear_light
from ..camera.level_schools import screen_levels, trace_of
from ..camera.pane_film import film_before_screen
from ..camera.screen_grid import Grid, SurfaceName
from ..camera.view import View
from ..colour.curves import held, rec709
from ..colour.rec709 import colour_differences
from ..damage.screen_signal import ScreenPatch
from ..geometry.quantiles import quantiles
from ..geometry.vectors import Bools, Floats
from ..light.basis import BasisStore, lamp_maps, lamp_maps_on
from ..light.body_shade import body_maps
from ..light.cloth import Highlight, highlights, sheen_light, wrinkle_contrast
from ..light.figure_shadow import hidden_round, lost_maps, lost_maps_on
from ..light.mix import dimmed, scalar_lux, summed
from ..light.returned import SceneLight, returned_to_screen, scene_light
from ..light.total import light_around
from ..plan import Plan
from ..standards.limits import LIMITS
from .beside_body import beside_body
from .judged_cells import JudgedCells, judged_cells
from .results import Blur, ScreenMap, Shadow, Texture

SHADOW_SEEN = LIMITS["light.shadow"].at / 100.0
"""A place counts as shadow from this lost share of light: one point of signal at usual levels."""


@dataclass(frozen=True, eq=False)
class SurfaceLight:
    """On a surface's grid: lamp maps (L, H, W) at full power, shares of them lost to the figure and to other lamps'
    bodies (L, H, W); all light (H, W, 3) in lux without the figure, and as it is; the judged cells (H, W) and how
    much each counts."""

    grid: Grid
    maps: Floats
    lost: Floats
    bodies: Floats
    open: Floats
    shown: Floats
    judged: Bools
    share: Floats

    @cached_property
    def arriving(self) -> Floats:
        """Lamp maps (L, H, W) less what is lost."""
        return np.asarray(self.maps * (1.0 - self.lost) * (1.0 - self.bodies))

    @cached_property
    def shadow(self) -> Floats:
        """Share (H, W) of the light that is lost to the figure."""
        lux, shown = scalar_lux(self.open), scalar_lux(self.shown)
        return np.clip(np.where(lux > 0.0, 1.0 - shown / np.where(lux > 0.0, lux, 1.0), 0.0), 0.0, 1.0)


@dataclass(frozen=True, eq=False)
class ScreenLight:
    """Every surface that the frame needs, the wall first, which is always there."""

    surfaces: tuple[SurfaceLight, ...]

    @property
    def wall(self) -> SurfaceLight:
        return self.surfaces[0]

    def judged(self, values: Callable[[SurfaceLight], Floats]) -> Floats:
        """Values (..., H, W) or (H, W, ...) of all judged cells, one after another."""
        return np.concatenate([values(one)[one.judged] for one in self.surfaces])

    @property
    def any_judged(self) -> bool:
        return any(one.judged.any() for one in self.surfaces)


def direct_light(plan: Plan, grid: Grid, maps: Floats) -> Floats:
    """Lamps (L, H, W) summed with dimmers and colours, ambient, and light through the cloth: (H, W, 3)."""
    return summed(plan, maps) + light_around(plan, grid)


def screen_light_of(
    plan: Plan, coverage: Coverage, view: View, scene: SceneLight, store: BasisStore, everything: bool = False
) -> ScreenLight:
    """Light on the wall and on the other surfaces that the frame needs, or on `everything`."""
    shown = [
        cells
        for cells in judged_cells(plan, coverage, view, store)
        if everything or cells.grid.sheet.name == "wall" or cells.judged.any()
    ]
    grids = [cells.grid for cells in shown]
    taken = zip(lamp_maps_on(plan, grids, store), lost_maps_on(plan, grids, store), strict=True)
    bodies = body_maps(plan, grids, store)
    return ScreenLight(
        tuple(
            _surface(plan, cells, *of_lamps, kept_off, scene, store)
            for cells, of_lamps, kept_off in zip(shown, taken, bodies, strict=True)
        )
    )


def _surface(
    plan: Plan,
    cells: JudgedCells,
    maps: Floats,
    lost: Floats,
    bodies: Floats,
    scene: SceneLight,
    store: BasisStore,
) -> SurfaceLight:
    grid = cells.grid
    around = light_around(plan, grid) + returned_to_screen(grid, scene, store)
    direct = maps * (1.0 - bodies)
    full = summed(plan, direct) + around
    taken = summed(plan, direct * lost)
    if grid.sheet.name != "wall":
        taken = taken + around * hidden_round(plan, grid, store)[..., None]
    return SurfaceLight(grid, maps, lost, bodies, full, full - taken, cells.judged, cells.share)


def screen_maps_of(
    plan: Plan, light: ScreenLight, view: View, blur: Blur, store: BasisStore
) -> tuple[ScreenMap, ...]:
    """Of each surface. On the wall the camera looks along the cloth's normal and its sheen is told by itself; on the
    others it is part of what is seen."""
    return tuple(_map_of(plan, one, view, _melt_m(plan, view, blur), store) for one in light.surfaces)


def _map_of(plan: Plan, light: SurfaceLight, view: View, melt_m: float, store: BasisStore) -> ScreenMap:
    shown, seen = scalar_lux(light.shown), seen_light(plan, light, view, store)
    folds = wrinkle_contrast(plan, dimmed(plan, light.arriving), shown, light.grid, melt_m, store)
    half = 0.5 * np.clip(folds, 0.0, 1.0)[..., None]
    levels = screen_levels(plan, np.stack([seen, seen * (1.0 + half), seen * (1.0 - half)]))
    _, bright, dark = trace_of(plan, *levels)
    luma, key = (level[0] for level in levels)
    linear = linear_light(np.array(plan.screen.reflectance), seen, plan.camera)
    return ScreenMap(
        light.grid, shown, scalar_lux(light.open), luma, key, light.shadow, bright - dark, light.judged, light.share,
        linear, folds,
    )  # fmt: skip


def patches_of(plan: Plan, view: View, maps: tuple[ScreenMap, ...], store: BasisStore) -> list[ScreenPatch]:
    """The judged screen, surface by surface, as the key will see it: beside the bodies, where any is."""
    beside = beside_body(plan, view, [one.grid for one in maps], store)
    seen = [one.judged & free for one, free in zip(maps, beside, strict=True)]
    if not any(cells.any() for cells in seen):
        seen = [one.judged for one in maps]
    return [_patch(one, cells) for one, cells in zip(maps, seen, strict=True)]


def _patch(one: ScreenMap, cells: Bools) -> ScreenPatch:
    lux = one.lux[cells]
    return ScreenPatch(
        linear=one.linear[cells],
        open=np.where(lux > 0.0, one.open[cells] / np.where(lux > 0.0, lux, 1.0), 1.0),
        folds=one.folds[cells],
        share=one.share[cells],
    )


def seen_light(plan: Plan, light: SurfaceLight, view: View, store: BasisStore) -> Floats:
    """What a matt surface would have to be lit with to look as this one does, (H, W, 3) in lux: its light and, beside
    the wall, its sheen; less what a film on a window's pane takes."""
    seen = _with_sheen(plan, light, view, store)
    passes = film_before_screen(plan)
    return seen if passes == 1.0 else passes * seen


def _with_sheen(plan: Plan, light: SurfaceLight, view: View, store: BasisStore) -> Floats:
    if light.grid.sheet.name == "wall" or plan.screen.gloss <= 0.0:
        return light.shown
    ink = np.maximum(np.array(plan.screen.reflectance), 0.01)
    return np.asarray(light.shown + sheen_light(plan, light.arriving, light.grid, view.lens, store) / ink)


def _melt_m(plan: Plan, view: View, blur: Blur) -> float:
    """Diameter on the screen of the lens's blur disc, m."""
    if blur.screen_defocus_px is None:
        return 0.0
    return blur.screen_defocus_px / plan.camera.sensor.px_w * 2.0 * view.tan_h * abs(float(view.lens[2]))


def shadow_on(plan: Plan, light: ScreenLight, *names: SurfaceName) -> Shadow | None:
    """On some surfaces only."""
    return shadow_of(plan, ScreenLight(tuple(one for one in light.surfaces if one.grid.sheet.name in names)))


def shadow_of(plan: Plan, light: ScreenLight) -> Shadow | None:
    """None without a figure, or where no needed screen is in view."""
    if plan.subject is None or not light.any_judged:
        return None
    lost, share = light.judged(lambda one: one.shadow), light.judged(lambda one: one.share)
    seen = lost >= SHADOW_SEEN
    if not seen.any():
        return Shadow(100.0 * max(0.0, float(lost.max())), 0.0, None, None)
    area = 100.0 * float(share[seen].sum()) / float(share.sum())
    deepest = max(light.surfaces, key=lambda one: float(one.shadow[one.judged].max(initial=-1.0)))
    dark = deepest.judged & (deepest.shadow >= SHADOW_SEEN)
    weight = deepest.shadow[dark] / deepest.shadow[dark].sum()
    xs, ys = np.meshgrid(deepest.grid.x, deepest.grid.y)
    caused = dimmed(plan, (deepest.maps * deepest.lost)[:, dark].sum(axis=1))
    lamp = plan.lights[int(np.argmax(caused))].id if len(caused) and caused.max() > 0.0 else None
    return Shadow(
        100.0 * float(lost.max()),
        area,
        (float((xs[dark] * weight).sum()), float((ys[dark] * weight).sum())),
        lamp,
        deepest.grid.sheet.name,
    )


def texture_of(
    plan: Plan, light: ScreenLight, maps: tuple[ScreenMap, ...], view: View, store: BasisStore
) -> Texture | None:
    if not light.any_judged:
        return None
    spots: list[Highlight] = []
    for one in light.surfaces:
        shown = scalar_lux(one.shown)
        spots += highlights(plan, dimmed(plan, one.maps), shown, one.grid, one.judged, view.lens, store)
    brightest = {spot.light: spot for spot in sorted(spots, key=lambda spot: spot.added)}
    folds = np.concatenate([one.wrinkles[one.judged] for one in maps])
    return Texture(float(quantiles(folds, [0.95])[0]), tuple(sorted(brightest.values(), key=lambda s: -s.added)))


@dataclass(frozen=True, eq=False)
class MapLux:
    """Lux (H, W) over a grid: lamps and around; the same with the figure's shadow; with returned light."""

    direct: Floats
    shadowed: Floats
    total: Floats


def map_lux(plan: Plan, grid: Grid, store: BasisStore) -> MapLux:
    maps, lost = lamp_maps(plan, grid, store), lost_maps(plan, grid, store)
    direct = direct_light(plan, grid, maps)
    taken = summed(plan, maps * lost)
    returned = returned_to_screen(grid, scene_light(plan, store), store)
    return MapLux(scalar_lux(direct), scalar_lux(direct - taken), scalar_lux(direct + returned))


def hue_spread_of(plan: Plan, light: ScreenLight) -> float | None:
    """Degrees of the vectorscope between the 1st and 99th percentile of the judged screen's hue, of what was recorded
    as Rec.709 shows it: a curve with a knee, HLG's, bends hue with level, and that is nothing of the light.

    None where the screen is too dark or too grey to have one.
    """
    shown = light.judged(lambda one: one.shown)
    if not len(shown) or float(scalar_lux(shown).min()) <= 0.0:
        return None
    camera = plan.camera
    seen = held(linear_light(np.array(plan.screen.reflectance), shown, camera), camera.curve, camera.curve_table)
    cb, cr = colour_differences(rec709(seen / max(1.0, float(seen.max()))))
    if float(np.hypot(cb, cr).min()) < 0.01:
        return None
    middle = math.atan2(float(cr.mean()), float(cb.mean()))
    off = np.degrees(np.angle(np.exp(1j * (np.arctan2(cr, cb) - middle))))
    low, high = quantiles(off, (0.01, 0.99))
    return float(high - low)
