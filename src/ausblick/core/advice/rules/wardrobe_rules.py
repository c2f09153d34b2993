"""Wardrobe, hair and props before the screen: what the key would take, and what has to be tested."""

from __future__ import annotations

import numpy as np

from ...camera.level_schools import key_channel
from ...colour.rec709 import LUMA
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import edit
from ...rig.screen_colour import FAIR, REFERENCE, matte_of, surfaces
from ...sentences import tell
from ...standards.limits import LIMITS
from ..rule import Judgement, Proposal, Rule

HUE = LIMITS["screen.hue"]
GLOSSY = 0.15
"""Gloss from which cloth shows the screen as a reflection: ours, satin begins there."""


def _hue(evaluation: Evaluation) -> Judgement | None:
    plan = evaluation.plan
    screen = np.array(plan.screen.reflectance)
    channel = key_channel(plan.screen.hue, screen)
    mattes = {name: matte_of(rgb, screen, channel) for name, rgb in surfaces(plan).items()}
    if not mattes:
        return None
    name = min(mattes, key=lambda n: mattes[n])
    short = max(0.0, HUE.at - 100.0 * mattes[name])
    says = tell("screen.hue/clear", hue=plan.screen.hue)
    if short > 0.0:
        says = tell("screen.hue/shared", name=name, solid=100.0 * mattes[name])
    return Judgement(HUE.grade(short), 100.0 * mattes[name], HUE.at, "%", says, short)


def _other_screen(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan = evaluation.plan
    return [
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
    shiny = [garment for garment in subject.wardrobe if garment.gloss > GLOSSY]
    worries += [tell("subject.props/garment", name=garment.name) for garment in shiny]
    if not worries:
        return Judgement("fine", 0.0, 0.0, "", tell("subject.props/none"), 0.0)
    says = tell("subject.props/test", things=tuple(worries))
    return Judgement("consider", float(len(worries)), 0.0, "", says, float(len(worries)))


def _nothing(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """Testing is no change of the plan."""
    return []


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
        propose=_nothing,
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
        propose=_nothing,
        digits=0,
    ),
)
