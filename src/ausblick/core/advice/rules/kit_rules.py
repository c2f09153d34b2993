"""What a set-up needs beyond the kit: rules made for one kit."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial

from ...evaluation.results import Evaluation
from ...kit.kit_document import Kit
from ...light.basis import BasisStore
from ...plan import Plan, edit
from ...sentences import Sentence, tell
from .. import moves
from ..rule import Judgement, Proposal, Rule, Stage
from ..rule_set import RuleSet
from ..rule_table import RULES

Judge = Callable[[Evaluation], Judgement | None]


def rules_with(kit: Kit) -> RuleSet:
    """The craft's rules and the kit's."""
    return RuleSet((*RULES, *kit_rules(kit)))


def kit_rules(kit: Kit) -> tuple[Rule, ...]:
    """Rules against a kit. A kind of thing that the kit doesn't list at all is not judged."""
    return (
        _rule(
            "kit.screen",
            "screen",
            "screens that fit",
            "A screen that nobody owns has to be rented or made.",
            partial(_screen, kit),
            partial(_own_screen, kit),
        ),
        _rule(
            "kit.lens",
            "camera",
            "lenses of this length",
            "A lens that nobody owns has to be rented.",
            partial(_lens, kit),
            partial(_own_lens, kit),
        ),
        _rule(
            "kit.lamps",
            "light",
            "lamps in the plan",
            "A lamp that nobody owns has to be rented.",
            partial(_lamps, kit),
            _nothing,
        ),
        _rule(
            "kit.stands",
            "light",
            "stands in the plan",
            "Every lamp needs a stand, and a hanging screen two.",
            partial(_stands, kit),
            _nothing,
        ),
        _rule(
            "kit.sandbags",
            "light",
            "sandbags in the plan",
            "Every stand is ballasted: one bag on a lamp's, two on each of the screen's. Heavier loads, wind and "
            "anything overhead are for a competent rigger; follow local codes.",
            partial(_sandbags, kit),
            _nothing,
        ),
    )


def _rule(
    rule_id: str, stage: Stage, measure: str, why: str, judge: Judge,
    propose: Callable[[Evaluation, BasisStore], Sequence[Proposal]],
) -> Rule:  # fmt: skip
    return Rule(
        id=rule_id,
        stage=stage,
        measure=measure,
        why=why,
        judge=judge,
        propose=propose,
        digits=0,
    )


def _judged(have: int, need: int, says: Sentence) -> Judgement:
    short = max(0, need - have)
    return Judgement("consider" if short else "fine", float(need), float(have), "", says, float(short))


def _owned(fit: int, says: Sentence) -> Judgement:
    """Of what one is enough of."""
    return Judgement("fine" if fit else "consider", float(fit), 1.0, "", says, 0.0 if fit else 1.0)


def _screen(kit: Kit, evaluation: Evaluation) -> Judgement | None:
    if not kit.screens:
        return None
    screen = evaluation.plan.screen
    owned = [s for s in kit.screens if s.count and s.hue == screen.hue]
    fits = [s for s in owned if s.width >= screen.width - 0.01 and s.height >= screen.height - 0.01]
    fits = [s for s in fits if s.floor_run >= screen.floor_run - 0.01]
    ident = "kit.screen/fits" if fits else "kit.screen/none"
    says = tell(ident, hue=screen.hue, size=(screen.width, screen.height))
    return _owned(len(fits), says)


def _own_screen(kit: Kit, evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    return [
        Proposal(
            tell("do/kit-screen", screen=s.name),
            (
                edit.screen.width(s.width),
                edit.screen.height(s.height),
                edit.screen.material(s.material),
                edit.screen.reflectance(list(s.reflectance)),
                edit.screen.floor_run(min(evaluation.plan.screen.floor_run, s.floor_run)),
            ),
        )
        for s in kit.screens
        if s.count and s.hue == evaluation.plan.screen.hue
    ]


def _lens(kit: Kit, evaluation: Evaluation) -> Judgement | None:
    if not kit.lenses:
        return None
    focal, wanted = evaluation.plan.camera.focal_mm, evaluation.plan.camera.f_number
    same = [lens for lens in kit.lenses if lens.count and abs(lens.focal_mm - focal) < 0.5]
    fits = [
        lens for lens in same if lens.f_number <= wanted + 0.01 and not (lens.fixed and wanted > lens.f_number + 0.01)
    ]
    says = tell("kit.lens/fits" if fits else "kit.lens/none", focal=focal)
    if same and not fits:
        widest = min(lens.f_number for lens in same)
        ident = "kit.lens/slow" if widest > wanted else "kit.lens/fixed"
        says = tell(ident, focal=focal, widest=widest, wanted=wanted)
    return _owned(len(fits), says)


def _own_lens(kit: Kit, evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """The nearest lens owned, from where it frames the same."""
    plan = evaluation.plan
    owned = [lens for lens in kit.lenses if lens.count]
    if not owned or plan.subject is None:
        return []
    lens = min(owned, key=lambda one: abs(one.focal_mm - plan.camera.focal_mm))
    z = moves.same_framing(plan, lens.focal_mm)
    if z is None:
        return []
    changes = (edit.camera.focal_mm(lens.focal_mm), edit.camera.widest(lens.f_number), edit.camera.z(round(z, 2)))
    return [Proposal(tell("do/focal-kit", to=lens.focal_mm, z=z), changes)]


def stands_needed(plan: Plan) -> tuple[int, int]:
    """(lamp stands, screen stands): one a lamp, two for a screen that doesn't stand by itself."""
    lamps = sum(not lamp.is_daylight for lamp in plan.lights)
    return lamps, 0 if plan.screen.material in ("paint", "pop-up") else 2


def _lamps(kit: Kit, evaluation: Evaluation) -> Judgement | None:
    if not kit.lamps:
        return None
    need, have = stands_needed(evaluation.plan)[0], sum(lamp.count for lamp in kit.lamps)
    return _judged(have, need, tell("kit.lamps", need=need, have=have))


def _stands(kit: Kit, evaluation: Evaluation) -> Judgement | None:
    if not kit.stands:
        return None
    need, have = sum(stands_needed(evaluation.plan)), sum(stand.count for stand in kit.stands)
    return _judged(have, need, tell("kit.stands", need=need, have=have))


def _sandbags(kit: Kit, evaluation: Evaluation) -> Judgement | None:
    if not kit.stands:
        return None
    lamps, screen = stands_needed(evaluation.plan)
    need = lamps + 2 * screen
    return _judged(kit.sandbags, need, tell("kit.sandbags", need=need, have=kit.sandbags))


def _nothing(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """Renting is no change of the plan."""
    return []
