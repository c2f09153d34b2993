"""Garments of the screen's hue: how much of them the picture shows decides whether they stop the shoot."""

from __future__ import annotations

from typing import Any

import pytest

from ausblick.core.plan import plan_from
from tests.demo_findings import judged
from tests.dice_plans import built


def severity(**parts: Any) -> str:
    plan = built(918)
    changed = {name: {**plan[name], **fields} for name, fields in parts.items()}
    finding = judged(plan_from(plan | changed), "screen.hue")
    assert finding is not None
    return finding.judgement.severity


@pytest.mark.parametrize(
    ("parts", "expected"),
    [
        ({}, "fix"),
        ({"subject": {"framing": "waist"}}, "stop"),
        ({"subject": {"framing": "waist", "wardrobe": [{"name": "grey", "reflectance": [0.1, 0.1, 0.1]}]}}, "fine"),
    ],
    ids=["cuffs at the frame's edge", "a jacket that fills the picture", "another jacket"],
)
def test_a_navy_jacket_before_blue(parts: dict[str, Any], expected: str) -> None:
    """A drawn key of the first has a quality of 82."""
    assert severity(**parts) == expected


def test_a_small_thing_that_is_shown_for_its_own_sake_still_stops_it() -> None:
    patch = {"name": "berry", "kind": "matt", "reflectance": [0.05, 0.1, 0.4]}
    assert severity(subject={"wardrobe": [], "props": [patch]}) == "stop"
