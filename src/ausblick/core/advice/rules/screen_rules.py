"""Screen: is there screen-coloured surface behind everything that needs it, with something to spare?"""

from __future__ import annotations

import numpy as np

from ...camera.coverage import action_heights, coverage_of
from ...camera.view import view_of
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import Change, Plan, apply_changes, edit
from ...sentences import tell
from ...standards.limits import LIMITS
from .. import moves
from ..rule import Judgement, Proposal, Rule

MARGIN = LIMITS["screen.margin"]
NEAREST_MARK = 1.2
"""No nearer to the screen than this, m, for the sake of coverage: shadow and spill would cost more."""
UNDER_CEILING, CAMERA_BY = 0.3, 0.05
"""A camera goes no nearer to the ceiling, and is tried in such steps up, m."""
LEAST_BACK, BACK_BY, LONGER = 0.3, 0.5, 3.0
"""The camera is moved back at least so far, and tried in such steps, m; the lens is no more than so many times as
long."""
HIDDEN = 0.9
"""Of a part that is to be replaced: where somebody hides more of it there is nothing to replace."""
SPARE = 0.05
"""So far inside the screen's edge less action is to end, m."""


def _covered(evaluation: Evaluation) -> Judgement | None:
    coverage = evaluation.coverage
    if coverage.margin_m is None:
        return Judgement("stop", None, 0.0, "m", tell("screen.covered/unseen"), 10.0)
    if moves.hidden_share(evaluation.plan) > HIDDEN:
        return Judgement("stop", None, 0.0, "m", tell("screen.covered/hidden"), 10.0)
    if coverage.covered:
        return Judgement("fine", coverage.margin_m, 0.0, "m", tell("screen.covered/holds"), 0.0)
    missing = -coverage.margin_m
    # A centimetre is what is told of less: "0.00 m is missing" is no finding.
    says = tell("screen.covered/missing", missing=max(missing, 0.01))
    return Judgement("stop", coverage.margin_m, 0.0, "m", says, missing)


def _margin(evaluation: Evaluation) -> Judgement | None:
    coverage = evaluation.coverage
    if not coverage.covered or coverage.margin_m is None or evaluation.plan.targets.region:
        # A part of the screen that is replaced has its own edge, which nobody oversteps.
        return None
    short = MARGIN.at - coverage.margin_m
    says = tell("screen.margin", margin=coverage.margin_m)
    return Judgement(MARGIN.grade(short), coverage.margin_m, MARGIN.at, "m", says, max(0.0, short))


