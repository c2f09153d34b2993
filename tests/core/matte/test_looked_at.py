"""Whatever the lens sees of a figure is lit, from wherever it looks."""

from __future__ import annotations

from typing import Any

import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.matte.capture import capture_of
from ausblick.core.matte.key_windows import overview_window
from ausblick.core.matte.render import draw
from ausblick.core.plan import plan_from

FROM = {
    "eye level": {"y": 1.5, "z": 6.4},
    "above": {"y": 3.9, "z": 3.6, "tilt": -70.0, "focal_mm": 20.0},
    "the floor": {"y": 0.1, "z": 4.2, "tilt": 25.0, "focal_mm": 24.0},
}


@pytest.mark.parametrize("camera", FROM.values(), ids=list(FROM))
@pytest.mark.parametrize("hair", ["smooth", "curly"])
def test_nothing_that_is_seen_of_a_figure_is_black(camera: dict[str, Any], hair: str) -> None:
    """In even light from everywhere, of somebody in grey."""
    grey = [0.3, 0.3, 0.3]
    plan = plan_from({
        "format": "ausblick-plan", "version": 1,
        "room": {"height": 4.2, "ambient_lux": 800.0, "reflectance": {"walls": grey, "ceiling": grey, "floor": grey}},
        "screen": {"width": 3.2, "height": 3.0, "floor_run": 4.0},
        "subject": {"z": 2.4, "framing": "full", "feet_seen": True, "speed": 0.0, "hair_kind": hair,
                    "skin": grey, "hair": grey, "wardrobe": [{"name": "overall", "reflectance": grey}]},
        "camera": camera, "lights": [],
    })  # fmt: skip
    store = BasisStore()
    drawn = draw(capture_of(evaluate(plan, store), store), overview_window(plan, 480))
    figure = drawn.frame[drawn.alpha > 0.999].mean(axis=1)
    assert len(figure) > 1000
    assert float(figure.min()) > 0.03 * float(figure.mean())
