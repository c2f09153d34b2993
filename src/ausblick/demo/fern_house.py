"""The demo's set-ups: visitor films of the Fern House, shot in an old whitewashed packing hall.

Each has three faults of the trade in it, to be found and fixed.
"""

from __future__ import annotations

from typing import Any

from ausblick.core.plan import Plan, plan_from

HALL: dict[str, Any] = {
    "kind": "interior",
    "x_min": -3.7,
    "x_max": 3.7,
    "z_min": -0.3,
    "z_max": 9.5,
    "height": 3.6,
    "reflectance": {"walls": [0.7, 0.7, 0.7], "ceiling": [0.7, 0.7, 0.7], "floor": [0.25, 0.25, 0.25]},
    "mains": {"volts": 230, "hz": 50, "circuits": [{"name": "A", "amps": 16}, {"name": "B", "amps": 16}]},
}


def panel(
    name: str,
    role: str,
    at: list[float],
    aim: list[float],
    dimmer: float,
    lumen: float = 6000.0,
    size: float = 0.6,
    cct: float = 5600.0,
    circuit: str = "A",
) -> dict[str, Any]:
    return {
        "name": name,
        "role": role,
        "position": at,
        "aim": aim,
        "dimmer": dimmer,
        "circuit": circuit,
        "fixture": {
            "emitter": {"shape": "rect", "width": size, "height": size},
            "flux_lm": lumen,
            "beam": {"kind": "lambert"},
            "cct": cct,
            "cri": 95,
            "watts": lumen / 90.0,
        },
    }


def seed_vault() -> Plan:
    """Night round: dark plate, fair hair. Faults: a stand moved in too close, a screen far too bright
    for the plate, and the ISO left high from the last job."""
    return plan_from(
        {
            "format": "ausblick-plan",
            "version": 1,
            "title": "Seed vault, night round",
            "room": HALL,
            "screen": {"hue": "green", "material": "framed", "width": 3.0, "height": 2.6, "wrinkle_slope": 0.015},
            "subject": {
                "x": 0.0,
                "z": 2.4,
                "height": 1.68,
                "body": "woman",
                "framing": "waist",
                "speed": 0.3,
                "envelope": {"left": 0.55, "right": 0.65, "up": 0.2, "front": 0.3, "back": 0.2},
                "skin": [0.48, 0.34, 0.26],
                "hair": [0.42, 0.32, 0.17],
                "hair_kind": "fine",
                "wardrobe": [{"name": "night watch coat", "reflectance": [0.07, 0.07, 0.09], "gloss": 0.0}],
            },
            "camera": {
                "x": 0.0,
                "y": 1.45,
                "z": 6.6,
                "focal_mm": 50,
                "f_number": 4.0,
                "shutter_s": 0.02,
                "iso": 1600,
                "fps": 25,
            },
            "lights": [
                panel("left panel", "screen", [-2.3, 1.4, 2.1], [0.4, 1.4, 0.0], 0.55),
                panel("right panel", "screen", [1.75, 2.1, 1.15], [0.6, 1.5, 0.0], 0.55),
                panel("lantern key", "key", [-1.5, 2.1, 4.3], [0.0, 1.5, 2.4], 0.22, 16000.0, 0.4, 4300.0, "B"),
                panel("back light", "back", [1.4, 2.7, 0.9], [0.0, 1.5, 2.4], 0.10, 2500.0, 0.3, 5600.0, "B"),
            ],
            "plate": {
                "mean_level": 14,
                "key_azimuth": -45,
                "key_elevation": 18,
                "softness": "hard",
                "cct": 4300,
                "camera_height": 1.45,
                "focal_mm_ff": 76,
            },
            "targets": {"level_school": "follow-plate", "shutter_school": "180", "distance_school": "2m-plus"},
        }
    )


def scree() -> Plan:
    """Noon: bright plate, full length, feet seen. Faults: the floor piece ends before the feet, a
    shutter that cuts the lamps' flashes, and a face a stop and a half under a bright plate."""
    return plan_from(
        {
            "format": "ausblick-plan",
            "version": 1,
            "title": "Scree, noon",
            "room": HALL,
            "screen": {
                "hue": "green",
                "material": "foam-backed",
                "width": 3.6,
                "height": 3.0,
                "floor_run": 2.4,
                "wrinkle_slope": 0.015,
            },
            "subject": {
                "x": 0.0,
                "z": 2.6,
                "height": 1.76,
                "framing": "full",
                "speed": 0.6,
                "feet_seen": True,
                "envelope": {"left": 0.6, "right": 0.6, "up": 0.2, "front": 0.3, "back": 0.3},
                "wardrobe": [{"name": "sand shirt", "reflectance": [0.42, 0.36, 0.25], "gloss": 0.0}],
            },
            "camera": {
                "x": 0.0,
                "y": 1.5,
                "z": 8.9,
                "tilt": -4.0,
                "focal_mm": 32,
                "f_number": 4.0,
                "shutter_s": 0.0166667,
                "iso": 400,
                "fps": 25,
            },
            "lights": [
                panel("left panel", "screen", [-2.7, 1.1, 2.7], [0.6, 1.1, 0.0], 0.83, 30000.0, 1.2),
                panel("right panel", "screen", [2.7, 1.1, 2.7], [-0.6, 1.1, 0.0], 0.83, 30000.0, 1.2),
                panel("noon key", "key", [0.95, 3.4, 4.0], [0.0, 1.5, 2.6], 0.12, 24000.0, 0.6, 5600.0, "B"),
                panel("sky fill", "fill", [-1.9, 2.4, 6.4], [0.0, 1.2, 2.6], 0.25, 12000.0, 0.9, 5600.0, "B"),
            ],
            "plate": {
                "mean_level": 68,
                "key_azimuth": 35,
                "key_elevation": 55,
                "softness": "hard",
                "cct": 5600,
                "tilt": -4,
                "focal_mm_ff": 49,
            },
            "targets": {"level_school": "mid-grey", "shutter_school": "180", "distance_school": "2m-plus"},
        }
    )
