"""The production document: one open, versioned JSON document, like the plan and the kit. Times are "HH:MM"."""

from __future__ import annotations

import json
from typing import Annotated, Any, Literal, Self

from pydantic import ConfigDict, Field, StringConstraints, ValidationError, model_validator

from ..kit.kit_document import Kit
from ..plan import Plan, PlanError
from ..plan.document import MAX_BYTES, check_shape, plan_from, readable_error
from ..plan.fields import Name, Part, Rgb, Share, Switch, number
from ..plan.intent import Plate, Targets
from ..plan.people import Build, Garment, HairKind

MOST_SHOTS, MOST_DAYS = 60, 31
Ident = Annotated[str, StringConstraints(strict=True, min_length=1, max_length=60)]
Time = Annotated[str, StringConstraints(strict=True, pattern=r"^([01]\d|2[0-3]):[0-5]\d$")]
Minutes = Annotated[float, number(0.0, 600.0, "minutes")]
Date = Annotated[str, StringConstraints(strict=True, pattern=r"^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$")]
Words = Annotated[str, StringConstraints(strict=True, max_length=20_000)]
Need = Literal["feet", "smoke", "wind", "moving-camera", "sound"]


class ChangeMinutes(Part):
    """What a change of each kind takes. Ours to start with; everybody knows their own."""

    lamp: Minutes = 3.0
    screen: Minutes = 15.0
    floor: Minutes = 15.0
    outfit: Minutes = 10.0
    camera: Minutes = 5.0
    person: Minutes = 0.0
    test: Minutes = 5.0


class EditHours(Part):
    """Hours at the edit that a screen shot costs, by what is seen; each of the two below doubles them. Ours."""

    close: Annotated[float, number(0.0, 100.0, "hours")] = 1.0
    waist: Annotated[float, number(0.0, 100.0, "hours")] = 2.0
    full: Annotated[float, number(0.0, 100.0, "hours")] = 4.0
    moving_camera: Annotated[float, number(1.0, 20.0, "times")] = 2.0
    hair_glass_smoke: Annotated[float, number(1.0, 20.0, "times")] = 2.0


class Break(Part):
    """Begins near `at`: between two entries, where that is nearest."""

    at: Time = "13:00"
    minutes: Minutes = 45.0
    name: Name = "Lunch"


class ShootDay(Part):
    date: Date | None = None
    call: Time = "08:00"
    end: Time = "18:00"
    breaks: Annotated[tuple[Break, ...], Field(max_length=10)] = ()


class Person(Part):
    """`from`, `to`: when the person may be filmed; left out, all day. For a minor local law decides; `guardian` is
    who comes along. `height`, `body`, `hair`, `skin`: as they are in the plans of this person's shots; left out, as
    planned there."""

    model_config = ConfigDict(serialize_by_alias=True)

    id: Ident
    name: Name = ""
    role: Name = ""
    guardian: Name = ""
    minor: Switch = False
    from_: Annotated[Time | None, Field(alias="from")] = None
    to: Time | None = None
    height: Annotated[float, number(0.1, 5.0, "metres")] | None = None
    body: Build | None = None
    skin: Rgb | None = None
    hair: Rgb | None = None
    hair_kind: HairKind | None = None

    @property
    def looks(self) -> dict[str, Any]:
        """What is known of them, by the names that a plan's subject has."""
        known = {name: getattr(self, name) for name in ("height", "body", "skin", "hair", "hair_kind")}
        return {name: value for name, value in known.items() if value is not None}


class ProductionPlate(Part):
    """What goes behind, as facts; `moving`: it has frames of its own, `fps` of them a second."""

    id: Ident
    name: Name = ""
    plate: Plate = Plate()
    moving: Switch = False
    fps: Annotated[float, number(1.0, 1000.0, "frames per second")] | None = None


class SoundDevice(Part):
    """A microphone and the track that it is recorded on."""

    id: Ident
    name: Name = ""
    way: Literal["worn", "boom", "other"] = "worn"
    track: Annotated[int, Field(ge=1, le=64, strict=True)] = 1


class OutfitGarment(Garment):
    gloss: Share = 0.0


class Outfit(Part):
    id: Ident
    person: Ident | None = None
    name: Name = ""
    garments: Annotated[tuple[OutfitGarment, ...], Field(max_length=30)] = ()
    minutes: Minutes | None = None
    """To change into it, where that is another time than usual."""


class PlannedShot(Part):
    """`pinned`: its place in its day's order, counted from 0. Dirty ones come after all that are clean. `setup`: the
    number of the set-up in the application whose plan this is; `day`: on which of the days, counted from 0."""

    id: Ident
    title: Name = ""
    plan: dict[str, Any] = Field(default_factory=lambda: {"format": "ausblick-plan", "version": 1})
    person: Ident | None = None
    outfit: Ident | None = None
    plate: Ident | None = None
    minutes: Minutes = 20.0
    priority: Literal["must", "should", "if-time"] = "must"
    dirty: Switch = False
    pinned: Annotated[int, Field(ge=0, lt=MOST_SHOTS, strict=True)] | None = None
    setup: Annotated[int, Field(ge=1, strict=True)] | None = None
    day: Annotated[int, Field(ge=0, lt=MOST_DAYS, strict=True)] = 0
    script: Words = ""
    script_version: Annotated[int, Field(ge=1, le=999, strict=True)] = 1
    variants: Annotated[tuple[Name, ...], Field(max_length=50)] = ()
    """Of each one good take is wanted; none: one good take of the shot."""
    needs: Annotated[tuple[Need, ...], Field(max_length=5)] = ()
    still_take: Switch = False
    """A take with the camera at rest is planned beside the moving ones."""
    risk: Name = ""


