"""Subject: is the face exposed, and does it stand apart from the screen as the school asks?"""

from __future__ import annotations

import math

from ...camera.level_schools import edge_levels, trace_of
from ...camera.motion import safe_shutters
from ...evaluation.results import Evaluation
from ...evaluation.screen_reading import levels_as_rec709
from ...light.basis import BasisStore
from ...plan import Light, edit
from ...sentences import tell
from ...standards.limits import LIMITS
from ...standards.schools import (
    FACE_OVER,
    FACE_OVER_BRIGHT,
    FACE_ROUND_WISH,
    FACE_UNDER,
    FACE_UNDER_DARK,
    PLATE_BRIGHT,
    PLATE_DARK,
)
from .. import moves
from ..rule import Judgement, Proposal, Rule
from ..shutter_school import school_angle
from ..steps import nominal_iso

EXPOSURE, ABOVE, GAP = (LIMITS[f"subject.{name}"] for name in ("exposure", "above-screen", "edge-gap"))


def wanted_stops(evaluation: Evaluation) -> tuple[float, float]:
    """Stops over grey that the face may be, (lowest, highest): round the plan's own wish; without one a dark plate
    allows a darker face."""
    wish = evaluation.plan.targets.face_stops
    if wish is not None:
        return wish - FACE_ROUND_WISH, wish + FACE_ROUND_WISH
    mean = evaluation.plan.plate.mean_level
    low = FACE_UNDER_DARK if mean < PLATE_DARK else FACE_UNDER
    return -low, FACE_OVER_BRIGHT if mean > PLATE_BRIGHT else FACE_OVER


def _exposed(evaluation: Evaluation) -> Judgement | None:
    over = evaluation.exposure.stops_over
    if over is None:
        return None
    if not math.isfinite(over):
        says = tell(_whose(evaluation, "subject.exposure/dark", "subject.exposure/dark/hands"))
        return Judgement("fix", None, wanted_stops(evaluation)[0], "stops", says, 12.0)
    low, high = wanted_stops(evaluation)
    off = max(low - over, over - high, 0.0)
    ident = _whose(evaluation, "subject.exposure/under", "subject.exposure/under/hands")
    if over > 0:
        ident = _whose(evaluation, "subject.exposure/over", "subject.exposure/over/hands")
    says = tell(ident, stops=over, level=evaluation.exposure.subject_level or 0.0)
    # Half a stop beyond the band that is aimed at is still graded unseen.
    beyond = max(0.0, off - AIMED)
    if over > high and (evaluation.exposure.subject_level or 0.0) >= BURNT:
        # No grade brings back a face that is white; fair skin is so earlier.
        beyond = max(beyond, 1.01 * EXPOSURE.fix)
    return Judgement(EXPOSURE.grade(beyond), over, low if over < low else high, "stops", says, beyond)


BURNT = 99.5
"""Skin at so much % of white has no colour left."""


AIMED = EXPOSURE.at - FACE_UNDER


def _whose(evaluation: Evaluation, of_face: str, of_hands: str) -> str:
    """The sentence about a face, or about hands that are shown alone."""
    subject = evaluation.plan.subject
    return of_hands if subject is not None and subject.framing == "hands" else of_face


def _face_lamps(evaluation: Evaluation) -> list[tuple[int, Light]]:
    return [
        (i, lamp)
        for i, lamp in enumerate(evaluation.plan.lights)
        if lamp.on and lamp.role in ("key", "fill") and evaluation.face_by_lamp.get(lamp.id, 0.0) > 0.0
    ]


def _missing(evaluation: Evaluation) -> float:
    """Stops that the face is short of where it is wanted; negative where it has more. Zero in the dark."""
    over = evaluation.exposure.stops_over
    if over is None or not math.isfinite(over):
        return 0.0
    low, high = wanted_stops(evaluation)
    return (min(max(0.0, low), high) if low <= 0.0 <= high else (low + high) / 2.0) - over


