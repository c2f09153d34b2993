"""What a remembered map is remembered by: the plan's own frozen parts, with what cannot change it set aside.

What is set aside is named here, not what is kept: a field that somebody adds to the plan is part of every key until
it is named here, so that a key may be finer than needed but never too coarse.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable
from functools import lru_cache
from typing import Any, Generic, TypeVar

from ..geometry.vectors import Floats
from ..plan import Camera, Fixture, Flag, Light, Plan, Room, Screen, Subject

PLAIN_LIGHT, PLAIN_FIXTURE, PLAIN_ROOM, PLAIN_SCREEN = Light(id=""), Fixture(flux_lm=1.0), Room(), Screen()
PLAIN_CAMERA, PLAIN_PERSON = Camera(), Subject()
PLAIN_FLAG = Flag(id="", corners=((0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (1.0, 1.0, 0.0), (0.0, 1.0, 0.0)))
ASIDE_OF_LAMP = ("id", "name", "role", "dimmer", "on", "gel", "circuit")
"""Weights and words: none of them changes what a lamp gives at full power."""
ASIDE_OF_FIXTURE = ("cct", "cct_range", "duv", "cri", "watts", "flicker", "flash_s", "recycle_s")
ASIDE_OF_ROOM = ("ambient_lux", "ambient_cct", "wind_ms", "mains")
ASIDE_OF_SCREEN = ("hue", "material", "gloss", "transmittance", "wrinkle_slope", "behind_lux")
"""The screen's shape and ink stay; light through the cloth is told apart where it counts."""
ASIDE_OF_FRAMING = ("title", "medium", "lights", "photometry", "plate")
"""Lamps change nothing of what of the screen is seen, and where; nor do exposure, recording, inks and movement."""
ASIDE_OF_LENS = (
    "widest", "f_number", "shutter_s", "iso", "fps", "nd_stops", "white_balance_k", "tint", "playback_fps", "sync_s",
    "sharpening", "noise_reduction", "curve", "curve_table", "noise", "recording",
)  # fmt: skip
OF_LIGHT = ("shutter_s", "white_balance_k", "tint")
"""What of a camera's settings light is counted by: flashes over the time that it is gathered for, and its white."""
ASIDE_OF_LIT = ("title", "medium", "plate", "photometry")
ASIDE_OF_PERSON = ("speed", "skin", "hair", "wardrobe")


class StoreKey:
    """Parts that are equal or not, hashed once."""

    __slots__ = ("_hash", "_parts")

    def __init__(self, *parts: Any) -> None:
        self._parts = parts
        self._hash = hash(parts)

    def __hash__(self) -> int:
        return self._hash

    def __eq__(self, other: object) -> bool:
        return isinstance(other, StoreKey) and self._hash == other._hash and self._parts == other._parts


@lru_cache(maxsize=8192)
def _same(key: StoreKey) -> StoreKey:
    """One object for all equal keys, so that a look-up in a store compares no parts."""
    return key


T = TypeVar("T")
K = TypeVar("K")


class Noted(Generic[T, K]):
    """What is made of each part of a plan, worked out once for each object: parts are frozen, and an object that is
    noted is held, so that no other can come to have its identity."""

    def __init__(self, make: Callable[[T], K], most: int = 1024) -> None:
        self._make, self._most = make, most
        self._kept: dict[int, tuple[T, K]] = {}

    def __call__(self, part: T) -> K:
        found = self._kept.get(id(part))
        if found is not None:
            return found[1]
        made = self._make(part)
        if len(self._kept) >= self._most:
            self._kept = {}
        self._kept[id(part)] = (part, made)
        return made


def together(*parts: Any) -> StoreKey:
    """Parts of a key that many look-ups share, hashed once."""
    return _same(StoreKey(*parts))


def _aside(part: Any, plain: Any, names: tuple[str, ...]) -> Any:
    return part.model_copy(update={name: getattr(plain, name) for name in names})


