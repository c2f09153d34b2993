"""The production document: one open, versioned JSON document, like the plan and the kit. Times are "HH:MM"."""

from __future__ import annotations

import json
from typing import Annotated, Any, Literal, Self

from pydantic import Field, StringConstraints, ValidationError, model_validator

from ..plan import Plan, PlanError
from ..plan.document import MAX_BYTES, check_shape, plan_from, readable_error
from ..plan.fields import Name, Part, Share, Switch, number
from ..plan.people import Garment

MOST_SHOTS = 60
Ident = Annotated[str, StringConstraints(strict=True, min_length=1, max_length=60)]
Time = Annotated[str, StringConstraints(strict=True, pattern=r"^([01]\d|2[0-3]):[0-5]\d$")]
Minutes = Annotated[float, number(0.0, 600.0, "minutes")]


class ChangeMinutes(Part):
    """What a change of each kind takes. Ours to start with; everybody knows their own."""

    lamp: Minutes = 3.0
    screen: Minutes = 15.0
    floor: Minutes = 15.0
    outfit: Minutes = 10.0
    camera: Minutes = 5.0
    person: Minutes = 0.0
    test: Minutes = 5.0


class Person(Part):
    """`from`, `to`: when the person may be filmed; left out, all day. For a minor local law decides."""

    id: Ident
    name: Name = ""
    minor: Switch = False
    from_: Annotated[Time | None, Field(alias="from")] = None
    to: Time | None = None


class OutfitGarment(Garment):
    gloss: Share = 0.0


class Outfit(Part):
    id: Ident
    person: Ident | None = None
    name: Name = ""
    garments: Annotated[tuple[OutfitGarment, ...], Field(max_length=30)] = ()


class PlannedShot(Part):
    """`pinned`: its place in the order, counted from 0. Dirty ones come after all that are clean."""

    id: Ident
    title: Name = ""
    plan: dict[str, Any] = Field(default_factory=lambda: {"format": "ausblick-plan", "version": 1})
    person: Ident | None = None
    outfit: Ident | None = None
    minutes: Minutes = 20.0
    priority: Literal["must", "should", "if-time"] = "must"
    dirty: Switch = False
    pinned: Annotated[int, Field(ge=0, lt=MOST_SHOTS, strict=True)] | None = None


class Production(Part):
    format: Literal["ausblick-production"]
    version: Literal[1]
    title: Name = ""
    call: Time = "08:00"
    end: Time = "18:00"
    minutes: ChangeMinutes = ChangeMinutes()
    people: Annotated[tuple[Person, ...], Field(max_length=100)] = ()
    outfits: Annotated[tuple[Outfit, ...], Field(max_length=200)] = ()
    shots: Annotated[tuple[PlannedShot, ...], Field(max_length=MOST_SHOTS)] = ()

    @model_validator(mode="after")
    def _all_are_there(self) -> Self:
        people, outfits = {one.id for one in self.people}, {one.id for one in self.outfits}
        _once("people", [one.id for one in self.people])
        _once("outfits", [one.id for one in self.outfits])
        _once("shots", [one.id for one in self.shots])
        for i, shot in enumerate(self.shots):
            if shot.person is not None and shot.person not in people:
                raise ValueError(f"shots[{i}].person {shot.person!r} is none of people")
            if shot.outfit is not None and shot.outfit not in outfits:
                raise ValueError(f"shots[{i}].outfit {shot.outfit!r} is none of outfits")
            if shot.pinned is not None and shot.pinned >= len(self.shots):
                raise ValueError(f"shots[{i}].pinned {shot.pinned} is no place among {len(self.shots)} shots")
        _once("pinned places", [str(shot.pinned) for shot in self.shots if shot.pinned is not None])
        return self


def _once(what: str, names: list[str]) -> None:
    twice = next((name for name in names if names.count(name) > 1), None)
    if twice is not None:
        raise ValueError(f"{what}: {twice!r} is there twice")


class ProductionError(PlanError):
    """A production that can't be read; names the field like PlanError."""


def read_production(text: str | bytes) -> Production:
    """Raises ProductionError naming the first field that is wrong, in the plan of a shot too."""
    if len(text) > MAX_BYTES:
        raise ProductionError("production", f"is larger than {MAX_BYTES // 1_000_000} MB")
    try:
        data = json.loads(text)
        check_shape(data)
        production = Production.model_validate(data)
    except (json.JSONDecodeError, UnicodeDecodeError):
        raise ProductionError("production", "is not JSON") from None
    except ValidationError as err:
        path, problem, value, more = readable_error(err)
        raise ProductionError(path or "production", problem, value, more) from None
    except PlanError as err:
        raise ProductionError(err.path or "production", err.problem, err.value, err.more) from None
    plans_of(production)
    return production


def plans_of(production: Production) -> list[Plan]:
    """The plan of every shot, its wardrobe the outfit's. Raises ProductionError."""
    outfits = {one.id: one for one in production.outfits}
    plans = []
    for i, shot in enumerate(production.shots):
        try:
            plan = plan_from(shot.plan)
        except PlanError as err:
            raise ProductionError(f"shots[{i}].plan.{err.path}", err.problem, err.value, err.more) from None
        if shot.outfit is not None and plan.subject is not None:
            subject = plan.subject.model_copy(update={"wardrobe": outfits[shot.outfit].garments})
            plan = plan.model_copy(update={"subject": subject})
        plans.append(plan)
    return plans


def dump_production(production: Production) -> dict[str, Any]:
    return production.model_dump(mode="json", by_alias=True)


def minutes_of(time: str) -> int:
    """Minutes since midnight of "HH:MM"."""
    hours, _, minutes = time.partition(":")
    return int(hours) * 60 + int(minutes)


def clock(minutes: float) -> str:
    """ "HH:MM", rounded to the minute; past midnight it begins again."""
    whole = round(minutes) % (24 * 60)
    return f"{whole // 60:02d}:{whole % 60:02d}"
