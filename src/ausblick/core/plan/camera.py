"""The camera: where it stands, what its sensor and lens are, how it is set, what it records."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .fields import Angle, Coordinate, Kelvin, Name, Part, Switch, number

Pixels = Annotated[int, Field(ge=16, le=32768, strict=True, description="pixels")]


class Sensor(Part):
    width_mm: Annotated[float, number(1.0, 100.0, "millimetres")] = 23.5
    height_mm: Annotated[float, number(1.0, 100.0, "millimetres")] = 13.2
    px_w: Pixels = 3840
    px_h: Pixels = 2160
    base_iso: Annotated[float, number(1.0, 1_000_000.0, "ISO")] = 400.0


class Recording(Part):
    codec: Name = "long-gop"
    chroma: Literal["4:2:0", "4:2:2", "4:4:4", "raw"] = "4:2:0"
    bits: Annotated[int, Field(ge=8, le=16, strict=True, description="bits per channel")] = 8
    mbit_s: Annotated[float, number(0.1, 100_000.0, "megabit per second")] = 50.0


class Camera(Part):
    """`pan` is positive to the right, `tilt` upwards, `roll` 90 is turned on its side. Degrees."""

    x: Coordinate = 0.0
    y: Coordinate = 1.5
    z: Coordinate = 6.4
    pan: Angle = 0.0
    tilt: Annotated[float, number(-90.0, 90.0, "degrees")] = 0.0
    roll: Angle = 0.0
    sensor: Sensor = Sensor()
    focal_mm: Annotated[float, number(1.0, 2000.0, "millimetres")] = 35.0
    f_number: Annotated[float, number(0.5, 128.0, "f-number")] = 4.0
    shutter_s: Annotated[float, number(0.000001, 60.0, "seconds")] = 0.01
    iso: Annotated[float, number(1.0, 10_000_000.0, "ISO")] = 400.0
    fps: Annotated[float, number(0.1, 10_000.0, "frames per second")] = 25.0
    nd_stops: Annotated[float, number(0.0, 15.0, "stops")] = 0.0
    white_balance_k: Kelvin = 5600.0
    tint: Annotated[float, number(-50.0, 50.0, "thousandths of Duv")] = 0.0
    sharpening: Switch = False
    curve: Literal["rec709", "hlg", "acescct", "linear"] = "rec709"
    recording: Recording = Recording()
