"""Plans that are at a limit, by how far they are."""

from __future__ import annotations

import math
from typing import Any

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.evaluation.results import Evaluation
from ausblick.core.plan import Plan, plan_from
from tests.stores import STORE

DOCUMENT: dict[str, Any] = {
    "format": "ausblick-plan",
    "version": 1,
    "plate": {"mean_level": 50.0, "tilt": 0.0},
    "subject": {"x": 0.0, "z": 2.4, "height": 1.72, "framing": "waist"},
    "camera": {"iso": 400, "sensor": {"px_w": 4000, "px_h": 2250}},
    "lights": [
        {"id": "l1", "role": "screen", "position": [-2.2, 1.3, 2.2], "aim": [0.3, 1.3, 0]},
        {"id": "k1", "role": "key", "position": [-1.0, 1.9, 4.4], "aim": [0, 1.6, 2.4]},
        {"id": "b1", "role": "back", "position": [0.8, 2.0, 1.2], "aim": [0, 1.6, 2.4]},
    ],
}


def merged(base: Any, change: Any) -> Any:
    if isinstance(base, dict) and isinstance(change, dict):
        return {**base, **{key: merged(base.get(key), value) for key, value in change.items()}}
    return change


def plan_with(**parts: Any) -> Plan:
    return plan_from(merged(DOCUMENT, parts))


def of(**parts: Any) -> Evaluation:
    return evaluate(plan_with(**parts), STORE)


EYES = 0.93 * 1.72


def key_from(degrees: float) -> Evaluation:
    lamp = {"id": "k1", "role": "key", "position": [0.0, EYES, 4.4], "aim": [0.0, EYES, 2.4]}
    return of(lights=[lamp], plate={"key_azimuth": degrees, "key_elevation": 0.0})


def key_wide(stops: float) -> Evaluation:
    """A bare panel so many stops wider than a medium plate's band."""
    size = 2.0 * 2.0 * math.tan(math.radians(2.0**stops * (28.0 if stops > 0 else 14.0)) / 2.0)
    face = {"emitter": {"shape": "disc", "diameter": size}, "flux_lm": 6000.0}
    key = {"role": "key", "position": [0.0, EYES, 4.4], "aim": [0.0, EYES, 2.4], "fixture": face}
    return of(lights=[key], plate={"softness": "medium"})


def angle_of_view_off(degrees: float) -> Evaluation:
    own = 2.0 * math.atan(23.5 / 2.0 / 35.0)
    return of(plate={"focal_mm_ff": 18.0 / math.tan(own / 2.0 + math.radians(degrees) / 2.0)})
