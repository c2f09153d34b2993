"""What is captured, apart from the plan it came from: so that an ideal and a border capture differ in it alone."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..camera.exposure import grey_lux
from ..camera.level_schools import key_channel
from ..camera.sensor_noise import noise_linear
from ..camera.view import View
from ..colour.rec709 import LUMA
from ..evaluation.results import Evaluation
from ..evaluation.screen_light import screen_light_of
from ..geometry.vectors import Floats
from ..light.basis import BasisStore
from ..light.cloth import wrinkle_contrast
from ..light.mix import dimmed, scalar_lux
from ..light.pane_image import PaneImage, pane_images
from ..plan import Plan, Recording

BORDER_ISO, BORDER_SHUTTER, BORDER_UNEVEN, BORDER_SPILL, BORDER_BITS = 1600.0, 1.0 / 50.0, 0.20, 0.08, 1.5


@dataclass(frozen=True, eq=False)
class Capture:
    """Linear light, white = 1, ready to be drawn.

    screen (H, W, 3) over `xs`, `ys` in m; folds (H, W): contrast of the cloth's wrinkles as a share of the light;
    `light` by place of the figure (3,); `floor` (3,) on the floor run; `in_pane`: lamps mirrored in a window, their
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
    floor: Floats
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


def capture_of(evaluation: Evaluation, store: BasisStore, seed: int = 7) -> Capture:
    """The capture that a plan would make."""
    plan = evaluation.plan
    light = screen_light_of(plan, evaluation.coverage, evaluation.view, evaluation.scene_light, store)
    grey = grey_lux(plan.camera)
    reflectance = np.array(plan.screen.reflectance)
    patches = evaluation.scene_light.scene.patches
    own = patches.of("floor run")
    floor = evaluation.scene_light.incident[own].mean(axis=0) if own.any() else light.shown.mean(axis=(0, 1))
    lit = dimmed(plan, light.maps * (1.0 - light.lost))
    folds = wrinkle_contrast(plan, lit, scalar_lux(light.shown), light.grid, 0.0, store)
    return Capture(
        plan=plan,
        view=evaluation.view,
        key=key_channel(plan.screen.hue, reflectance),
        xs=light.grid.x,
        ys=light.grid.y,
        screen=reflectance * light.shown / grey,
        folds=folds,
        light={r.place.name: r.light / grey for r in evaluation.spill.probes},
        floor=reflectance * floor / grey,
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


def ideal_of(capture: Capture) -> Capture:
    """The same scene without a fault: even, no spill, no smear, no noise, nothing lost in recording."""
    mean = capture.screen.mean(axis=(0, 1))
    return replace(
        capture,
        screen=np.broadcast_to(mean, capture.screen.shape),
        folds=np.zeros_like(capture.folds),
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
