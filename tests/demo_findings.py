"""The demo's set-ups with their findings, worked out once for all tests that only read them."""

from __future__ import annotations

from functools import cache

from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Finding
from ausblick.core.advice.rules.kit_rules import rules_with
from ausblick.core.kit.catalogue import small_kit
from ausblick.core.plan import Plan
from ausblick.demo.fern_house import scree, seed_vault
from ausblick.demo.fern_house_2 import fern_dancer, gardeners, potting_shed, seed_jar
from tests.stores import STORE

DEMO = {p.title: p for p in (seed_vault(), scree(), fern_dancer(), potting_shed(), seed_jar(), gardeners())}
SMALL_KIT = rules_with(small_kit())


@cache
def demo_findings(title: str) -> dict[str, Finding]:
    """By rule id, judged by the craft's rules and those of a small kit that lacks much."""
    return {f.rule.id: f for f in find(DEMO[title], STORE, SMALL_KIT)[1]}


def judged(plan: Plan, rule: str) -> Finding | None:
    """One rule's finding, without remedies."""
    return next(iter(find(plan, STORE, with_remedies=False, only=(rule,))[1]), None)


def found(plan: Plan, rule: str) -> Finding:
    """One rule's finding with its remedies; an error where the rule does not apply."""
    return find(plan, STORE, only=(rule,))[1][0]
