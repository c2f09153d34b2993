"""Numbers of what is recorded: noise, data, and what flashes give."""

from __future__ import annotations

from ..camera.sensor_noise import measured_ratio, screen_noise
from ..camera.view import pixel_pitch_mm
from .number import Input, Number
from .results import Evaluation

OFFLOAD_MB_S, PROXY_MBIT = 250.0, 10.0
"""A plain card reader, and a proxy that any machine plays."""


def recording_numbers(e: Evaluation) -> list[Number]:
    """Of the station Camera, after its optics."""
    return [_noise(e), _data(e), *_flash(e)]


def _noise(e: Evaluation) -> Number:
    camera = e.plan.camera
    model = "the model of a typical sensor; a measured frame takes its place"
    how = "scaled to a frame that was measured" if camera.noise else model
    return Number(
        id="noise",
        stage="camera",
        label="Noise, key channel",
        value=screen_noise(e.plan, e.screen.lux_mean) if e.screen and e.screen.lux_mean > 0.0 else None,
        unit="%",
        digits=2,
        formula="shot noise of 2,500 electrons per µm² at base ISO and 3 electrons of reading, × white-balance gain, "
        f"through the curve; {how}",
        source="Poisson statistics",
        inputs=(
            Input("pixel pitch", 1000.0 * pixel_pitch_mm(camera), "µm"),
            Input("ISO", camera.iso, ""),
            Input("base ISO", camera.sensor.base_iso, ""),
            Input("measured over model", measured_ratio(camera), ""),
        ),
    )


def _data(e: Evaluation) -> Number:
    camera = e.plan.camera
    rate = camera.recording.mbit_s
    pixels = float(camera.sensor.px_w * camera.sensor.px_h)
    hour = 3600.0 * rate / 8000.0
    return Number(
        id="data",
        stage="camera",
        label="Data",
        value=60.0 * rate / 8000.0,
        unit="GB a minute",
        digits=2,
        formula="megabit a second × 60 / 8000",
        source="Definition",
        inputs=(
            Input("bit rate", rate, "Mbit/s"),
            Input("bits a pixel", 1e6 * rate / (pixels * camera.fps), ""),
            Input("minutes on 256 GB", 256_000.0 * 8.0 / (60.0 * rate), "min"),
            Input("an hour of takes", hour, "GB"),
            Input(f"offload of it at {OFFLOAD_MB_S:.0f} MB/s", 1000.0 * hour / OFFLOAD_MB_S / 60.0, "min"),
            Input(f"its proxies at {PROXY_MBIT:.0f} Mbit/s", 3600.0 * PROXY_MBIT / 8000.0, "GB"),
        ),
    )


def _flash(e: Evaluation) -> list[Number]:
    flash, camera = e.flash, e.plan.camera
    if flash is None:
        return []
    return [
        Number(
            id="flash",
            stage="camera",
            label="Flash on the face",
            value=flash.lux_s,
            unit="lx s",
            digits=1,
            formula="luminous energy of every flash by its share of light on the face, × dimmer",
            source="Photometric distance law",
            inputs=(Input("light for grey × shutter", e.exposure.grey_lux * camera.shutter_s, "lx s"),),
        ),
        Number(
            id="ambient",
            stage="camera",
            label="Not flash",
            value=flash.ambient_percent,
            unit="%",
            digits=0,
            formula="steady light × shutter over all light on the face",
            source="Exposure is light × time",
            inputs=(Input("shutter", camera.shutter_s, "s"), Input("sync time", camera.sync_s, "s")),
        ),
        Number(
            id="recycle",
            stage="camera",
            label="Ready again",
            value=flash.recycle_s,
            unit="s",
            digits=1,
            formula="the slowest flash's recycling time × its power setting",
            source="Energy per flash over charging power",
            inputs=(),
        ),
    ]
