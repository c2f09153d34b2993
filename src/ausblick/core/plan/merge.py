"""Two people changed one plan: what does not touch the same field comes together."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Any

from .document import Plan, PlanError, plan_from

_GONE: Any = object()
"""Stands for a field or a lamp that one side took away."""


@dataclass(frozen=True)
class Collision:
    """Both sides changed the field at `path`; a value that was taken away is None."""

    path: str
    mine: Any
    theirs: Any


@dataclass(frozen=True)
class Merged:
    """What either side changed, together; where both changed one field, `plan` has mine."""

    plan: Plan
    collisions: tuple[Collision, ...]


def merge(was: Plan, mine: Plan, theirs: Plan) -> Merged:
    """Bring `mine` and `theirs` together, both made from `was`.

    Lamps, flags and whatever else has an `id` are told apart by it, wherever they stand in their list; other lists
    count as one value. Lamps that both sides added under one id stay two. Where what comes together breaks a rule of
    the document, the whole plan collides, at the path "".
    """
    collisions: list[Collision] = []
    a, b, c = (plan.model_dump(mode="json") for plan in (was, mine, theirs))
    data = _merge(a, b, c, "", collisions)
    try:
        return Merged(plan_from(data), tuple(collisions))
    except PlanError:
        return Merged(mine, (Collision("", None, None),))


def _merge(was: Any, mine: Any, theirs: Any, path: str, collisions: list[Collision]) -> Any:
    if mine == theirs or theirs == was:
        return mine
    if mine == was:
        return theirs
    sides = (was, mine, theirs)
    if all(isinstance(side, dict) for side in sides):
        return _together([*theirs, *mine], sides, lambda key: f"{path}.{key}" if path else key, collisions)
    if all(_named(side) for side in sides):
        before, ours, others = ({item["id"]: item for item in side} for side in sides)
        ours = _apart(before, ours, others)
        together = _together([*others, *ours], (before, ours, others), lambda name: f"{path}[{name}]", collisions)
        return list(together.values())
    collisions.append(Collision(path, None if mine is _GONE else mine, None if theirs is _GONE else theirs))
    return mine


def _together(
    keys: Iterable[str], sides: Sequence[dict[str, Any]], at: Callable[[str], str], collisions: list[Collision]
) -> dict[str, Any]:
    was, mine, theirs = sides
    found = {
        key: _merge(was.get(key, _GONE), mine.get(key, _GONE), theirs.get(key, _GONE), at(key), collisions)
        for key in dict.fromkeys(keys)
    }
    return {key: value for key, value in found.items() if value is not _GONE}


def _named(side: Any) -> bool:
    return isinstance(side, list) and all(isinstance(item, dict) and "id" in item for item in side)


def _apart(was: dict[str, Any], mine: dict[str, Any], theirs: dict[str, Any]) -> dict[str, Any]:
    """Mine, with another id for each thing that was added on both sides under the same."""
    taken = {*was, *mine, *theirs}
    apart: dict[str, Any] = {}
    for name, item in mine.items():
        if name not in was and name in theirs and theirs[name] != item:
            free = next(f"{name}-{n}" for n in range(2, len(taken) + 3) if f"{name}-{n}" not in taken)
            taken.add(free)
            name, item = free, item | {"id": free}
        apart[name] = item
    return apart
