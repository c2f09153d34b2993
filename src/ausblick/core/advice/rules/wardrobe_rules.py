"""Wardrobe, hair and props before the screen: what the key would take, and what has to be tested."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from ...colour.rec709 import LUMA
from ...damage.damage import Damage
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import Plan, Subject, edit
from ...plan.people import Garment, Prop
from ...rig.screen_colour import FAIR, REFERENCE
from ...sentences import few, tell
from ...standards.limits import LIMITS
from ..rule import Judgement, Proposal, Rule, no_proposal

HUE = LIMITS["screen.hue"]
GLOSSY = 0.15
"""Gloss from which cloth shows the screen as a reflection: ours, satin begins there."""


def _hue(evaluation: Evaluation) -> Judgement | None:
    """By the light that really falls on cloth and screen, and by the kinder colour difference for the thing that the
    usual one loses most of."""
    damage, hue = evaluation.damage, evaluation.plan.screen.hue
    if damage is None or not damage.mean.lost:
        return None
    held = _held(evaluation.plan)
    name = max(damage.mean.lost, key=lambda n: damage.mean.lost[n])
    solid, kinder = 100.0 - damage.mean.lost[name], 100.0 - damage.larger.lost[name]
    short = max(0.0, HUE.at - solid)
    if short == 0.0 and held:
        return Judgement("consider", solid, HUE.at, "%", tell("screen.hue/held", names=few(held)), 0.0)
    if short == 0.0:
        return Judgement("fine", solid, HUE.at, "%", tell("screen.hue/clear", hue=hue), 0.0)
    best = max(solid, kinder)
    severity = HUE.grade(HUE.at - best)
    if severity == "stop" and _hardly_shown(evaluation.plan, damage, name):
        severity = "fix"
    if severity == "fine":
        # Nothing is lost where it is keyed the kinder way; that has to be known, and costs despill.
        return Judgement("consider", solid, HUE.at, "%", tell("screen.hue/larger", name=name, solid=solid), short)
    return Judgement(severity, best, HUE.at, "%", tell("screen.hue/shared", name=name, solid=best), HUE.at - best)


def _hardly_shown(plan: Plan, damage: Damage, name: str) -> bool:
    """Does the picture show so little of what is worn that no more of the figure is lost than is seen?"""
    subject, loss = plan.subject, damage.kinder.matte_loss
    if subject is None or loss is None:
        return False
    worn = {one.name for one in (subject.worn_above, subject.worn_below) if one is not None}
    return name in worn and loss <= 100.0 - HUE.at + HUE.fix


def _held(plan: Plan) -> tuple[str, ...]:
    if plan.subject is None:
        return ()
    things: tuple[Garment | Prop, ...] = (*plan.subject.seen_wardrobe, *plan.subject.props)
    return tuple(thing.name for thing in things if thing.keying == "held-out")


DARK_GREY = (0.10, 0.10, 0.11)


def other_garment(evaluation: Evaluation) -> list[Proposal]:
    """What is lost most, worn or held, in a colour that no screen has, or held out."""
    subject, damage = evaluation.plan.subject, evaluation.damage
    if subject is None or damage is None or not damage.mean.lost:
        return []
    worst = max(damage.mean.lost, key=lambda n: damage.mean.lost[n])
    named = [garment for garment in subject.wardrobe if worst.startswith(garment.name)]
    worn = max(named, key=lambda garment: len(garment.name), default=None)
    if worn is not None:
        other, held = (
            edit.subject.wardrobe(_with(subject.wardrobe, worn, **changed))
            for changed in ({"reflectance": DARK_GREY}, {"keying": "held-out"})
        )
        return [
            Proposal(tell("do/other-garment", name=worn.name), (other,), tell("cost/wardrobe")),
            Proposal(tell("do/hold-out", name=worn.name), (held,), tell("cost/hold-out")),
        ]
    thing = next((prop for prop in subject.props if worst.startswith(prop.name)), None)
    return [] if thing is None else _other_thing(subject, thing)


def _other_thing(subject: Subject, thing: Prop) -> list[Proposal]:
    held = edit.subject.props(_with(subject.props, thing, keying="held-out"))
    found = [Proposal(tell("do/hold-out", name=thing.name), (held,), tell("cost/hold-out"))]
    if thing.kind == "matt":
        other = edit.subject.props(_with(subject.props, thing, reflectance=DARK_GREY))
        found.append(Proposal(tell("do/other-thing", name=thing.name), (other,), tell("cost/other-thing")))
    return found


def _with(things: Sequence[Garment | Prop], one: Garment | Prop, **changed: object) -> list[dict[str, Any]]:
    """Garments or props as a document lists them, one of them changed."""
    return [thing.model_copy(update=changed if thing is one else {}).model_dump(mode="json") for thing in things]


def garment_of_its_colour(evaluation: Evaluation) -> list[Proposal]:
    """The same where the key loses it by either formula: then its edge is screen-coloured by its own ink."""
    damage = evaluation.damage
    if damage is None or not damage.mean.lost:
        return []
    name = max(damage.mean.lost, key=lambda n: damage.mean.lost[n])
    return other_garment(evaluation) if 100.0 - damage.larger.lost[name] < HUE.at else []


def _other_screen(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan = evaluation.plan
    return other_garment(evaluation) + [
        Proposal(
            tell("do/screen-hue", hue=hue),
            (edit.screen.hue(hue), edit.screen.reflectance(list(rgb))),
            tell("cost/blue") if hue == "blue" else None,
        )
        for hue, rgb in REFERENCE.items()
        if hue != plan.screen.hue
    ]


def _hair(evaluation: Evaluation) -> Judgement | None:
    subject = evaluation.plan.subject
    if subject is None or subject.hair_kind == "none":
        return None
    fair = float(np.array(subject.hair) @ LUMA) > FAIR
    fine = subject.hair_kind in ("fine", "curly")
    words = "-".join(word for word, on in (("fair", fair), (subject.hair_kind, fine)) if on)
    if not words:
        return Judgement("fine", 0.0, 0.0, "", tell("subject.hair/plain"), 0.0)
    return Judgement("consider", float(fair) + float(fine), 0.0, "", tell(f"subject.hair/{words}"), 1.0)


def _props(evaluation: Evaluation) -> Judgement | None:
    subject = evaluation.plan.subject
    if subject is None or not (subject.props or subject.wardrobe):
        return None
    props = [prop for prop in subject.props if prop.kind != "matt"]
    worries = [tell("subject.props/prop", name=prop.name, kind=prop.kind) for prop in props]
    shiny = [garment for garment in subject.seen_wardrobe if garment.gloss > GLOSSY]
    worries += [tell("subject.props/garment", name=garment.name) for garment in shiny]
    if not worries:
        return Judgement("fine", 0.0, 0.0, "", tell("subject.props/none"), 0.0)
    says = tell("subject.props/test", things=few(tuple(worries)))
    return Judgement("consider", float(len(worries)), 0.0, "", says, float(len(worries)))


RULES = (
    Rule(
        id="screen.hue",
        stage="screen",
        measure="least solid",
        why="The screen's colour must not be in the subject: what shares it is cut away with the screen.",
        judge=_hue,
        propose=_other_screen,
        digits=0,
    ),
    Rule(
        id="subject.hair",
        stage="subject",
        measure="worries",
        why="Single hairs are thinner than a pixel and mix with the screen; fair hair shows the mix. A test "
        "shot with "
        "the person's own hair shows how much stays; a darker screen and a back light help in the composite.",
        judge=_hair,
        propose=no_proposal,
        digits=0,
    ),
    Rule(
        id="subject.props",
        stage="subject",
        measure="worries",
        why="Metal and gloss mirror the screen: move it out of the mirror angle, distance does not help. Glass, "
        "liquid "
        "and smoke let it through: they want a test, and often a take of their own. Keep fog and liquids away "
        "from mains.",
        judge=_props,
        propose=no_proposal,
        digits=0,
    ),
)
