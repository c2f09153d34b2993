"""Everybody in the picture judged as the subject is: of each rule the worst is told, with whose it is."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

from ..evaluation.results import Evaluation
from ..plan import Plan, as_said, edit
from ..sentences import tell
from .rule import RANK, Judgement, Proposal

PERSONAL = (
    "key.edge", "key.hair", "key.motion", "space.order", "space.gap", "space.framed", "space.distortion",
    "screen.hue", "subject.hair", "subject.props", "subject.exposure", "subject.edge-gap", "subject.spill-front",
    "subject.spill-edge", "subject.spill-under", "subject.mirrors", "light.overhead", "camera.smear",
)  # fmt: skip
"""Rules that judge a person, with the damages that any of them is a cause of; all others judge the set, or what the
picture is exposed for: its subject."""

Judged = dict[str, Judgement]


def with_companions(judged: Judged, theirs: Sequence[Judged]) -> Judged:
    """What was judged of the plan's subject and set, and of a companion where that is worse."""
    for person, hers in enumerate(theirs, 1):
        worse = {name: one for name, one in hers.items() if _is_worse(one, judged.get(name))}
        judged = judged | {name: replace(one, person=person) for name, one in worse.items()}
    return judged


def _is_worse(theirs: Judgement, other: Judgement | None) -> bool:
    if other is None:
        return theirs.severity != "fine"
    return _standing(theirs) < _standing(other)


def _standing(judged: Judgement) -> tuple[int, float, float]:
    """The worse the less: by severity, by how far beyond its limit it is, and of what holds by how near to it."""
    value, limit = judged.value, judged.limit
    room = math.inf if value is None or limit is None else abs(value - limit)
    return RANK[judged.severity], -judged.excess, room


def said_of(proposal: Proposal, plan: Plan, person: int) -> Proposal:
    """A proposal for a companion looked at as the subject, as changes of the plan. Where the mark is moved, the
    companion moves alone: lamps and camera are the subject's."""
    if person == 0:
        return proposal
    who = plan.companions[person - 1]
    to = {change.path: change.value for change in proposal.changes}
    mine, path = edit.companion(person - 1), edit.subject
    if path.x.path not in to and path.z.path not in to:
        return replace(proposal, changes=as_said(proposal.changes, person - 1))
    x, z = to.get(path.x.path, who.x), to.get(path.z.path, who.z)
    text = tell("do/person-to", name=who.name, across=x, z=z)
    return Proposal(text, (mine.x(x), mine.z(z)), tell("cost/framing-moves"))


def whose(evaluation: Evaluation, judgement: Judgement) -> str:
    """The companion whom a judgement is of; empty for the subject and the set."""
    return evaluation.plan.companions[judgement.person - 1].name if judgement.person else ""
