"""Which rules tell causes of a damage: they are open where the damage is, and where they add to it.

A set may be uneven, folded or lit in two colours and key without a loss. What it costs is told once, by the damage
(rules/key_rules.py); evenness, shadow, folds, noise, recording and spill are told as where it comes from, each with
its number and its own remedies.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from ..damage.damage import KeyDamage
from ..evaluation.results import Evaluation
from .rule import Judgement

CAUSES: dict[str, tuple[tuple[str, str], ...]] = {
    "light.evenness": (("key.clip", "unevenness"),),
    "light.mixed-colour": (("key.clip", "unevenness"),),
    "light.shadow": (("key.clip", "shadow"), ("key.edge", "shadow")),
    "light.floor-shadow": (("key.clip", "shadow"),),
    "light.wrinkles": (("key.clip", "folds"), ("key.hair", "folds")),
    "camera.melt": (("key.clip", "folds"), ("key.hair", "folds")),
    "camera.iso": (("key.clip", "noise"), ("key.edge", "noise"), ("key.hair", "noise"), ("key.motion", "noise")),
    "camera.smear": (("key.motion", "smear"),),
    "recording.chroma": (("key.edge", "recording"), ("key.hair", "recording"), ("key.motion", "recording")),
    "subject.hair": (("key.hair", "hair"),),
    "subject.spill-front": (("key.edge", "screen colour"), ("key.motion", "screen colour")),
    "subject.spill-edge": (("key.edge", "screen colour"), ("key.hair", "screen colour")),
    "subject.spill-under": (("key.edge", "screen colour"), ("key.motion", "screen colour")),
    "subject.edge-gap": (("key.edge", "screen colour"),),
}
"""Rule: the damages that it adds to, and under which name."""
ADDS = 0.15
"""Share of a damage from which a cause is told. Ours: less is not felt when it is mended."""


def causes_of(damage: KeyDamage, rule_id: str) -> Mapping[str, float]:
    """What adds how much to a damage, by name."""
    found: dict[str, Mapping[str, float]] = {
        "key.clip": damage.clip_causes,
        "key.edge": damage.edge_causes,
        "key.hair": damage.hair_causes,
        "key.motion": damage.motion_causes,
    }
    return found.get(rule_id, {})


def told_as_causes(evaluation: Evaluation, judged: dict[str, Judgement]) -> dict[str, Judgement]:
    """The same judgements, each cause of no open damage held to be fine; it keeps its number."""
    return {
        rule_id: judgement if _counts(evaluation, judged, rule_id) else replace(judgement, severity="fine")
        for rule_id, judgement in judged.items()
    }


def _counts(evaluation: Evaluation, judged: dict[str, Judgement], rule_id: str) -> bool:
    return rule_id not in CAUSES or evaluation.damage is None or bool(_adds_to(evaluation, judged, rule_id))


def open_causes(evaluation: Evaluation, judged: dict[str, Judgement]) -> dict[str, tuple[str, ...]]:
    """Rules that are open and tell causes, with the ids of the damages that they add to."""
    if evaluation.damage is None:
        return {}
    told = (rule_id for rule_id in CAUSES if rule_id in judged and judged[rule_id].severity != "fine")
    return {rule_id: _adds_to(evaluation, judged, rule_id) for rule_id in told}


def _adds_to(evaluation: Evaluation, judged: dict[str, Judgement], rule_id: str) -> tuple[str, ...]:
    damage = evaluation.of(judged[rule_id].person).damage
    if damage is None:
        return ()
    kinder = damage.kinder
    found = (damage for damage, name in CAUSES[rule_id] if _adds(kinder, judged.get(damage), damage, name))
    return tuple(dict.fromkeys(found))


def _adds(damage: KeyDamage, judgement: Judgement | None, rule_id: str, name: str) -> bool:
    if judgement is None or judgement.severity == "fine":
        return False
    causes = causes_of(damage, rule_id)
    return causes.get(name, 0.0) >= ADDS * sum(max(0.0, part) for part in causes.values())