class Production(Part):
    """Without `days` it is one day, from `call` to `end`. `kit`: what comes along, left out the application's own;
    `schools`: those by which all its shots are judged, left out each set-up's own."""

    format: Literal["ausblick-production"]
    version: Literal[1]
    title: Name = ""
    call: Time = "08:00"
    end: Time = "18:00"
    date: Date | None = None
    breaks: Annotated[tuple[Break, ...], Field(max_length=10)] = ()
    days: Annotated[tuple[ShootDay, ...], Field(max_length=MOST_DAYS)] = ()
    place: Name = ""
    notes: Words = ""
    most_screen_shots: Annotated[int, Field(ge=1, le=MOST_SHOTS, strict=True)] = 8
    """A day; more are told with their hours at the edit."""
    edit_hours: EditHours = EditHours()
    minutes: ChangeMinutes = ChangeMinutes()
    people: Annotated[tuple[Person, ...], Field(max_length=100)] = ()
    outfits: Annotated[tuple[Outfit, ...], Field(max_length=200)] = ()
    plates: Annotated[tuple[ProductionPlate, ...], Field(max_length=100)] = ()
    sound: Annotated[tuple[SoundDevice, ...], Field(max_length=64)] = ()
    kit: Kit | None = None
    schools: Targets | None = None
    shots: Annotated[tuple[PlannedShot, ...], Field(max_length=MOST_SHOTS)] = ()

    @model_validator(mode="after")
    def _all_are_there(self) -> Self:
        groups = ("people", "outfits", "plates", "sound", "shots")
        ids = {group: [one.id for one in getattr(self, group)] for group in groups}
        for group, names in ids.items():
            _once(group, names)
        for i, shot in enumerate(self.shots):
            for field, group in (("person", "people"), ("outfit", "outfits"), ("plate", "plates")):
                named = getattr(shot, field)
                if named is not None and named not in ids[group]:
                    raise ValueError(f"shots[{i}].{field} {named!r} is none of {group}")
            if shot.day >= max(1, len(self.days)):
                raise ValueError(f"shots[{i}].day {shot.day} is none of {max(1, len(self.days))} days")
        for day in {shot.day for shot in self.shots}:
            own = [shot for shot in self.shots if shot.day == day]
            wrong = next((shot for shot in own if shot.pinned is not None and shot.pinned >= len(own)), None)
            if wrong is not None:
                raise ValueError(f"shot {wrong.id!r}: pinned {wrong.pinned} is no place among {len(own)} shots")
            _once("pinned places", [str(shot.pinned) for shot in own if shot.pinned is not None])
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
    except (json.JSONDecodeError, UnicodeDecodeError):
        raise ProductionError("production", "is not JSON") from None
    return production_from(data)


def production_from(data: Any) -> Production:
    """The same from what was read as JSON already."""
    try:
        check_shape(data)
        production = Production.model_validate(data)
    except ValidationError as err:
        path, problem, value, more = readable_error(err)
        raise ProductionError(path or "production", problem, value, more) from None
    except PlanError as err:
        raise ProductionError(err.path or "production", err.problem, err.value, err.more) from None
    plans_of(production)
    return production


def plans_of(production: Production) -> list[Plan]:
    """The plan of every shot as this production has it (see `as_filmed`). Raises ProductionError."""
    plans = []
    for i, shot in enumerate(production.shots):
        try:
            plan = plan_from(shot.plan)
        except PlanError as err:
            raise ProductionError(f"shots[{i}].plan.{err.path}", err.problem, err.value, err.more) from None
        plans.append(as_filmed(production, shot, plan))
    return plans


def as_filmed(production: Production, shot: PlannedShot, plan: Plan) -> Plan:
    """The shot's outfit and its person's looks on the subject, its plate behind, the production's schools."""
    outfit = next((one for one in production.outfits if one.id == shot.outfit), None)
    person = next((one for one in production.people if one.id == shot.person), None)
    plate = next((one.plate for one in production.plates if one.id == shot.plate), None)
    changed: dict[str, Any] = {} if plate is None else {"plate": plate}
    if production.schools is not None:
        changed["targets"] = production.schools
    if plan.subject is not None:
        worn = {} if outfit is None else {"wardrobe": outfit.garments}
        looks = {} if person is None else person.looks
        changed["subject"] = plan.subject.model_copy(update=worn | looks)
    return plan.model_copy(update=changed)


def days_of(production: Production) -> tuple[ShootDay, ...]:
    return production.days or (
        ShootDay(date=production.date, call=production.call, end=production.end, breaks=production.breaks),
    )


def one_day(production: Production, day: int) -> Production:
    """The production as if that day were all of it: its shots, its times; the shots stand on day 0 then."""
    own = days_of(production)[day]
    shots = tuple(shot.model_copy(update={"day": 0}) for shot in production.shots if shot.day == day)
    return production.model_copy(
        update={
            "days": (),
            "date": own.date,
            "call": own.call,
            "end": own.end,
            "breaks": own.breaks,
            "shots": shots,
        }
    )


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
