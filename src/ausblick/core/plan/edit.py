"""Changes of a plan by its fields, typed: `edit.camera.f_number(4.0)`, `edit.lamp(3).dimmer(0.5)`.

What a change is called on the wire (`lights[3].dimmer`) stands here and nowhere else in the core.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Generic, Literal, TypeVar

from .changes import Change
from .people import Framing
from .scene import Material

T = TypeVar("T")
Triple = Sequence[float]
Side = Literal["left", "right", "up", "front", "back"]
Hue = Literal["green", "blue", "other"]
Part = dict[str, Any]
"""A part of the document as JSON has it: a modifier, a recording."""


class Field(Generic[T]):
    """One field of the plan; called with a value it is the change that sets it."""

    __slots__ = ("path",)

    def __init__(self, path: str) -> None:
        self.path = path

    def __call__(self, value: T) -> Change:
        return Change(self.path, value)


class Lamp:
    """The lamp at a place in the plan's list."""

    def __init__(self, index: int) -> None:
        at = f"lights[{index}]"
        self.dimmer = Field[float](f"{at}.dimmer")
        self.on = Field[bool](f"{at}.on")
        self.position = Field[Triple](f"{at}.position")
        self.aim = Field[Triple](f"{at}.aim")
        self.modifier = Field[Part](f"{at}.modifier")
        self.beyond = Field[list[Part]](f"{at}.beyond")
        self.circuit = Field[str](f"{at}.circuit")
        self.cct = Field[float](f"{at}.fixture.cct")
        self.duv = Field[float](f"{at}.fixture.duv")
        self.gel = Field[Triple](f"{at}.gel")


class CompanionAt:
    """The companion at a place in the plan's list."""

    def __init__(self, index: int) -> None:
        at = f"companions[{index}]"
        self.x = Field[float](f"{at}.x")
        self.z = Field[float](f"{at}.z")


class _Camera:
    x, y, z = Field[float]("camera.x"), Field[float]("camera.y"), Field[float]("camera.z")
    pan, tilt, roll = Field[float]("camera.pan"), Field[float]("camera.tilt"), Field[float]("camera.roll")
    focal_mm = Field[float]("camera.focal_mm")
    f_number = Field[float]("camera.f_number")
    widest = Field[float]("camera.widest")
    shutter_s = Field[float]("camera.shutter_s")
    iso = Field[float]("camera.iso")
    fps = Field[float]("camera.fps")
    nd_stops = Field[float]("camera.nd_stops")
    white_balance_k = Field[float]("camera.white_balance_k")
    sharpening = Field[bool]("camera.sharpening")
    noise_reduction = Field[bool]("camera.noise_reduction")
    noise = Field[Part]("camera.noise")
    curve = Field[Literal["rec709", "hlg", "acescct", "linear", "cube"]]("camera.curve")
    recording = Field[Part]("camera.recording")
    mbit_s = Field[float]("camera.recording.mbit_s")


class _Screen:
    hue = Field[Hue]("screen.hue")
    reflectance = Field[Triple]("screen.reflectance")
    material = Field[Material]("screen.material")
    x_centre, bottom = Field[float]("screen.x_centre"), Field[float]("screen.bottom")
    width, height = Field[float]("screen.width"), Field[float]("screen.height")
    floor_run, curve_radius = Field[float]("screen.floor_run"), Field[float]("screen.curve_radius")
    wing_left, wing_right = Field[float]("screen.wing_left"), Field[float]("screen.wing_right")
    gloss = Field[float]("screen.gloss")
    transmittance = Field[float]("screen.transmittance")
    wrinkle_slope = Field[float]("screen.wrinkle_slope")
    behind_lux = Field[float]("screen.behind_lux")


class _Subject:
    x, z = Field[float]("subject.x"), Field[float]("subject.z")
    framing = Field[Framing]("subject.framing")
    feet_seen = Field[bool]("subject.feet_seen")
    wardrobe = Field[list[Part]]("subject.wardrobe")
    props = Field[list[Part]]("subject.props")

    @staticmethod
    def reach(side: Side) -> Field[float]:
        """Reach of the action to one side."""
        return Field[float](f"subject.envelope.{side}")


class _Window:
    film_stops = Field[float]("window.film_stops")


class _Room:
    floor = Field[Triple]("room.reflectance.floor")
    ambient_lux = Field[float]("room.ambient_lux")
    wind_ms = Field[float]("room.wind_ms")


lamp, companion = Lamp, CompanionAt
camera, screen, subject, room, window = _Camera(), _Screen(), _Subject(), _Room(), _Window()
lights = Field[list[Any]]("lights")
flags = Field[list[Any]]("flags")
medium = Field[Literal["video", "stills"]]("medium")
