"""What the key will lose, as it is predicted from the plan: these say how bad it is, other rules say where from."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import replace

from ...damage.damage import KeyDamage
from ...evaluation.results import Evaluation
from ...evaluation.seen_screen import SeenScreen
from ...light.basis import BasisStore
from ...plan import edit
from ...sentences import Sentence, tell
from ...standards.limits import LIMITS
from .. import moves
from ..causes import ADDS, CAUSES, causes_of
from ..rule import Judgement, Proposal, Rule
from . import (
    camera_rules,
    light_rules,
    recording_rules,
    shadow_rules,
    spill_rules,
    subject_rules,
    texture_rules,
    wardrobe_rules,
)

Propose = Callable[[Evaluation, BasisStore], Sequence[Proposal]]


def _judge(
    rule_id: str, parameter: str, value: Callable[[KeyDamage], float | None]
) -> Callable[[Evaluation], Judgement | None]:
    """By a value of the kinder key, with the largest of its causes."""
    limit = LIMITS[rule_id]

    def judge(evaluation: Evaluation) -> Judgement | None:
        if evaluation.damage is None:
            return None
        damage = evaluation.damage.kinder
        found = value(damage)
        if found is None:
            return None
        over = found - limit.at
        says = tell(rule_id, **{parameter: found})
        causes = _largest(damage, rule_id)
        if over > 0.0 and causes:
            says = tell(f"{rule_id}/from", causes=causes, **{parameter: found})
        return Judgement(limit.grade(over), found, limit.at, limit.unit, says, max(0.0, over))

    return judge


def _largest(damage: KeyDamage, rule_id: str) -> tuple[Sentence, ...]:
    """The two largest causes that somebody can do something about, worst first."""
    causes = {name: part for name, part in causes_of(damage, rule_id).items() if name != "every key"}
    total = sum(max(0.0, part) for part in causes.values())
    worst = sorted(causes, key=lambda name: -causes[name])[:2]
    return tuple(tell(f"{rule_id}/{name}") for name in worst if total > 0.0 and causes[name] >= ADDS * total)


def _mend(rule_id: str) -> Propose:
    """What the rules propose that tell its causes, the largest cause first."""

    def propose(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
        if evaluation.damage is None:
            return []
        causes = causes_of(evaluation.damage.kinder, rule_id)
        found: list[Proposal] = []
        for name in sorted(causes, key=lambda name: -causes[name]):
            if causes[name] < ADDS * sum(max(0.0, part) for part in causes.values()):
                continue
            found += _OWN[name](evaluation, store) if name in _OWN else []
            found += [each for rule in _telling(rule_id, name) for each in rule.propose(evaluation, store)]
        return found

    return propose


def _telling(rule_id: str, name: str) -> list[Rule]:
    return [rule for rule in _CAUSES if (rule_id, name) in CAUSES.get(rule.id, ())]


_CAUSES: tuple[Rule, ...] = (
    *light_rules.RULES,
    *shadow_rules.RULES,
    *texture_rules.RULES,
    *spill_rules.RULES,
    *subject_rules.RULES,
    *camera_rules.RULES,
    *recording_rules.RULES,
)


def _brighter(evaluation: Evaluation) -> list[Proposal]:
    """The screen's lamps up as far as they go, a stop at the most."""
    lamps = moves.screen_lamps(evaluation.plan)
    top = max((lamp.dimmer for _, lamp in lamps), default=1.0)
    factor = min(2.0, 1.0 / top) if top > 0.0 else 1.0
    if factor < 1.1:
        return []
    changes = tuple(edit.lamp(i).dimmer(round(min(1.0, lamp.dimmer * factor), 3)) for i, lamp in lamps)
    text = tell("do/screen-lamps-up", by=math.log2(factor), to=100.0 * top * factor)
    return [Proposal(text, changes, tell("cost/more-spill"))]


MOST_OPENED = 3.0
"""Stops that a lens is proposed to be opened by: more is another set."""


def _more_light(evaluation: Evaluation) -> list[Proposal]:
    """A dark screen is a noisy one: the lens opened until it has the level that its school wants."""
    screen = evaluation.screen
    if screen is None or screen.lux_mean <= 0.0:
        return []
    missing = min(MOST_OPENED, math.log2(light_rules.wanted_lux(evaluation) / screen.lux_mean))
    return moves.aperture_by(evaluation.plan, missing, tell("cost/less-depth")) if missing > 0.0 else []


