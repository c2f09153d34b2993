"""The whole plan document, and the one door through which text becomes a plan."""

import json
import math
from collections.abc import Iterator, Sequence
from functools import cache
from typing import Annotated, Any, Literal, Self

from pydantic import BaseModel, Field, StringConstraints, ValidationError, field_validator, model_validator

from .camera import Camera
from .fields import Name, Part
from .ies import IesError, read_ies
from .intent import Plate, Targets
from .lamps import Light
from .people import Companion, Subject
from .ranges import range_in
from .scene import Flag, Room, Screen, Window

FORMAT = "ausblick-plan"
VERSION = 1
MAX_BYTES = 4_000_000
MAX_DEPTH = 24
MAX_VALUES = 200_000
MOST_LAMPS, MOST_FLAGS, MOST_COMPANIONS = 32, 16, 4
"""More than sets have; all of them together are worked out in under 5 s (benchmarks/run.py)."""

NAMED = (("lights", "l", MOST_LAMPS), ("flags", "f", MOST_FLAGS), ("companions", "p", MOST_COMPANIONS))
"""Lists whose things have ids, with the letter of those that are given here."""

Photometry = Annotated[str, StringConstraints(strict=True, max_length=400_000)]


class Plan(Part):
    """One set-up. Immutable: a change makes a new plan (see `changes.apply_changes`)."""

    format: Literal["ausblick-plan"]
    version: Literal[1]
    title: Name = "Untitled set-up"
    medium: Literal["video", "stills"] = "video"
    room: Room = Room()
    screen: Screen = Screen()
    subject: Subject | None = Subject()
    companions: Annotated[tuple[Companion, ...], Field(max_length=MOST_COMPANIONS)] = ()
    camera: Camera = Camera()
    lights: Annotated[tuple[Light, ...], Field(max_length=MOST_LAMPS)] = ()
    flags: Annotated[tuple[Flag, ...], Field(max_length=MOST_FLAGS)] = ()
    window: Window | None = None
    plate: Plate = Plate.model_validate({})
    targets: Targets = Targets()
    photometry: Annotated[dict[str, Photometry], Field(max_length=64, default_factory=dict)]

    @model_validator(mode="before")
    @classmethod
    def _missing_ids(cls, data: Any) -> Any:
        """Lamps, flags and people without an id get the next free one, so that each can be named."""
        if not isinstance(data, dict):
            return data
        return data | {
            group: _with_ids(data[group], letter)
            for group, letter, most in NAMED
            # More than may be there are refused below, by their number.
            if isinstance(data.get(group), list) and len(data[group]) <= most
        }

    @field_validator("photometry", mode="after")
    @classmethod
    def _photometry_reads(cls, texts: dict[str, str]) -> dict[str, str]:
        for name, text in texts.items():
            try:
                read_ies(text)
            except IesError as err:
                raise ValueError(f"the file {name!r} {err}") from None
        return texts

    @model_validator(mode="after")
    def _photometry_is_there(self) -> Self:
        for index, lamp in enumerate(self.lights):
            beam = lamp.fixture.beam
            if beam.kind == "ies" and beam.ref not in self.photometry:
                raise ValueError(f"lights[{index}].fixture.beam.ref {beam.ref!r} names no entry of photometry")
        return self

    @model_validator(mode="after")
    def _ids_differ(self) -> Self:
        for group in (self.lights, self.flags, self.companions):
            ids = [item.id for item in group]
            twice = sorted({i for i in ids if ids.count(i) > 1})
            if twice:
                raise ValueError(f"two of {type(group[0]).__name__.lower()}s share the id {twice[0]!r}")
        return self


def _with_ids(items: list[Any], letter: str) -> list[Any]:
    given = [item.get("id") for item in items if isinstance(item, dict)]
    taken = {ident for ident in given if isinstance(ident, str)}
    free = (f"{letter}{n}" for n in range(1, 2 * len(items) + 1) if f"{letter}{n}" not in taken)
    return [{**i, "id": next(free)} if isinstance(i, dict) and "id" not in i else i for i in items]


class PlanError(ValueError):
    """A plan that can't be read. `path` is the field, `value` what stood there (shortened)."""

    def __init__(self, path: str, problem: str, value: str | None = None, more: int = 0) -> None:
        self.path, self.problem, self.value, self.more = path, problem, value, more
        super().__init__(self.line())

    def line(self) -> str:
        shown = "" if self.value is None else f" (got {self.value})"
        others = f"; {self.more} more fields are wrong" if self.more else ""
        return f"{self.path}: {self.problem}{shown}{others}"


def read_plan(text: str | bytes) -> Plan:
    """The plan in a JSON text. Raises PlanError naming the first field that is wrong."""
    if len(text) > MAX_BYTES:
        raise PlanError("plan", f"is larger than {MAX_BYTES // 1_000_000} MB")
    try:
        data = json.loads(text.decode("utf-8-sig") if isinstance(text, bytes) else text)
    except UnicodeDecodeError:
        raise PlanError("plan", "is not text in UTF-8") from None
    except json.JSONDecodeError as err:
        raise PlanError("plan", f"is not JSON: {err.msg}, line {err.lineno} column {err.colno}") from None
    except RecursionError:
        raise PlanError("plan", f"is nested more than {MAX_DEPTH} deep") from None
    except ValueError:
        raise PlanError("plan", "holds a number with too many digits") from None
    return plan_from(data)


