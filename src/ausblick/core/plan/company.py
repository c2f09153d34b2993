"""Everybody in the picture: the subject, on whom the lens is focused, and companions, who are judged as it is."""

from __future__ import annotations

import re
from collections.abc import Sequence

from .changes import Change
from .document import Plan
from .people import Companion, Subject


def people_of(plan: Plan) -> tuple[Subject, ...]:
    """The subject and its companions, framed as it is; nobody without a subject, which means that there is no
    figure."""
    if plan.subject is None:
        return ()
    return (plan.subject, *(_framed(plan.subject, one) for one in plan.companions))


def _framed(subject: Subject, companion: Companion) -> Companion:
    """As one picture shows both."""
    return companion.model_copy(update={"framing": subject.framing, "feet_seen": subject.feet_seen})


def seen_as(plan: Plan, index: int) -> Plan:
    """The plan with the companion at `index` as its subject and the subject among the companions; it has one.

    Raises IndexError where there is no such companion.
    """
    subject, person = plan.subject, plan.companions[index]
    assert subject is not None
    other = Companion.model_construct(**{**dict(subject), "id": SUBJECT, "name": name_of(subject)})
    rest = (other, *(one for i, one in enumerate(plan.companions) if i != index))
    return plan.model_copy(update={"subject": _framed(subject, person), "companions": rest})


def as_said(changes: Sequence[Change], index: int) -> tuple[Change, ...]:
    """Changes of the plan that `seen_as` makes, as changes of the plan it was made of."""
    return tuple(Change(_path(change.path, index), change.value) for change in changes)


def _path(path: str, index: int) -> str:
    if path == SUBJECT or path.startswith(f"{SUBJECT}."):
        return f"companions[{index}]{path.removeprefix(SUBJECT)}"
    found = re.match(r"companions\[(\d+)\]", path)
    if found is None:
        return path
    place, rest = int(found[1]), path[found.end() :]
    # The first of them is the subject, the others stand as they did with one of them left out.
    return f"{SUBJECT}{rest}" if place == 0 else f"companions[{place - 1 if place <= index else place}]{rest}"


SUBJECT, SUBJECT_NAME = "subject", "the subject"
"""Where the subject stands in the document, and what it is called among others."""


def name_of(person: Subject) -> str:
    return person.name if isinstance(person, Companion) else SUBJECT_NAME


def one_of_several(plan: Plan, index: int) -> str | None:
    """Who somebody in the picture is, by name; None where nobody else is in it."""
    return name_of(people_of(plan)[index]) if plan.companions and plan.subject is not None else None


def of_person(person: Subject, thing: str) -> str:
    """A thing by its name; a companion's says whose it is."""
    return f"{person.name}: {thing}" if isinstance(person, Companion) else thing
