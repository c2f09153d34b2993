"""The six shots of the Fern House as briefs: room, subject, plate and schools, no lamp and no camera yet."""

from __future__ import annotations

from typing import Any

from ausblick.core.plan import Framing, Plan, plan_from

from .fern_house import HALL

BRIEFS: tuple[tuple[Framing, dict[str, Any]], ...] = (
    ("waist", {
        "title": "Seed vault, night round",
        "subject": {"height": 1.68, "speed": 0.3, "hair": [0.42, 0.32, 0.17], "hair_kind": "fine",
                    "envelope": {"left": 0.55, "right": 0.65, "up": 0.2, "front": 0.3, "back": 0.2}},
        "plate": {"mean_level": 14, "key_azimuth": -50, "key_elevation": 20, "softness": "hard", "cct": 4300},
        "targets": {"level_school": "follow-plate", "distance_school": "2m-plus"},
    }),
    ("full", {
        "title": "Scree, noon",
        "subject": {"height": 1.76, "speed": 0.6, "feet_seen": True},
        "plate": {"mean_level": 68, "key_azimuth": 35, "key_elevation": 60, "softness": "hard", "cct": 5600},
        "targets": {"level_school": "mid-grey", "distance_school": "2m-plus"},
    }),
    ("full", {
        "title": "Fern dancer",
        "screen": {"hue": "blue", "reflectance": [0.05, 0.10, 0.40]},
        "subject": {"height": 1.70, "speed": 4.0, "feet_seen": True,
                    "envelope": {"left": 0.9, "right": 0.9, "up": 0.4, "front": 0.6, "back": 0.5},
                    "wardrobe": [{"name": "fern costume", "reflectance": [0.10, 0.28, 0.08]}]},
        "plate": {"mean_level": 40, "key_azimuth": -30, "key_elevation": 35, "softness": "medium"},
        "targets": {"level_school": "below-face", "shutter_school": "90", "distance_school": "2m-plus"},
    }),
    ("chest", {
        "title": "Potting-shed window",
        "subject": {"height": 1.72, "speed": 0.5},
        "window": {"x": 0.3, "y": 1.6, "z": 1.0, "width": 1.2, "height": 1.3},
        "plate": {"mean_level": 60, "key_azimuth": 60, "key_elevation": 30, "softness": "soft"},
        "targets": {"level_school": "follow-plate", "distance_school": "1.2-2m"},
    }),
    ("hands", {
        "title": "Seed jar",
        "subject": {"height": 1.72, "speed": 0.4,
                    "envelope": {"left": 0.35, "right": 0.35, "up": 0.1, "front": 0.25, "back": 0.2},
                    "props": [{"name": "seed jar", "kind": "glass"},
                              {"name": "horn scoop", "kind": "matt", "shape": "scoop",
                               "reflectance": [0.3, 0.24, 0.16]}]},
        "plate": {"mean_level": 35, "key_azimuth": -45, "key_elevation": 40, "softness": "soft"},
        "targets": {"level_school": "below-face", "distance_school": "1.2-2m"},
    }),
    ("chest", {
        "title": "Portraits of the gardeners", "medium": "stills",
        "subject": {"height": 1.75, "speed": 0.2,
                    "envelope": {"left": 0.35, "right": 0.35, "up": 0.15, "front": 0.2, "back": 0.2}},
        "plate": {"mean_level": 50, "key_azimuth": -40, "key_elevation": 35, "softness": "soft"},
        "targets": {"level_school": "below-face", "distance_school": "2m-plus"},
    }),
)  # fmt: skip


def briefs() -> list[tuple[Framing, Plan]]:
    """(framing, plan without lamps) of each shot, in the packing hall."""
    common = {"format": "ausblick-plan", "version": 1, "room": HALL}
    return [(framing, plan_from({**common, **parts})) for framing, parts in BRIEFS]