def _expose(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    missing = _missing(evaluation)
    if missing == 0.0:
        return []
    return [
        *_lamps_by(evaluation, missing),
        *_nearer_key(evaluation, missing),
        *moves.aperture_by(evaluation.plan, missing, tell("cost/screen-level")),
        *moves.filtered_by(evaluation.plan, missing, tell("cost/screen-level")),
        *_slower(evaluation, missing),
        *_iso_by(evaluation, missing),
    ]


MORE_THAN_WANTED = 0.5
"""Stops."""


def less_on_the_subject(evaluation: Evaluation) -> list[Proposal]:
    """Its lamps dimmed to where the face is wanted, where it has more: beside a brighter hand or sleeve the screen is
    the weaker."""
    missing = _missing(evaluation)
    return _lamps_by(evaluation, missing) if missing < -MORE_THAN_WANTED else []


def _slower(evaluation: Evaluation, missing: float) -> list[Proposal]:
    """A shutter that is open longer, where a fast one takes the light: whole flashes, within the plan's school."""
    plan, camera = evaluation.plan, evaluation.plan.camera
    if missing < 0.3 or plan.medium == "stills":
        return []
    _, longest = school_angle(evaluation)
    safe = [t for t in safe_shutters(plan.room.mains.hz, camera.fps) if 360.0 * t * camera.fps <= longest]
    slower = [t for t in safe if t > 1.05 * camera.shutter_s]
    if not slower:
        return []
    wanted = camera.shutter_s * 2.0**missing
    seconds = min(slower, key=lambda t: abs(math.log2(t / wanted)))
    text = tell("do/slower-shutter", to=seconds, was=camera.shutter_s)
    return [Proposal(text, (edit.camera.shutter_s(round(seconds, 8)),), tell("cost/more-smear"))]


def _lamps_by(evaluation: Evaluation, missing: float) -> list[Proposal]:
    lamps = _face_lamps(evaluation)
    total = evaluation.exposure.subject_lux or 0.0
    ours = sum(evaluation.face_by_lamp[lamp.id] for _, lamp in lamps)
    if ours <= 0.0:
        return []
    factor = (total * 2.0**missing - (total - ours)) / ours
    top = max(lamp.dimmer for _, lamp in lamps)
    if factor <= 0.0 or top <= 0.0 or (top >= 1.0 and factor > 1.0):
        return []
    cost = None
    if factor * top > 1.0:
        cost = tell("cost/all-they-have", missing=math.log2(factor * top))
        factor = 1.0 / top
    dimmers = {i: min(1.0, lamp.dimmer * factor) for i, lamp in lamps}
    names = tuple(tell("do/dim/lamp", lamp=lamp.name, percent=100.0 * dimmers[i]) for i, lamp in lamps)
    changes = tuple(edit.lamp(i).dimmer(round(dimmer, 3)) for i, dimmer in dimmers.items())
    return [Proposal(tell("do/dim" if factor < 1 else "do/raise", lamps=names), changes, cost)]


def _nearer_key(evaluation: Evaluation, missing: float) -> list[Proposal]:
    """Bring the strongest lamp of the face closer; light goes with the square of the distance."""
    lamps, subject = _face_lamps(evaluation), evaluation.plan.subject
    if missing <= 0.2 or not lamps or subject is None:
        return []
    index, lamp = max(lamps, key=lambda item: evaluation.face_by_lamp[item[1].id])
    return moves.nearer(evaluation.plan, index, lamp, subject, missing)


def _iso_by(evaluation: Evaluation, missing: float) -> list[Proposal]:
    camera = evaluation.plan.camera
    iso = nominal_iso(camera.iso * 2.0**missing, camera.sensor.base_iso)
    if not 0.9 * camera.sensor.base_iso <= iso <= 8.0 * camera.sensor.base_iso:
        return []
    cost = tell("cost/matte-noise" if iso > camera.iso else "cost/screen-level")
    return [Proposal(tell("do/iso", to=iso, was=camera.iso), (edit.camera.iso(iso),), cost)]


def _above_screen(evaluation: Evaluation) -> Judgement | None:
    """School below-face: the screen never above 50 %, the face above 50 % and above the screen."""
    level, plan = evaluation.exposure.subject_level, evaluation.plan
    if plan.targets.level_school != "below-face" or level is None or evaluation.screen is None:
        return None
    if plan.subject is not None and plan.camera.curve != "rec709":
        # The same light is judged alike, whatever curve it is recorded in.
        level = edge_levels(plan, evaluation.subject_light)["skin"]
    screen = trace_of(plan, *levels_as_rec709(evaluation))
    # A screen that is too bright is told by its own level, a face that is too dark by its exposure.
    exposed = _exposed(evaluation)
    if exposed is not None and exposed.severity != "fine":
        return None
    short = max(min(screen, evaluation.target.rec709.high) - level, ABOVE.at - level, 0.0)
    ident = _whose(evaluation, "subject.above-screen", "subject.above-screen/hands")
    if plan.camera.curve != "rec709":
        ident = _whose(evaluation, "subject.above-screen/curve", "subject.above-screen/curve/hands")
    says = tell(ident, face=level, screen=screen)
    if short == 0.0 and screen > level:
        says = tell("subject.above-screen/wanted", face=level, wanted=evaluation.target.rec709.high)
    elif short > 0.0 and screen < level:
        ident = _whose(evaluation, "subject.above-screen/dark", "subject.above-screen/dark/hands")
        says = tell(ident, face=level, screen=screen, least=ABOVE.at)
    return Judgement(ABOVE.grade(short), level, ABOVE.at, "%", says, short)


def _off_the_edge(evaluation: Evaluation) -> Judgement | None:
    """School away-from-edge: distance in luma between the screen and what touches it."""
    if evaluation.plan.targets.level_school != "away-from-edge" or evaluation.screen is None:
        return None
    edges = edge_levels(evaluation.plan, evaluation.subject_light)
    if not edges:
        return None
    screen, _ = levels_as_rec709(evaluation)
    name = min(edges, key=lambda edge: abs(edges[edge] - screen))
    gap = abs(edges[name] - screen)
    short = max(0.0, GAP.at - gap)
    ident = "subject.edge-gap" if evaluation.plan.camera.curve == "rec709" else "subject.edge-gap/curve"
    says = tell(ident, name=name, level=edges[name], gap=gap, screen=screen)
    return Judgement(GAP.grade(short), gap, GAP.at, "%", says, short)


def _lamps_to_target(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    from .light_rules import _set_level

    return _set_level(evaluation, store)


RULES = (
    Rule(
        id="subject.exposure",
        stage="subject",
        measure="skin against grey",
        why="Skin exposed right needs no lifting, and lifting brings noise into the edge.",
        judge=_exposed,
        propose=_expose,
        digits=1,
    ),
    Rule(
        id="subject.above-screen",
        stage="subject",
        measure="skin level",
        why="The face stays brighter than the screen, so that its edge separates and the screen spills little.",
        judge=_above_screen,
        propose=_expose,
        digits=0,
    ),
    Rule(
        id="subject.edge-gap",
        stage="subject",
        measure="gap in luma",
        why="Where the colour is alike, only the difference in brightness cuts.",
        judge=_off_the_edge,
        propose=_lamps_to_target,
        digits=0,
    ),
)
