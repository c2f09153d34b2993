"""Spill: screen colour on the front, the edge and the undersides, with the surface that sends most of it."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from ...camera.level_schools import key_channel
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...light.spill import Kind, ProbeReading
from ...plan import edit
from ...sentences import Sentence, tell
from ...standards.limit import Limit
from ...standards.limits import LIMITS
from .. import moves
from ..rule import Judgement, Proposal, Rule

SPILL: dict[Kind, Limit] = {
    "front": LIMITS["subject.spill-front"],
    "side": LIMITS["subject.spill-edge"],
    "under": LIMITS["subject.spill-under"],
}
NAMED = 4.0
"""A surface is named when it sends at least a quarter of the largest part."""


def scale(evaluation: Evaluation, reading: ProbeReading) -> float:
    """What a share at a place has to be multiplied by to be a share of the face's key-channel light.

    An edge in the dark may be all green and show nothing; what is recorded is set by the face's exposure.
    """
    face = next((r for r in evaluation.spill.probes if r.place.name == "face"), reading)
    key = key_channel(evaluation.plan.screen.hue, np.array(evaluation.plan.screen.reflectance))
    return float(reading.light[key] / face.light[key]) if face.light[key] > 0.0 else 1.0


def screen_colour(evaluation: Evaluation, reading: ProbeReading) -> float | None:
    """Screen colour at a place in % of the face's light; what the lamps' own colour adds is no spill."""
    return None if reading.share is None else (reading.share - reading.lamps) * scale(evaluation, reading)


def worst_place(evaluation: Evaluation, kind: Kind) -> ProbeReading | None:
    seen = [r for r in evaluation.spill.probes if r.place.kind == kind and r.framed and r.share is not None]
    return max(seen, key=lambda r: screen_colour(evaluation, r) or 0.0, default=None)


def _judge(kind: Kind) -> Callable[[Evaluation], Judgement | None]:
    limit = SPILL[kind]

    def judge(evaluation: Evaluation) -> Judgement | None:
        reading = worst_place(evaluation, kind)
        share = screen_colour(evaluation, reading) if reading else None
        if reading is None or share is None:
            return None
        over = share - limit.at
        place: dict[str, float | str] = {"place": reading.place.name, "share": share}
        says = tell("subject.spill", **place)
        if over > 0.0 and reading.sources:
            says = tell("subject.spill/from", senders=_senders(reading, scale(evaluation, reading)), **place)
        return Judgement(limit.grade(over), share, limit.at, "%", says, max(0.0, over))

    return judge


def _senders(reading: ProbeReading, factor: float) -> tuple[Sentence, ...]:
    """The surfaces that send most of it, with their shares."""
    largest = reading.sources[0][1]
    named = [(name, part) for name, part in reading.sources[:2] if part * NAMED >= largest]
    return tuple(tell("subject.spill/sender", surface=name, share=factor * part) for name, part in named)


def _cures(kind: Kind) -> Callable[[Evaluation, BasisStore], list[Proposal]]:
    def propose(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
        reading = worst_place(evaluation, kind)
        if reading is None:
            return []
        room = [name for name, _ in reading.sources if name in ("left wall", "right wall", "floor")]
        return [
            *moves.mark_forward(evaluation),
            *moves.smaller_screen(evaluation),
            *moves.less_floor(evaluation),
            *(p for name in room[:1] for p in moves.black_cloth(evaluation, name)),
            *moves.dimmed_screen(evaluation),
            *_back_light(evaluation),
        ]

    return propose


def _back_light(evaluation: Evaluation) -> list[Proposal]:
    """White light on the edge dilutes what the screen puts there."""
    back = [(i, lamp) for i, lamp in enumerate(evaluation.plan.lights) if lamp.role == "back" and lamp.on]
    changes = tuple(edit.lamp(i).dimmer(round(min(1.0, 2.0 * lamp.dimmer), 3)) for i, lamp in back)
    if not changes or all(lamp.dimmer >= 1.0 for _, lamp in back):
        return []
    return [Proposal(tell("do/back-light-up"), changes, tell("cost/must-match"))]


RULES = (
    Rule(
        id="subject.spill-front",
        stage="subject",
        measure="screen colour",
        why="Colour on the front barely shows before the green and stays on the skin when the green is gone.",
        judge=_judge("front"),
        propose=_cures("front"),
        digits=1,
    ),
    Rule(
        id="subject.spill-edge",
        stage="subject",
        measure="screen colour",
        why="The edge as the camera sees it catches the screen at a slant: this is the halo that a key leaves.",
        judge=_judge("side"),
        propose=_cures("side"),
        digits=1,
    ),
    Rule(
        id="subject.spill-under",
        stage="subject",
        measure="screen colour",
        why="A floor piece is a green lamp from below: chin, hands and arms take it.",
        judge=_judge("under"),
        propose=_cures("under"),
        digits=1,
    ),
)
