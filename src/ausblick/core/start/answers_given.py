"""What somebody said of room, cloth, lamps, camera and picture. Everything may be left out."""

from __future__ import annotations

from typing import Annotated, Any, Literal, TypeVar

from pydantic import Field, ValidationError

from ..plan import Framing, PlanError
from ..plan.document import check_shape, readable_error
from ..plan.fields import Name, Part, Switch, number
from .presets import Behind, CameraKind, ClothKind, LampKind, Movement
from .surface_words import Tone

RoomSize = Annotated[float, number(1.0, 60.0, "metres")]
ClothSize = Annotated[float, number(0.3, 30.0, "metres")]


class RoomSaid(Part):
    """`length` along the way from screen to camera. Metres."""

    outdoors: Switch = False
    length: RoomSize | None = None
    width: RoomSize | None = None
    height: Annotated[float, number(1.8, 30.0, "metres")] | None = None
    walls: Tone | None = None
    ceiling: Tone | None = None
    floor: Tone | None = None


class ClothSaid(Part):
    kind: ClothKind | None = None
    hue: Literal["green", "blue"] | None = None
    width: ClothSize | None = None
    height: ClothSize | None = None


class LampSaid(Part):
    """A preset by its `kind`, or a lamp of the kit by its `name`. Of the power lumens, else watts, else the usual."""

    kind: LampKind | None = None
    name: Name | None = None
    count: Annotated[int, Field(ge=1, le=12, strict=True, description="pieces")] = 1
    lumens: Annotated[float, number(10.0, 200_000.0, "lumen")] | None = None
    watts: Annotated[float, number(1.0, 5_000.0, "watt")] | None = None


class CameraSaid(Part):
    kind: CameraKind | None = None
    lenses: Annotated[tuple[Annotated[float, number(1.0, 600.0, "millimetres")], ...], Field(max_length=8)] = ()


class Said(Part):
    """The whole page of questions."""

    title: Name = ""
    room: RoomSaid = RoomSaid()
    cloth: ClothSaid = ClothSaid()
    lamps: Annotated[tuple[LampSaid, ...], Field(max_length=12)] = ()
    camera: CameraSaid = CameraSaid()
    framing: Framing | None = None
    movement: Movement | None = None
    behind: Behind | None = None


Answers = TypeVar("Answers", Said, LampSaid)


class SaidError(PlanError):
    """An answer that can't be taken; names the field like PlanError."""


def said_from(data: Any) -> Said:
    """The answers in parsed JSON. Raises SaidError naming the first that is wrong."""
    return _read(Said, data)


def lamp_from(data: Any) -> LampSaid:
    """One lamp in parsed JSON. Raises SaidError."""
    return _read(LampSaid, data)


def _read(model: type[Answers], data: Any) -> Answers:
    try:
        check_shape(data)
        return model.model_validate(data)
    except ValidationError as err:
        path, problem, value, more = readable_error(err)
        raise SaidError(path or "said", problem, value, more) from None
