"""Framing: does the picture hold what the plan says it shows of somebody?"""

from __future__ import annotations

import numpy as np

from ...camera.coverage import FRAMING_FROM, framed_part
from ...camera.view import NEAREST
from ...evaluation.results import Evaluation
from ...geometry.vectors import Bools, Floats
from ...light.basis import BasisStore
from ...plan import Framing, Subject, edit
from ...sentences import Sentence, tell
from ...standards.limits import LIMITS
from .. import moves
from ..rule import Judgement, Proposal, Rule

FRAMED = LIMITS["space.framed"]
HAND = 0.06
"""Of hands alone, m above and below the middle of where they work: what is round them is cropped as one likes."""
PLACES = 51
"""From one end of what is framed to the other."""
BODY: tuple[Framing, ...] = ("full", "knees", "waist", "chest", "face")


def _shown_of(subject: Subject) -> tuple[float, float]:
    """Lowest and highest point in m of what the picture is to show of somebody."""
    if subject.framing == "hands":
        middle = subject.skin_at[1]
        return middle - HAND, middle + HAND
    return framed_part(subject, subject.framing)


def _seen(evaluation: Evaluation, subject: Subject, heights: Floats) -> Bools:
    """Which of these heights (N,), m, over the mark are in the picture?"""
    places = np.array([subject.x, 0.0, subject.z]) + np.outer(heights, [0.0, 1.0, 0.0])
    frame, depth = evaluation.view.project(places)
    return np.asarray(np.all((frame > 0.0) & (frame < 1.0), axis=1) & (depth > NEAREST))


def _face_is_seen(evaluation: Evaluation, subject: Subject) -> bool:
    return evaluation.view.frames(subject.eyes)


def _framed(evaluation: Evaluation) -> Judgement | None:
    subject = evaluation.plan.subject
    # Of a part that is replaced, a sign or a display, that part is the picture.
    if subject is None or evaluation.plan.targets.region:
        return None
    low, high = _shown_of(subject)
    seen = _seen(evaluation, subject, np.linspace(low, high, PLACES))
    out = 100.0 * (1.0 - float(seen.mean()))
    excess, says = max(0.0, out - FRAMED.at), _where(seen, out)
    if not seen.any():
        says = tell("space.framed/nothing")
    elif subject.framing == "hands" and not seen[PLACES // 2]:
        excess, says = max(excess, FRAMED.fix + 1.0), tell("space.framed/hands")
    elif subject.framing != "hands" and not _face_is_seen(evaluation, subject):
        excess, says = max(excess, FRAMED.fix + 1.0), tell("space.framed/face")
    elif subject.framing == "full" and subject.feet_seen and not seen[0]:
        excess, says = max(excess, 1.0), tell("space.framed/feet")
    elif excess == 0.0:
        says = tell("space.framed/holds")
    return Judgement(FRAMED.grade(excess), out, FRAMED.at, "%", says, excess)


def _where(seen: Bools, out: float) -> Sentence:
    """`seen` from the lower end to the upper."""
    if seen[-1] and not seen[0]:
        return tell("space.framed/below", out=out)
    if seen[0] and not seen[-1]:
        return tell("space.framed/above", out=out)
    return tell("space.framed", out=out)


WORDS: dict[Framing, Sentence] = {
    "full": tell("framing/full"),
    "knees": tell("framing/knees"),
    "waist": tell("framing/waist"),
    "chest": tell("framing/chest"),
    "face": tell("framing/face"),
}


def _into_the_picture(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    subject = evaluation.plan.subject
    if subject is None:
        return []
    low, high = _shown_of(subject)
    return [
        *moves.turned_to(evaluation.plan, low, high),
        *moves.back_for(evaluation.plan, low, high),
        *_called_what_it_is(evaluation, subject),
    ]


def _called_what_it_is(evaluation: Evaluation, subject: Subject) -> list[Proposal]:
    """The framing that the picture really has, where it has the face."""
    if subject.framing == "hands" or not _face_is_seen(evaluation, subject):
        return []
    heights = np.linspace(0.0, subject.eyes[1], PLACES)
    seen = _seen(evaluation, subject, heights)
    lowest = float(heights[int(np.argmax(seen))])
    found = min(BODY, key=lambda framing: abs(subject.up(FRAMING_FROM[framing]) - lowest))
    if found == subject.framing:
        return []
    changes = [edit.subject.framing(found)]
    if subject.feet_seen and found != "full":
        changes.append(edit.subject.feet_seen(False))
    return [Proposal(tell("do/framing-word", framing=WORDS[found]), tuple(changes), tell("cost/framing-said"))]


RULES = (
    Rule(
        id="space.framed",
        stage="space",
        measure="out of the picture",
        why="What is judged of somebody is what the framing shows; another picture is another shot.",
        judge=_framed,
        propose=_into_the_picture,
        digits=0,
    ),
)