def _more_screen(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """Every way to get the needed part inside the screen: more of it, less parallax, less action."""
    if evaluation.coverage.needed is None:
        return _look_at_screen(evaluation)
    if moves.hidden_share(evaluation.plan) > HIDDEN:
        return moves.out_of_the_way(evaluation.plan)
    plan, needed = evaluation.plan, evaluation.coverage.needed
    return [
        *moves.larger_screen(plan, needed),
        *_higher_camera(plan, needed),
        *_nearer(evaluation),
        *_longer_lens(evaluation),
        *_less_action(evaluation),
    ]


def _look_at_screen(evaluation: Evaluation) -> list[Proposal]:
    straight = (edit.camera.pan(0.0), edit.camera.tilt(0.0))
    return [Proposal(tell("do/straight"), straight)]


def _higher_camera(plan: Plan, needed: moves.Needed) -> list[Proposal]:
    """Where the room is too low for what is needed: from higher up the lens sees people's heads against less of it.
    With as large a screen as that then takes."""
    if plan.room.kind != "interior" or plan.subject is None or needed[3] < plan.room.height:
        return []
    if plan.camera.z <= plan.subject.z:
        return []
    found = _fits_from(plan, MARGIN.at) or _fits_from(plan, SPARE)
    if found is None:
        return []
    higher, there, needed = found
    cost, text = tell("cost/camera-height"), tell("do/camera-higher", y=there.camera.y, was=plan.camera.y)
    larger = moves.larger_screen(there, needed)
    if not larger:
        return [Proposal(text, higher, cost)]
    return [Proposal(tell("do/and", first=text, then=one.text), (*higher, *one.changes), cost) for one in larger]


def _fits_from(plan: Plan, spare: float) -> tuple[tuple[Change, ...], Plan, moves.Needed] | None:
    """The least height of the lens from which what is needed ends so far under the ceiling, m."""
    assert plan.subject is not None
    most = min(action_heights(plan.subject)[1], plan.room.height - UNDER_CEILING)
    for y in np.arange(plan.camera.y + CAMERA_BY, most, CAMERA_BY):
        higher = moves.raised_camera(plan, float(y))
        there = apply_changes(plan, higher)
        needed = coverage_of(there, view_of(there.camera, there.subject)).needed
        if needed is not None and needed[3] <= plan.room.height - spare:
            return higher, there, needed
    return None


def _nearer(evaluation: Evaluation) -> list[Proposal]:
    subject = evaluation.plan.subject
    if subject is None or subject.z < NEAREST_MARK + 0.1:
        return []
    z = round(max(NEAREST_MARK, subject.z - 0.6), 2)
    text = tell("do/mark-nearer", by=subject.z - z)
    return [Proposal(text, moves.mark_to(evaluation.plan, z, with_camera=False), tell("cost/nearer-screen"))]


def _longer_lens(evaluation: Evaluation) -> list[Proposal]:
    """The same framing from as far back as there is something to spare, else from the end of the room."""
    plan = evaluation.plan
    if plan.subject is None:
        return []
    now = plan.camera.z - plan.subject.z
    farthest = round(min(plan.room.z_max - moves.BEHIND_CAMERA, plan.subject.z + LONGER * now), 2)
    if farthest < plan.camera.z + LEAST_BACK or now <= 0:
        return []
    for back in (*np.arange(plan.camera.z + LEAST_BACK, farthest, BACK_BY).round(2), farthest):
        focal = float(round(plan.camera.focal_mm * (back - plan.subject.z) / now))
        changes = (edit.camera.z(float(back)), edit.camera.focal_mm(focal))
        there = apply_changes(plan, changes)
        margin = coverage_of(there, view_of(there.camera, there.subject)).margin_m
        if margin is not None and margin >= MARGIN.at:
            break
    text = tell("do/camera-back", z=float(back), to=focal, was=plan.camera.focal_mm)
    return [Proposal(text, changes, tell("cost/perspective"))]


def _less_action(evaluation: Evaluation) -> list[Proposal]:
    plan, needed = evaluation.plan, evaluation.coverage.needed
    if plan.subject is None or needed is None or plan.targets.coverage_school == "cover-frame":
        return []
    screen, camera, subject, changes, words = plan.screen, plan.camera, plan.subject, [], []
    front = (camera.z - subject.z - subject.envelope.front) / max(camera.z, 0.1)

    def before(edge: float, lens: float) -> float:
        """Where what is just before an edge of the screen, as the lens sees it, is at the front of the action."""
        return lens + (edge - lens) * front

    left, right = screen.x_centre - screen.width / 2, screen.x_centre + screen.width / 2
    top = screen.bottom + screen.height
    head = action_heights(subject)[1] - subject.envelope.up
    sides: tuple[tuple[edit.Side, float, float], ...] = (
        ("left", left - needed[0], subject.x - before(left + SPARE, camera.x)),
        ("right", needed[2] - right, before(right - SPARE, camera.x) - subject.x),
        ("up", needed[3] - top, before(top - SPARE, camera.y) - head),
    )
    for side, missing, allowed in sides:
        now = getattr(subject.envelope, side)
        if missing > 0 and now > 0:
            less = round(min(max(0.0, allowed), now), 2)
            changes.append(edit.subject.reach(side)(less))
            words.append(tell(f"do/less-action/{side}", reach=less))
    if not changes:
        return []
    return [Proposal(tell("do/less-action", sides=tuple(words)), tuple(changes), tell("cost/less-movement"))]


RULES = (
    Rule(
        id="screen.covered",
        stage="screen",
        measure="margin",
        why="The subject must never leave the screen: hands, hair and a thrown arm cut off there cannot be keyed.",
        judge=_covered,
        propose=_more_screen,
    ),
    Rule(
        id="screen.margin",
        stage="screen",
        measure="margin",
        why="People overshoot their marks; a hand's breadth of spare screen saves the take.",
        judge=_margin,
        propose=_more_screen,
    ),
)
