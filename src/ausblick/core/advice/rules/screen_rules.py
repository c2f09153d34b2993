"""Screen: is there screen-coloured surface behind everything that needs it, with something to spare?"""

from __future__ import annotations

from ...camera.coverage import action_heights
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import edit, people_of
from ...sentences import tell
from ...standards.limits import LIMITS
from .. import moves
from ..rule import Judgement, Proposal, Rule

MARGIN = LIMITS["screen.margin"]
NEAREST_MARK = 1.2
"""No nearer to the screen than this, m, for the sake of coverage: shadow and spill would cost more."""
SPARE = 0.05
"""So far inside the screen's edge less action is to end, m."""


def _covered(evaluation: Evaluation) -> Judgement | None:
    coverage = evaluation.coverage
    if coverage.margin_m is None:
        return Judgement("stop", None, 0.0, "m", tell("screen.covered/unseen"), 10.0)
    if coverage.covered:
        return Judgement("fine", coverage.margin_m, 0.0, "m", tell("screen.covered/holds"), 0.0)
    missing = -coverage.margin_m
    says = tell("screen.covered/missing", missing=missing)
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
    return [*_bigger(evaluation), *_nearer(evaluation), *_longer_lens(evaluation), *_less_action(evaluation)]


def _look_at_screen(evaluation: Evaluation) -> list[Proposal]:
    straight = (edit.camera.pan(0.0), edit.camera.tilt(0.0))
    return [Proposal(tell("do/straight"), straight)]


def _bigger(evaluation: Evaluation) -> list[Proposal]:
    plan, needed = evaluation.plan, evaluation.coverage.needed
    assert needed is not None
    screen, spare = plan.screen, MARGIN.at + 0.05
    on_floor = screen.bottom <= 0.02
    left = min(screen.x_centre - screen.width / 2, needed[0] - spare)
    right = max(screen.x_centre + screen.width / 2, needed[2] + spare)
    top = max(screen.bottom + screen.height, needed[3] + spare)
    if plan.room.kind == "interior":
        # As much to spare as the room gives; what is needed itself has to fit in.
        left, right = max(left, plan.room.x_min), min(right, plan.room.x_max)
        top = min(top, plan.room.height)
        if needed[0] <= left or needed[2] >= right or needed[3] >= top:
            return []
    bottom = screen.bottom if on_floor else max(0.0, min(screen.bottom, needed[1] - spare))
    width, height = round(right - left, 2), round(top - bottom, 2)
    changes = [
        edit.screen.width(width),
        edit.screen.x_centre(round((left + right) / 2, 3)),
        edit.screen.height(height),
        edit.screen.bottom(round(bottom, 2)),
    ]
    sizes = {"to": (width, height), "was": (screen.width, screen.height)}
    text = tell("do/bigger-screen", **sizes)
    if plan.subject is not None and plan.subject.feet_seen and needed[1] < 0:
        run = round(max(one.z + one.envelope.front for one in people_of(plan)) + spare + 0.1, 2)
        if run > screen.floor_run:
            changes.append(edit.screen.floor_run(run))
            text = tell("do/bigger-screen-run", run=run, **sizes)
            if (width, height) == (round(screen.width, 2), round(screen.height, 2)):
                text = tell("do/longer-run", to=run, was=screen.floor_run)
    if (width, height) == (round(screen.width, 2), round(screen.height, 2)) and len(changes) == 4:
        return []
    return [Proposal(text, tuple(changes), tell("cost/more-cloth"))]


def _nearer(evaluation: Evaluation) -> list[Proposal]:
    subject = evaluation.plan.subject
    if subject is None or subject.z < NEAREST_MARK + 0.1:
        return []
    z = round(max(NEAREST_MARK, subject.z - 0.6), 2)
    text = tell("do/mark-nearer", by=subject.z - z)
    return [Proposal(text, moves.mark_to(evaluation.plan, z, with_camera=False), tell("cost/nearer-screen"))]


def _longer_lens(evaluation: Evaluation) -> list[Proposal]:
    plan = evaluation.plan
    if plan.subject is None:
        return []
    back = round(plan.room.z_max - moves.BEHIND_CAMERA, 2)
    now, then = plan.camera.z - plan.subject.z, back - plan.subject.z
    if then < now + 0.3 or now <= 0:
        return []
    focal = round(plan.camera.focal_mm * then / now)
    text = tell("do/camera-back", z=back, to=focal, was=plan.camera.focal_mm)
    changes = (edit.camera.z(back), edit.camera.focal_mm(float(focal)))
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
