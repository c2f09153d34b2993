"""The figure's shadow on the needed screen, and light that lands in the wrong zone."""

from __future__ import annotations

from ...evaluation.results import Evaluation, Shadow
from ...light.basis import BasisStore
from ...plan import Change, Light, edit
from ...sentences import Sentence, tell
from ...standards.limits import LIMITS
from .. import moves
from ..rule import Judgement, Proposal, Rule

SHADOW, GROUND, SCREEN_ZONE, FACE_ZONE = (
    LIMITS["light.shadow"],
    LIMITS["light.floor-shadow"],
    LIMITS["light.two-zones"],
    LIMITS["subject.two-zones"],
)


def _lamp(evaluation: Evaluation, ident: str | None) -> tuple[int, Light] | None:
    return next(((i, lamp) for i, lamp in enumerate(evaluation.plan.lights) if lamp.id == ident), None)


def _shadow(evaluation: Evaluation) -> Judgement | None:
    shadow = evaluation.upright_shadow
    if shadow is None:
        return None
    limit = SHADOW.at
    over = shadow.deepest_percent - limit if shadow.area_visible_percent > 0.0 else 0.0
    if over <= 0.0:
        return Judgement("fine", shadow.deepest_percent, limit, "%", tell("light.shadow/none"), 0.0)
    return Judgement(SHADOW.grade(over), shadow.deepest_percent, limit, "%", _told(evaluation, shadow), over)


def _told(evaluation: Evaluation, shadow: Shadow) -> Sentence:
    """Whose shadow, how deep, how large, and where from the subject's side."""
    parameters: dict[str, float | str] = {"deepest": shadow.deepest_percent, "area": shadow.area_visible_percent}
    cast, ident = _lamp(evaluation, shadow.lamp), "light.shadow/nobody"
    if cast:
        ident, parameters["lamp"] = "light.shadow/of", cast[1].name
    if shadow.at is not None:
        (x, y), subject = shadow.at, evaluation.plan.subject
        aside = x - (subject.x if subject else 0.0)
        ident += "-left" if aside < 0.0 else "-right"
        parameters |= {"aside": abs(aside), "high": y}
    return tell(ident, **parameters)


def _clear(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    cast = _lamp(evaluation, evaluation.upright_shadow.lamp if evaluation.upright_shadow else None)
    found = [*moves.mark_forward(evaluation, 0.6), *moves.mark_forward(evaluation, 1.2)]
    if cast is not None:
        index, lamp = cast
        found += moves.turned_round(evaluation.plan, index, lamp, 20.0)
        found += moves.raised(evaluation.plan, index, lamp)
        found += moves.softened(evaluation.plan, index, lamp)
    return found


def _ground(evaluation: Evaluation) -> Judgement | None:
    shadow = evaluation.ground_shadow
    if shadow is None:
        return None
    cast = _lamp(evaluation, shadow.lamp)
    ident = "light.floor-shadow/of" if cast else "light.floor-shadow/nobody"
    parameters: dict[str, float | str] = {"deepest": shadow.deepest_percent, "surface": shadow.surface}
    says = tell(ident, **parameters, **({"lamp": cast[1].name} if cast else {}))
    over = shadow.deepest_percent - GROUND.at
    return Judgement(GROUND.grade(over), shadow.deepest_percent, GROUND.at, "%", says, max(0.0, over))


def _soften_ground(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """A larger or higher key, and screen lamps that fill the shade from both sides."""
    cast = _lamp(evaluation, evaluation.ground_shadow.lamp if evaluation.ground_shadow else None)
    if cast is None:
        return []
    index, lamp = cast
    return [*moves.softened(evaluation.plan, index, lamp), *moves.raised(evaluation.plan, index, lamp)]


def _on_screen(evaluation: Evaluation) -> Judgement | None:
    share = evaluation.zones.screen_from_subject_lamps
    if share is None or not any(lamp.role == "screen" and lamp.on for lamp in evaluation.plan.lights):
        return None
    says = tell("light.two-zones", share=share)
    over = share - SCREEN_ZONE.at
    return Judgement(SCREEN_ZONE.grade(over), share, SCREEN_ZONE.at, "%", says, max(0.0, over))


def _off_screen(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    lamps = [(i, lamp) for i, lamp in enumerate(evaluation.plan.lights) if lamp.role in ("key", "fill") and lamp.on]
    if not lamps:
        return []
    index, lamp = max(lamps, key=lambda item: evaluation.screen_by_lamp.get(item[1].id, 0.0))
    return [
        *moves.gridded(index, lamp),
        *moves.turned_round(evaluation.plan, index, lamp, 25.0),
        *moves.mark_forward(evaluation),
    ]


def _on_face(evaluation: Evaluation) -> Judgement | None:
    share = evaluation.zones.face_from_screen_lamps
    if share is None or not any(lamp.role == "key" and lamp.on for lamp in evaluation.plan.lights):
        return None
    says = tell("subject.two-zones", share=share)
    over = share - FACE_ZONE.at
    return Judgement(FACE_ZONE.grade(over), share, FACE_ZONE.at, "%", says, max(0.0, over))


def _off_face(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    lamps = [(i, lamp) for i, lamp in enumerate(evaluation.plan.lights) if lamp.role == "screen" and lamp.on]
    return [*_gridded(lamps), *moves.mark_forward(evaluation), *moves.dimmed_screen(evaluation)]


GRID_LEAVES = 0.35
"""Of what a soft lamp gives a screen, behind a grid of 60°: a tenth is lost in it, the rest beside the beam."""
TURNS_UP = 0.5
"""A lamp that is dimmed so far or farther makes up for most of that once it is turned up; the screen goes dark for
others."""


def _gridded(lamps: list[tuple[int, Light]]) -> list[Proposal]:
    """Grids on all of them, and those turned up for what the grids take; none where that would not do."""
    if any(lamp.dimmer > TURNS_UP for _, lamp in lamps):
        return []
    changes, highest = list[Change](), 0.0
    for i, lamp in lamps:
        for grid in moves.gridded(i, lamp, 60.0):
            dimmer = min(1.0, round(lamp.dimmer / GRID_LEAVES, 3))
            changes += [*grid.changes, edit.lamp(i).dimmer(dimmer)]
            highest = max(highest, dimmer)
    if not changes:
        return []
    return [Proposal(tell("do/grids", to=100.0 * highest), tuple(changes), tell("cost/grids"))]


RULES = (
    Rule(
        id="light.shadow",
        stage="light",
        measure="deepest",
        why="A shadow is a second, darker green: the key that fits the screen leaves it standing.",
        judge=_shadow,
        propose=_clear,
        digits=0,
    ),
    Rule(
        id="light.floor-shadow",
        stage="light",
        measure="deepest",
        why="Where feet are seen the key has to clear the shade round them, or it stays as a dark patch; light from "
        "several sides thins it, and a shade that suits the plate can be kept.",
        judge=_ground,
        propose=_soften_ground,
        digits=0,
    ),
    Rule(
        id="light.two-zones",
        stage="light",
        measure="from the subject's lamps",
        why="Screen light and subject light that mix can't be set one after the other, and every move of the "
        "key moves the screen.",
        judge=_on_screen,
        propose=_off_screen,
        digits=0,
    ),
    Rule(
        id="subject.two-zones",
        stage="subject",
        measure="from the screen's lamps",
        why="Light meant for the screen flattens the face and comes from where the plate has none.",
        judge=_on_face,
        propose=_off_face,
        digits=0,
    ),
)