@lru_cache(maxsize=4096)
def _lamp(lamp: Light) -> StoreKey:
    fixture = _aside(lamp.fixture, PLAIN_FIXTURE, ASIDE_OF_FIXTURE)
    return together(_aside(lamp, PLAIN_LIGHT, ASIDE_OF_LAMP).model_copy(update={"fixture": fixture}))


def _scene(plan: Plan) -> StoreKey:
    screen = _aside(plan.screen, PLAIN_SCREEN, ASIDE_OF_SCREEN)
    return together(_aside(plan.room, PLAIN_ROOM, ASIDE_OF_ROOM), screen, plan.flags, _wall(plan))


def _blocking(plan: Plan) -> StoreKey:
    return together(
        _aside(plan.room, PLAIN_ROOM, (*ASIDE_OF_ROOM, "reflectance")),
        _aside(plan.screen, PLAIN_SCREEN, (*ASIDE_OF_SCREEN, "reflectance")),
        tuple(_aside(flag, PLAIN_FLAG, ("id", "reflectance")) for flag in plan.flags),
        _wall(plan),
    )


def _wall(plan: Plan) -> Any:
    """A window whose wall blocks light."""
    return plan.window if plan.window is not None and plan.window.in_wall else None


def _framing(plan: Plan) -> StoreKey:
    parts = {name: getattr(plan, name) for name in Plan.model_fields if name not in ASIDE_OF_FRAMING}
    parts["room"] = _aside(plan.room, PLAIN_ROOM, ASIDE_OF_ROOM)
    parts["screen"] = _aside(plan.screen, PLAIN_SCREEN, (*ASIDE_OF_SCREEN, "reflectance"))
    parts["camera"] = _aside(plan.camera, PLAIN_CAMERA, ASIDE_OF_LENS)
    parts["subject"] = plan.subject and _aside(plan.subject, PLAIN_PERSON, ASIDE_OF_PERSON)
    parts["companions"] = tuple(_aside(one, PLAIN_PERSON, ASIDE_OF_PERSON) for one in plan.companions)
    return together(*parts.values())


def _lit(plan: Plan) -> StoreKey:
    flashes = any(lamp.fixture.flash_lms is not None for lamp in plan.lights)
    aside = tuple(name for name in ASIDE_OF_LENS if name not in OF_LIGHT or (name == "shutter_s" and not flashes))
    parts = {name: getattr(plan, name) for name in Plan.model_fields if name not in ASIDE_OF_LIT}
    parts["camera"] = _aside(plan.camera, PLAIN_CAMERA, aside)
    parts["subject"] = plan.subject and _aside(plan.subject, PLAIN_PERSON, ASIDE_OF_PERSON)
    parts["companions"] = tuple(_aside(one, PLAIN_PERSON, ASIDE_OF_PERSON) for one in plan.companions)
    return together(*parts.values(), *lamp_keys(plan))


_of_lamp = Noted(_lamp)
scene_key = Noted(_scene, most=64)
"""What decides how light goes back and forth in a plan: shapes and inks of room, screen and flags."""
blocking_key = Noted(_blocking, most=64)
"""What decides which light is blocked on its way: shapes, whatever their ink."""
framing_key = Noted(_framing, most=64)
"""What decides where things are seen in the picture, and which of the screen is needed."""
lit_key = Noted(_lit, most=64)
"""What decides all light in a set: where it is looked at, every lamp and its colour, and no exposure."""


def lamp_key(plan: Plan, lamp: Light) -> Hashable:
    """What decides a lamp's light at full power, apart from its colour."""
    beam = lamp.fixture.beam
    return (_of_lamp(lamp), plan.photometry[beam.ref]) if beam.kind == "ies" else _of_lamp(lamp)


def _of_every_lamp(plan: Plan) -> tuple[Hashable, ...]:
    return tuple(lamp_key(plan, lamp) for lamp in plan.lights)


lamp_keys = Noted(_of_every_lamp, most=64)
"""The same of all lamps of a plan, in their order."""


def place_key(*arrays: Floats) -> StoreKey:
    """Places, directions or axes, by their numbers."""
    return StoreKey(*(array.tobytes() for array in arrays))
