"""What is logged of a take. One open shape for the store, the API, the log to print and `ausblick take`."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints, ValidationError

from ..plan import PlanError
from ..plan.document import readable_error
from ..plan.fields import Name, Part, Switch, number
from ..production.production_document import Ident, Words
from .camera_record import CameraRecord

Status = Literal["good", "keep", "no", "incomplete"]
Reason = Literal[
    "left-the-screen", "focus", "blur", "shadow", "reflection", "misread", "noise", "wardrobe", "sound", "other"
]
Kind = Literal["take", "clean-plate", "chart"]
Key = Annotated[str, StringConstraints(strict=True, min_length=8, max_length=80, pattern=r"^[\w-]+$")]
Moment = Annotated[str, StringConstraints(strict=True, pattern=r"^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?Z?$")]


class SetState(Part):
    """What a set-up was, as fingerprints: two that are equal are the same lamps, camera or screen."""

    lamps: Annotated[str, StringConstraints(max_length=64)]
    camera: Annotated[str, StringConstraints(max_length=64)]
    screen: Annotated[str, StringConstraints(max_length=64)]


class Take(Part):
    """`key` is made where the take is logged: what comes twice under one key is one take. `number` is the slate's.
    `setup` and `revision` say which state of the set-up it was shot in; `frame` what was measured of it."""

    key: Key
    shot: Ident
    number: Annotated[int, Field(ge=1, le=9999, strict=True)]
    at: Moment
    kind: Kind = "take"
    status: Status = "good"
    reasons: Annotated[tuple[Reason, ...], Field(max_length=10)] = ()
    clip: Name = ""
    seconds: Annotated[float, number(0.0, 36_000.0, "seconds")] | None = None
    moving: Switch = False
    variant: Name = ""
    script_version: Annotated[int | None, Field(ge=1, le=999, strict=True)] = None
    outfit: Ident | None = None
    remark: Words = ""
    setup: Annotated[int | None, Field(ge=1, strict=True)] = None
    revision: Annotated[int | None, Field(ge=0, strict=True)] = None
    frame: Annotated[int | None, Field(ge=1, strict=True)] = None
    camera: CameraRecord | None = None
    """As somebody read it off the camera; None: as planned, or not known."""
    state: SetState | None = None
    """Of the set-up when the take was logged; the server adds it."""


class TakeError(PlanError):
    """A take that can't be read; names the field like PlanError."""


def take_from(data: Any) -> Take:
    """Raises TakeError naming the first field that is wrong."""
    try:
        return Take.model_validate(data)
    except ValidationError as err:
        path, problem, value, more = readable_error(err)
        raise TakeError(path or "take", problem, value, more) from None


def dump_take(take: Take) -> dict[str, Any]:
    return take.model_dump(mode="json")


def next_number(takes: list[Take], shot: str) -> int:
    """The slate counts itself, shot by shot; a clean plate and a chart have no slate."""
    return 1 + max((take.number for take in takes if take.shot == shot and take.kind == "take"), default=0)
