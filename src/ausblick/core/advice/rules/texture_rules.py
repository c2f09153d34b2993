"""The cloth itself and the lamps' colours on it: folds, gloss, mixed light, poor rendering."""

from __future__ import annotations

from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import edit
from ...sentences import tell
from ...standards.limits import LIMITS
from .. import moves
from ..rule import Judgement, Proposal, Rule
from ..steps import third_stop
from . import mixed_colour

FOLDS, GLOSS, RENDERING = (LIMITS[f"light.{name}"] for name in ("wrinkles", "gloss", "rendering"))


def _wrinkles(evaluation: Evaluation) -> Judgement | None:
    texture = evaluation.texture
    if texture is None:
        return None
    over = texture.wrinkle_percent - FOLDS.at
    says = tell("light.wrinkles", points=texture.wrinkle_percent)
    return Judgement(FOLDS.grade(over), texture.wrinkle_percent, FOLDS.at, "%", says, max(0.0, over))


def _smooth(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan = evaluation.plan
    slope = round(plan.screen.wrinkle_slope / 3.0, 4)
    wider = third_stop(plan.camera.f_number / 2.0**0.5)
    lamps = moves.screen_lamps(evaluation.plan)
    found = [Proposal(tell("do/steam"), (edit.screen.wrinkle_slope(slope),), tell("cost/time-before"))]
    if wider >= plan.camera.widest:
        changes = (edit.camera.f_number(wider), edit.camera.nd_stops(plan.camera.nd_stops + 1.0))
        found.append(Proposal(tell("do/aperture-nd", to=wider), changes, tell("cost/less-depth")))
    return [*found, *(moves.further_back(evaluation.plan, lamps) if lamps else [])]


def _gloss(evaluation: Evaluation) -> Judgement | None:
    if evaluation.texture is None or not evaluation.texture.highlights:
        return None
    spot = evaluation.texture.highlights[0]
    share = 100.0 * spot.added
    name = next((lamp.name for lamp in evaluation.plan.lights if lamp.id == spot.light), None)
    where = {"share": share, "across": spot.x, "high": spot.y}
    over = share - GLOSS.at
    if over <= 0.0:
        says = tell("light.gloss/none")
    elif spot.surface != "wall" and name:
        says = tell("light.gloss/on", lamp=name, share=share, surface=spot.surface)
    else:
        says = tell("light.gloss/shines", lamp=name, **where) if name else tell("light.gloss/somebody", **where)
    return Judgement(GLOSS.grade(over), share, GLOSS.at, "%", says, max(0.0, over))


def _matt(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    assert evaluation.texture is not None
    spot = evaluation.texture.highlights[0]
    found = [Proposal(tell("do/matt"), (edit.screen.gloss(0.005),), tell("cost/another-screen"))]
    for index, lamp in enumerate(evaluation.plan.lights):
        if lamp.id == spot.light:
            found += moves.turned_round(evaluation.plan, index, lamp, 20.0)
            found += moves.raised(evaluation.plan, index, lamp)
    lamps = moves.screen_lamps(evaluation.plan)
    return [*found, *(moves.aimed_across(evaluation.plan, lamps) if lamps else [])]


def _rendering(evaluation: Evaluation) -> Judgement | None:
    lamps = [lamp for lamp in evaluation.plan.lights if lamp.on and lamp.dimmer > 0.0]
    if not lamps:
        return None
    poor = min(lamps, key=lambda lamp: lamp.fixture.cri)
    short = RENDERING.at - poor.fixture.cri
    says = tell("light.rendering/well")
    if short > 0.0:
        says = tell("light.rendering/poor", lamp=poor.name, cri=poor.fixture.cri)
    return Judgement(RENDERING.grade(short), poor.fixture.cri, RENDERING.at, "", says, max(0.0, short))


def _better_lamp(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    poor = tuple(
        edit.lamp(i).on(False)
        for i, lamp in enumerate(evaluation.plan.lights)
        if lamp.on and lamp.fixture.cri < RENDERING.at
    )
    return [Proposal(tell("do/poor-off"), poor, tell("cost/light-missing"))] if poor else []


RULES = (
    Rule(
        id="light.wrinkles",
        stage="light",
        measure="folds",
        why="Light that grazes the cloth draws every fold as a line of another green.",
        judge=_wrinkles,
        propose=_smooth,
        digits=1,
    ),
    Rule(
        id="light.gloss",
        stage="light",
        measure="on top",
        why="A shine is white light on the screen: it thins the colour that the key is cut from.",
        judge=_gloss,
        propose=_matt,
        digits=0,
    ),
    mixed_colour.RULE,
    Rule(
        id="light.rendering",
        stage="light",
        measure="colour rendering",
        why="Cheap discharge and LED lamps have spikes and gaps: what they do to a green is not in their colour "
        "temperature.",
        judge=_rendering,
        propose=_better_lamp,
        digits=0,
    ),
)
