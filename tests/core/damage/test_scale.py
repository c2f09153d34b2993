"""The scale of quality, as docs/model.md has it."""

from __future__ import annotations

import pytest

from ausblick.core.damage.scale import parts_of, quality_of

IDEAL = {
    "matte_loss": 0.5, "edge_error": 0.015, "needed_clip": 0.08, "hair_error": 0.04, "motion_error": 0.5,
    "composite_error": 0.015, "screen_left": 0.008,
}  # fmt: skip
BORDER = {
    "matte_loss": 6.0, "edge_error": 0.09, "needed_clip": 0.30, "hair_error": 0.13, "motion_error": 5.0,
    "composite_error": 0.07, "screen_left": 0.02,
}  # fmt: skip
WEIGHT = {
    "matte_loss": 0.20, "edge_error": 0.18, "needed_clip": 0.16, "hair_error": 0.14, "motion_error": 0.12,
    "composite_error": 0.08, "screen_left": 0.05,
}  # fmt: skip


def test_a_hundred_without_a_fault_fifty_at_the_border() -> None:
    assert quality_of(parts_of(dict(IDEAL))) == pytest.approx(100.0)
    assert quality_of(parts_of(dict(BORDER))) == pytest.approx(50.0)
    without = quality_of(parts_of({**BORDER, "hair_error": None}))
    assert without == pytest.approx(50.0), "what is not in the picture costs nothing"


@pytest.mark.parametrize("name", IDEAL)
def test_each_part_has_its_own_border_and_weight(name: str) -> None:
    alone = quality_of(parts_of({**IDEAL, name: BORDER[name]}))
    assert alone == pytest.approx(100.0 * 2.0 ** -((WEIGHT[name] / 0.93) ** 0.5))


def test_one_fatal_part_counts_whatever_else_is_in_order() -> None:
    """Half the cloth is lost: eight borders at the most."""
    lost = quality_of(parts_of({**IDEAL, "matte_loss": 50.0}))
    assert lost == pytest.approx(100.0 * 2.0 ** -((0.20 * 64.0 / 0.93) ** 0.5))
