"""Changes to a plan: how a remedy, a drag or a script says "this field, that value"."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from .document import Plan, PlanError, check_shape, plan_of


@dataclass(frozen=True)
class Change:
    """Set the field at `path` (such as `subject.z` or `lights[1].dimmer`) to a JSON value."""

    path: str
    value: Any


def apply_changes(plan: Plan, changes: Sequence[Change]) -> Plan:
    """A new, checked plan with the changes made. Raises PlanError where a path or value is wrong.

    Searches try thousands of them: only the parts that change are taken apart and checked anew.
    """
    paths = [_steps(change.path) for change in changes]
    opened = {str(path[0]) for path in paths if len(path) > 1}
    data = {name: getattr(plan, name) for name in type(plan).model_fields} | (plan.model_extra or {})
    data |= plan.model_dump(mode="json", include=opened)
    for change, path in zip(changes, paths, strict=True):
        *way, last = path
        holder: Any = data
        for step in way:
            holder = _get(holder, step, change.path)
        _get(holder, last, change.path)
        check_shape(change.value, path)
        holder[last] = change.value
        if way == ["plate"] and last in holder["unknown"]:
            holder["unknown"].remove(last)
    return plan_of(data)


def _steps(path: str) -> list[str | int]:
    found = re.findall(r"[^.\[\]]+", path)
    if not found:
        raise PlanError("changes", "a change names no field", repr(path[:40]))
    return [int(s) if s.isdigit() else s for s in found]


def _get(holder: Any, step: str | int, path: str) -> Any:
    try:
        return holder[step]
    except (KeyError, IndexError, TypeError):
        raise PlanError(path, "there is no such field to change") from None
