"""A stand-in camera and meter: what they would show of a set as built, drawn by the test key's renderer."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ..camera.exposure import grey_lux
from ..camera.sensor_noise import noise_linear
from ..camera.turned import recorded_places, side_turns, upright
from ..camera.view import view_of
from ..colour.curves import encode
from ..evaluation.evaluate import evaluate
from ..geometry.lattice import at_lattice
from ..geometry.vectors import Bytes, Floats, Floats32, unit
from ..light.basis import BasisStore
from ..light.mix import scalar_lux
from ..light.returned import probe_all
from ..matte.capture import Capture, capture_of
from ..matte.key_windows import overview_window
from ..matte.render import draw
from ..plan import Plan
from .as_built import AsBuilt, Crease

FINE = 0.01
"""Grid in m on which creases are laid into the screen's light."""


def standin_capture(built: AsBuilt, store: BasisStore) -> Capture:
    """What the stand-in's lens sees; no codec yet."""
    capture = capture_of(evaluate(built.plan, store), store)
    capture = replace(capture, noise=capture.noise * built.noise)
    if not built.creases:
        return capture
    xs = np.arange(capture.xs[0], capture.xs[-1] + FINE, FINE)
    ys = np.arange(capture.ys[0], capture.ys[-1] + FINE, FINE)
    screen, folds = (at_lattice(values, capture.xs, capture.ys, xs, ys) for values in (capture.screen, capture.folds))
    left = np.prod([1.0 - _lost(crease, xs, ys) for crease in built.creases], axis=0)
    return replace(capture, xs=xs, ys=ys, screen=screen * left[..., None], folds=folds)


def _lost(crease: Crease, xs: Floats, ys: Floats) -> Floats:
    x, y = np.meshgrid(xs - crease.x, ys - crease.y)
    turn = np.radians(crease.angle)
    along, across = y * np.cos(turn) + x * np.sin(turn), x * np.cos(turn) - y * np.sin(turn)
    return np.asarray(crease.lost * np.exp(-((across / crease.half_width) ** 2) - (along / crease.half_length) ** 4))


def standin_signal(capture: Capture, width: int, seed: int) -> Floats32:
    """One exposure as recorded signal 0..1 (H, W, 3) at most `width` px wide; `seed` draws its noise."""
    return exposures(capture, draw(capture, overview_window(capture.plan, width)).frame)(seed)


def exposures(capture: Capture, clean: Floats32) -> Callable[[int], Floats32]:
    """What records linear light (H, W, 3): a seed gives the signal (H, W, 3) of one exposure with its noise."""
    camera = capture.plan.camera
    sigma = np.float32(capture.noise) * noise_linear(clean, camera)

    def one(seed: int) -> Floats32:
        noise = np.random.default_rng(seed).standard_normal(clean.shape, dtype=np.float32)
        noisy = np.maximum(clean + sigma * noise, np.float32(0.0))
        return np.asarray(encode(noisy, camera.curve, camera.curve_table), dtype=np.float32)

    return one


def standin_picture(capture: Capture, width: int, seed: int) -> Bytes:
    """The still (H, W, 3), 8 bit, as a camera shows it: upright."""
    recorded = np.round(255.0 * standin_signal(capture, width, seed)).astype(np.uint8)
    return upright(recorded, side_turns(capture.plan.camera))


@dataclass(frozen=True)
class MeterReading:
    """`lux` for an incident meter, `candela_m2` for a spot meter; `stops` over 18 % grey at the camera's settings."""

    kind: Literal["incident", "spot"]
    lux: float | None
    candela_m2: float | None
    stops: float | None


def incident(plan: Plan, at: tuple[float, float, float], store: BasisStore) -> MeterReading:
    """Held at a place of the set, its dome toward the camera."""
    evaluation = evaluate(plan, store)
    place, camera = np.array(at), plan.camera
    toward = np.array([camera.x, camera.y, camera.z]) - place
    facing = unit(toward) if np.linalg.norm(toward) > 1e-6 else np.array([0.0, 0.0, 1.0])
    lux = float(scalar_lux(probe_all(plan, place, facing, evaluation.scene_light, store).total))
    return MeterReading("incident", lux, None, _over(lux / grey_lux(camera)))


def spot(built: AsBuilt, at: tuple[float, float], store: BasisStore) -> MeterReading:
    """Through the lens at a place of the upright picture (parts of it), one per cent of its height wide."""
    capture = standin_capture(built, store)
    window = overview_window(built.plan, 960)
    frame = draw(capture, window).frame
    u, v = recorded_places(np.array(at), side_turns(built.plan.camera))
    x, y, half = u * window.width, v * window.height, max(2, round(0.005 * window.height))
    row, column = int(np.clip(y, half, window.height - half)), int(np.clip(x, half, window.width - half))
    patch = frame[row - half : row + half, column - half : column + half].mean(axis=(0, 1))
    luminance = float(scalar_lux(patch))
    # x = reflectance * E / E18 and L = reflectance * E / pi.
    return MeterReading("spot", None, luminance * grey_lux(built.plan.camera) / np.pi, _over(luminance / 0.18))


def _over(ratio: float) -> float | None:
    return float(np.log2(ratio)) if ratio > 0.0 else None


def screen_corners(plan: Plan) -> Floats:
    """Frame coordinates (4, 2) of the screen's corners: upper left, upper right, lower right, lower left."""
    s = plan.screen
    left, right = s.x_centre - s.width / 2.0, s.x_centre + s.width / 2.0
    corners = [
        [left, s.bottom + s.height, 0],
        [right, s.bottom + s.height, 0],
        [right, s.bottom, 0],
        [left, s.bottom, 0],
    ]
    return view_of(plan.camera, plan.subject).project(np.array(corners, dtype=float))[0]
