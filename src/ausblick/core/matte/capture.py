"""What is captured, apart from the plan it came from: so that an ideal and a border capture differ in it alone."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..camera.exposure import grey_lux
from ..camera.level_schools import key_channel
from ..camera.screen_grid import Sheet, wall_of
from ..camera.sensor_noise import noise_linear
from ..camera.view import View
from ..colour.rec709 import LUMA
from ..evaluation.results import Evaluation
from ..evaluation.screen_light import SurfaceLight, screen_light_of, seen_light
from ..geometry.vectors import Floats
from ..light.basis import BasisStore
from ..light.cloth import wrinkle_contrast
from ..light.mix import dimmed, scalar_lux
from ..light.pane_image import PaneImage, pane_images
from ..plan import Plan, Recording

BORDER_ISO, BORDER_SHUTTER, BORDER_UNEVEN, BORDER_SPILL, BORDER_BITS = 1600.0, 1.0 / 50.0, 0.20, 0.08, 1.5


@dataclass(frozen=True, eq=False)
class LitSheet:
    """A surface of the screen: its look (H, W, 3) in linear light over `xs`, `ys` in m along it; folds (H, W):
    contrast of the cloth's wrinkles as a share of the light."""

    sheet: Sheet
    xs: Floats
    ys: Floats
    look: Floats
    folds: Floats

    def toned(self, mean: Floats) -> LitSheet:
        """Without a fault: one tone (3,) and no folds."""
        return replace(self, look=np.broadcast_to(mean, self.look.shape), folds=np.zeros_like(self.folds))


@dataclass(frozen=True, eq=False)
class Capture:
    """Linear light, white = 1, ready to be drawn.

    screen (H, W, 3) over `xs`, `ys` in m and its folds: the wall (see `LitSheet`); `beside`: the other surfaces;
    `light` by place of the figure (3,); `in_pane`: lamps mirrored in a window, their
    `lux` in linear light too; `smear_px`, `defocus_px` in sensor px; `noise`: 0 none, 1 as the camera's; `lift`:
    what the grade multiplies linear light by before keying.
    """

    plan: Plan
    view: View
    key: int
    xs: Floats
    ys: Floats
    screen: Floats
    folds: Floats
    light: dict[str, Floats]
    beside: tuple[LitSheet, ...]
    in_pane: tuple[PaneImage, ...]
    smear_px: float
    defocus_px: float
    noise: float
    recording: Recording | None
    sharpening: bool
    seed: int = 7
    lift: float = 1.0

    @property
    def camera_at(self) -> Floats:
        return self.view.lens

    @property
    def sheets(self) -> tuple[LitSheet, ...]:
        wall = LitSheet(wall_of(self.plan.screen), self.xs, self.ys, self.screen, self.folds)
        return (wall, *self.beside)


def capture_of(evaluation: Evaluation, store: BasisStore, seed: int = 7) -> Capture:
    """The capture that a plan would make."""
    plan = evaluation.plan
    light = screen_light_of(
        plan, evaluation.coverage, evaluation.view, evaluation.scene_light, store, everything=True
    )
    grey = grey_lux(plan.camera)
    reflectance = np.array(plan.screen.reflectance)
    wall, *beside = (_lit(plan, one, evaluation.view, store) for one in light.surfaces)
    return Capture(
        plan=plan,
        view=evaluation.view,
        key=key_channel(plan.screen.hue, reflectance),
        xs=wall.xs,
        ys=wall.ys,
        screen=wall.look,
        folds=wall.folds,
        light={r.place.name: r.light / grey for r in evaluation.spill.probes},
        beside=tuple(beside),
        in_pane=tuple(
            replace(image, lux=image.lux / grey)
            for image in pane_images(plan, evaluation.view, evaluation.reflections)
        ),
        smear_px=evaluation.blur.motion_px or 0.0,
        defocus_px=evaluation.blur.screen_defocus_px or 0.0,
        noise=1.0,
        recording=plan.camera.recording,
        sharpening=plan.camera.sharpening,
        seed=seed,
    )


def _lit(plan: Plan, light: SurfaceLight, view: View, store: BasisStore) -> LitSheet:
    folds = wrinkle_contrast(plan, dimmed(plan, light.arriving), scalar_lux(light.shown), light.grid, 0.0, store)
    look = np.array(plan.screen.reflectance) * seen_light(plan, light, view, store) / grey_lux(plan.camera)
    return LitSheet(light.grid.sheet, light.grid.x, light.grid.y, look, folds)


def ideal_of(capture: Capture) -> Capture:
    """The same scene without a fault: even, no spill, no smear, no noise, nothing lost in recording."""
    mean = capture.screen.mean(axis=(0, 1))
    return replace(
        capture,
        screen=np.broadcast_to(mean, capture.screen.shape),
        folds=np.zeros_like(capture.folds),
        beside=tuple(sheet.toned(mean) for sheet in capture.beside),
        in_pane=(),
        light={name: _white(rgb) for name, rgb in capture.light.items()},
        smear_px=0.0,
        defocus_px=0.0,
        noise=0.0,
        recording=None,
        sharpening=False,
    )


def border_of(capture: Capture) -> Capture:
    """A stated border capture: 1/50 s, ISO 1600, 4:2:0 at a middling rate, 20 % uneven, 8 % spill."""
    camera = capture.plan.camera
    mean = capture.screen.mean(axis=(0, 1))
    slope = 1.0 + BORDER_UNEVEN * np.linspace(-0.5, 0.5, len(capture.xs))
    screen = np.broadcast_to(mean * slope[None, :, None], capture.screen.shape)
    pixels = camera.sensor.px_w * camera.sensor.px_h
    rate = BORDER_BITS * pixels / (1920 * 1080) * 12.0
    return replace(
        capture,
        screen=screen,
        folds=np.zeros_like(capture.folds),
        beside=tuple(sheet.toned(mean) for sheet in capture.beside),
        in_pane=(),
        light={name: _spilled(_white(rgb), capture.key) for name, rgb in capture.light.items()},
        smear_px=capture.smear_px * BORDER_SHUTTER / camera.shutter_s,
        noise=_noise_ratio(capture),
        recording=Recording(codec="long-gop", chroma="4:2:0", bits=8, mbit_s=max(1.0, rate)),
        sharpening=False,
    )


def _noise_ratio(capture: Capture) -> float:
    """Noise of the border ISO over the plan's, at the screen's level."""
    camera = capture.plan.camera
    x = capture.screen.mean(axis=(0, 1))
    own = noise_linear(x, camera)[capture.key]
    border = noise_linear(x, camera.model_copy(update={"iso": BORDER_ISO}))[capture.key]
    return float(border / own)


def _white(rgb: Floats) -> Floats:
    return np.full(3, float(rgb @ LUMA))


def _spilled(rgb: Floats, key: int) -> Floats:
    found = rgb.copy()
    found[key] /= 1.0 - BORDER_SPILL
    return found