def _less_burnt(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """Below white; where a part burns that the median does not know of, evenly lit too."""
    burning = moves.burning(evaluation)
    found = moves.below_white(evaluation, burning.factor)
    if burning.in_part:
        even = next(rule for rule in light_rules.RULES if rule.id == "light.evenness")
        found += even.propose(evaluation, store)
    return found


_OWN: dict[str, Propose] = {
    "clipping": lambda evaluation, store: [
        *_less_burnt(evaluation, store),
        *subject_rules.less_on_the_subject(evaluation),
    ],
    "dark screen": lambda evaluation, _: [*_brighter(evaluation), *subject_rules.less_on_the_subject(evaluation)],
    "noise": lambda evaluation, _: [*_more_light(evaluation), *_brighter(evaluation)],
    "mirrored": lambda evaluation, _: moves.dulled_metal(evaluation),
    "screen colour": lambda evaluation, _: wardrobe_rules.garment_of_its_colour(evaluation),
}


def _clipping(evaluation: Evaluation) -> Judgement | None:
    if evaluation.damage is None:
        return None
    clipped, limit = evaluation.damage.kinder.clipped, LIMITS["key.clipping"]
    lost = 100.0 * clipped / (1.0 + clipped)
    over = lost - limit.at
    says = tell("key.clipping", lost=lost) if over > 0.0 else tell("key.clipping/holds")
    return Judgement(limit.grade(over), lost, limit.at, limit.unit, says, max(0.0, over))


def _clip(evaluation: Evaluation) -> Judgement | None:
    """With what the screen needs once it clips no more, where that is more: what is cut off at white is even."""
    told = _judge("key.clip", "clip", lambda damage: damage.needed_clip)(evaluation)
    if told is None or evaluation.damage is None:
        return told
    damage, limit = evaluation.damage.kinder, LIMITS["key.clip"]
    hidden = damage.unclipped_clip - limit.at
    if hidden <= max(told.excess, 0.0) + HARDLY_MORE:
        return told
    says = tell("key.clip/hidden", clip=damage.needed_clip, unclipped=damage.unclipped_clip)
    return replace(told, hidden=hidden, says=says)


HARDLY_MORE = 0.01
"""Of the matte."""


def _clip_at_least(seen: SeenScreen) -> float:
    """By whichever key needs less; which of them is kinder is told by who stands before the screen."""
    if seen.keyed is None:
        return 0.0
    return max(0.0, min(clip.needed for clip in seen.keyed.clips) - LIMITS["key.clip"].at)


RULES = (
    Rule(
        id="key.clip",
        stage="light",
        measure="clip",
        why="One clip has to hold the whole screen. What it takes for the darkest place it takes from hair and from "
        "every soft edge.",
        judge=_clip,
        propose=_mend("key.clip"),
        at_least=_clip_at_least,
    ),
    Rule(
        id="key.clipping",
        stage="light",
        measure="colour lost",
        why="What is recorded at white has lost its colour: there is nothing left to cut the screen from.",
        judge=_clipping,
        propose=_less_burnt,
        digits=0,
    ),
    Rule(
        id="key.edge",
        stage="subject",
        measure="edge error",
        why="The outline is where a composite is believed or not: too solid it wears a rim, too thin it is eaten.",
        judge=_judge("key.edge", "error", lambda damage: damage.edge_error),
        propose=_mend("key.edge"),
        digits=3,
    ),
    Rule(
        id="key.hair",
        stage="subject",
        measure="hair error",
        why="Single hairs are thinner than a pixel: what is added to the error is hair that is gone.",
        judge=_judge("key.hair", "error", lambda damage: damage.hair_error),
        propose=_mend("key.hair"),
        digits=3,
    ),
    Rule(
        id="key.motion",
        stage="camera",
        measure="lost of the hand",
        why="A smeared hand is half screen: the key takes it for neither.",
        judge=_judge("key.motion", "area", lambda damage: damage.motion_error),
        propose=_mend("key.motion"),
        digits=0,
    ),
)
