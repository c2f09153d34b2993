"""The camera: where it stands, what its sensor and lens are, how it is set, what it records."""

from typing import Annotated, Literal, Self

from pydantic import Field, StringConstraints, field_validator, model_validator

from ..colour.cube_table import check_table
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


class NoiseReading(Part):
    """Noise in % of signal of a channel that read `level` % at an ISO, measured: the model is scaled to it."""

    percent: Annotated[float, number(0.001, 50.0, "% of signal")] = 1.0
    level: Annotated[float, number(1.0, 100.0, "% of signal")] = 50.0
    channel: Literal["green", "blue"] = "green"
    iso: Annotated[float, number(1.0, 10_000_000.0, "ISO")] = 400.0


class Camera(Part):
    """`pan` is positive to the right, `tilt` upwards, `roll` 90 is turned on its side. Degrees.

    `playback_fps`: frames per second that the take is shown at; 0: as it is shot. `sync_s`: shortest shutter that a
    flash fires in whole. `curve_table`: text of a `.cube` file that maps the recorded signal to Rec.709.
    """

    x: Coordinate = 0.0
    y: Coordinate = 1.5
    z: Coordinate = 6.4
    pan: Angle = 0.0
    tilt: Annotated[float, number(-90.0, 90.0, "degrees")] = 0.0
    roll: Angle = 0.0
    sensor: Sensor = Sensor()
    focal_mm: Annotated[float, number(1.0, 2000.0, "millimetres")] = 35.0
    f_number: Annotated[float, number(0.5, 128.0, "f-number")] = 4.0
    widest: Annotated[float, number(0.5, 128.0, "f-number")] = 1.4
    shutter_s: Annotated[float, number(0.000001, 60.0, "seconds")] = 0.01
    iso: Annotated[float, number(1.0, 10_000_000.0, "ISO")] = 400.0
    fps: Annotated[float, number(0.1, 10_000.0, "frames per second")] = 25.0
    nd_stops: Annotated[float, number(0.0, 15.0, "stops")] = 0.0
    white_balance_k: Kelvin = 5600.0
    tint: Annotated[float, number(-50.0, 50.0, "thousandths of Duv")] = 0.0
    playback_fps: Annotated[float, number(0.0, 10_000.0, "frames per second")] = 0.0
    sync_s: Annotated[float, number(0.0001, 1.0, "seconds")] = 0.004
    sharpening: Switch = False
    noise_reduction: Switch = False
    curve: Literal["rec709", "hlg", "acescct", "linear", "cube"] = "rec709"
    curve_table: Annotated[str, StringConstraints(strict=True, max_length=3_000_000)] = ""
    noise: NoiseReading | None = None
    recording: Recording = Recording()

    @field_validator("curve_table", mode="after")
    @classmethod
    def _table_reads(cls, text: str) -> str:
        if text:
            check_table(text)
        return text

    @model_validator(mode="after")
    def _table_is_there(self) -> Self:
        if self.curve == "cube" and not self.curve_table:
            raise ValueError("curve 'cube' needs the text of a .cube file in curve_table")
        return self