def plan_from(data: Any) -> Plan:
    """The plan in parsed JSON. Raises PlanError naming the first field that is wrong."""
    if not isinstance(data, dict):
        raise PlanError("plan", 'must be an object with "format" and "version"', _short(data))
    check_shape(data)
    return plan_of(data)


def plan_of(data: dict[str, Any]) -> Plan:
    """The same of data whose shape is known to be sound; parts of another plan may stand in it as they are."""
    if data.get("format") != FORMAT:
        raise PlanError("format", f"must be {FORMAT!r}", _short(data.get("format")))
    version = data.get("version")
    if version != VERSION or isinstance(version, bool):
        raise PlanError("version", f"this program reads version {VERSION}", _short(version))
    try:
        return Plan.model_validate(data)
    except ValidationError as err:
        raise _plan_error(err) from None


def dump_plan(plan: Plan) -> dict[str, Any]:
    """The plan as JSON-ready data, unknown fields included."""
    return plan.model_dump(mode="json", exclude_none=False)


def unknown_fields(plan: Plan) -> list[str]:
    """Paths of the fields this version doesn't know; they are kept as they came."""
    return sorted(_unknown(plan, ""))


def _unknown(value: Any, path: str) -> Iterator[str]:
    if isinstance(value, BaseModel):
        for key in value.model_extra or {}:
            yield f"{path}{key}"
        for key in type(value).model_fields:
            yield from _unknown(getattr(value, key), f"{path}{key}.")
    elif isinstance(value, tuple):
        for index, item in enumerate(value):
            yield from _unknown(item, f"{path[:-1]}[{index}].")


_Link = tuple[Any, ...]
"""Where a value stands: that of what it stands in, and its own name or place; empty at the top. A path is only put
together where something is wrong."""


def check_shape(data: Any, at: Sequence[str | int] = ()) -> None:
    """Refuse what no plan needs, wherever it stands: depth, sheer size, NaN and infinities. `at`: the way from the
    plan to the data."""
    link: _Link = ()
    for step in at:
        link = (link, step)
    _check_number(data, link)
    pending: list[tuple[Any, _Link, int]] = [(data, link, len(at))]
    seen = 1
    while pending:
        value, link, depth = pending.pop()
        inside = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
        for step, one in inside:
            if depth == MAX_DEPTH:
                raise PlanError(_path((link, step))[:80], f"is nested more than {MAX_DEPTH} deep")
            if isinstance(one, dict | list):
                pending.append((one, (link, step), depth + 1))
            elif isinstance(one, float | int):
                _check_number(one, (link, step))
            seen += 1
        if seen > MAX_VALUES:
            raise PlanError("plan", f"holds more than {MAX_VALUES} values")


def _check_number(value: Any, link: _Link) -> None:
    if isinstance(value, float) and not math.isfinite(value):
        raise PlanError(_path(link), "must be a finite number", str(value))
    if isinstance(value, int) and abs(value) > 10**15:
        raise PlanError(_path(link), "is out of any range", f"a number of {len(str(abs(value)))} digits")


def _path(link: _Link) -> str:
    steps = []
    while link:
        link, step = link
        steps.append(f"[{step}]" if isinstance(step, int) else f".{step}")
    return "".join(reversed(steps)).removeprefix(".")


_TAGS = {"point", "rect", "disc", "sun", "window", "lambert", "cosine", "beam", "ies"}


def _plan_error(err: ValidationError) -> PlanError:
    path, problem, value, more = readable_error(err)
    allowed = _range_of(err.errors(include_url=False)[0].get("ctx") or {}, path)
    return PlanError(path or "plan", problem + allowed, value, more)


def readable_error(err: ValidationError) -> tuple[str, str, str | None, int]:
    """Path, problem, offending value (shortened) and number of further errors of the first error."""
    errors = err.errors(include_url=False)
    first = errors[0]
    path = ""
    for index, step in enumerate(first["loc"]):
        if isinstance(step, int):
            path += f"[{step}]"
        elif not (step in _TAGS and index and first["loc"][index - 1] in ("emitter", "beam")):
            path += f".{step}" if path else str(step)
    problem = first["msg"].removeprefix("Value error, ")
    value = None if isinstance(first["input"], dict | list) else _short(first["input"])
    return path, problem[0].lower() + problem[1:], value, len(errors) - 1


@cache
def plan_schema() -> dict[str, Any]:
    """The plan document's JSON Schema."""
    return Plan.model_json_schema()


def range_at(path: str) -> tuple[float, float] | None:
    """(lowest, highest) of the number field of the plan at a path, or None where there is none."""
    return range_in(plan_schema(), path)


def _range_of(ctx: dict[str, Any], path: str) -> str:
    """The whole allowed range of a number field, read off the model so that both ends are named."""
    if "ge" not in ctx and "le" not in ctx:
        return ""
    found = range_at(path)
    return f"; allowed: {found[0]:g} to {found[1]:g}" if found else ""


def _short(value: Any) -> str:
    text = json.dumps(value, default=str) if not isinstance(value, str) else repr(value)
    return text if len(text) <= 60 else text[:57] + "..."
