"""Noise of a typical sensor: shot noise and read noise by pixel area, gains of the white balance.

A model, and said to be one: a measured frame takes its place as soon as there is one. Full well 2,500
electrons per square micrometre at base ISO, read noise 3 electrons; a white surface correctly exposed
fills the well at base ISO.
"""

from __future__ import annotations

import numpy as np

from ..colour.curves import decode, encode
from ..colour.rec709 import LUMA
from ..geometry.channels import by_channel
from ..geometry.vectors import AsGiven, Floats
from ..plan import Camera, Plan
from .exposure import scene_light
from .level_schools import key_channel

WELL_PER_UM2 = 2500.0
READ_E = 3.0
GAINS = np.array([1.9, 1.0, 1.5])
"""What a sensor's red, green and blue are multiplied by under daylight."""


def full_well(camera: Camera) -> float:
    """Electrons of a pixel at white and base ISO."""
    pitch_um = 1000.0 * camera.sensor.width_mm / camera.sensor.px_w
    return WELL_PER_UM2 * pitch_um * pitch_um


def noise_linear(x: AsGiven, camera: Camera) -> AsGiven:
    """Standard deviation (..., 3) of linear signal x (..., 3), white = 1, as closely as x is given.

    A higher ISO shows fewer electrons as the same signal.
    """
    electrons = full_well(camera) * camera.sensor.base_iso / camera.iso
    counted = by_channel(np.maximum(x, 0.0), electrons / GAINS)
    return by_channel(np.sqrt(counted + READ_E**2), measured_ratio(camera) / electrons * GAINS)


def measured_ratio(camera: Camera) -> float:
    """Noise of this camera as it was measured over the model's at the same level and ISO; 1 without a measurement."""
    reading = camera.noise
    if reading is None:
        return 1.0
    plain = camera.model_copy(update={"noise": None, "iso": reading.iso})
    x = decode(np.full(3, reading.level / 100.0), camera.curve, camera.curve_table)
    model = float(noise_percent(x, plain)[2 if reading.channel == "blue" else 1])
    return reading.percent / max(model, 1e-6)


def noise_percent(x: Floats, camera: Camera) -> Floats:
    """Standard deviation (..., 3) in % of the recorded signal at linear signal x (..., 3)."""
    sigma = noise_linear(x, camera)
    up, down = (encode(v, camera.curve, camera.curve_table) for v in (x + sigma, np.maximum(x - sigma, 0.0)))
    return np.asarray(50.0 * (up - down))


def screen_noise(plan: Plan, lux: float) -> float:
    """Noise of the key channel in % of signal on a screen under white light of `lux`."""
    ink = np.array(plan.screen.reflectance)
    sigma = noise_percent(scene_light(ink, np.full(3, lux), plan.camera), plan.camera)
    return float(sigma[key_channel(plan.screen.hue, ink)])


def trace_noise(plan: Plan, lux: float) -> float:
    """Noise in % on the plan's level trace of a screen under white light of `lux`."""
    if plan.targets.level_trace == "key-channel":
        return screen_noise(plan, lux)
    ink = np.array(plan.screen.reflectance)
    sigma = noise_percent(scene_light(ink, np.full(3, lux), plan.camera), plan.camera)
    return float(np.sqrt(((LUMA * sigma) ** 2).sum()))
