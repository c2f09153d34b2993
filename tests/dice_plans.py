"""Plans that nobody tuned to, made by dice: rooms from a garage to a stage, one to four lamps, cloths of all colours,
phones and cinema cameras. The same seed is the same plan."""

from __future__ import annotations

from typing import Any

import numpy as np

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import plan_from

CLOTHS = {
    "charcoal": (0.10, 0.10, 0.12), "white": (0.75, 0.75, 0.72), "navy": (0.04, 0.06, 0.15), "red": (0.4, 0.06, 0.05),
    "canary": (0.72, 0.60, 0.08), "olive": (0.20, 0.22, 0.08), "teal": (0.06, 0.25, 0.24), "leaf": (0.08, 0.28, 0.09),
    "sand": (0.50, 0.42, 0.28), "fuchsia": (0.45, 0.06, 0.30), "dark green": (0.05, 0.09, 0.05),
}  # fmt: skip
RECORDINGS = (
    {"codec": "long-gop", "chroma": "4:2:0", "bits": 8, "mbit_s": 50},
    {"codec": "long-gop", "chroma": "4:2:0", "bits": 8, "mbit_s": 20},
    {"codec": "intra", "chroma": "4:2:2", "bits": 10, "mbit_s": 200},
    {"codec": "raw", "chroma": "raw", "bits": 12, "mbit_s": 800},
)
SENSORS = (
    ({"width_mm": 9.8, "height_mm": 5.5, "px_w": 1920, "px_h": 1080, "base_iso": 100}, (10.0, 26.0)),
    ({"width_mm": 23.5, "height_mm": 13.2, "px_w": 1920, "px_h": 1080, "base_iso": 400}, (24.0, 60.0)),
    ({"width_mm": 36.0, "height_mm": 20.25, "px_w": 3840, "px_h": 2160, "base_iso": 640}, (35.0, 90.0)),
)


class Dice:
    def __init__(self, seed: int) -> None:
        self.rng = np.random.default_rng(seed)

    def between(self, low: float, high: float) -> float:
        return float(self.rng.uniform(low, high))

    def pick(self, of: Any) -> Any:
        return of[int(self.rng.integers(len(of)))]

    def chance(self, share: float) -> bool:
        return bool(self.rng.random() < share)


def plan_of(seed: int) -> dict[str, Any]:
    """A set as somebody might have built it: two in five with care, the others as it came."""
    dice = Dice(seed)
    care = dice.chance(0.4)
    depth, wide, high = dice.between(4.5, 9.5), dice.between(3.2, 7.0), dice.between(2.4, 4.0)
    mark = dice.between(1.6 if care else 0.9, min(3.2, 0.5 * depth))
    sensor, lenses = dice.pick(SENSORS)
    hue = dice.pick(("green", "green", "green", "blue"))
    framing = dice.pick(("full", "knees", "waist", "waist", "chest", "face", "hands"))
    full = framing == "full" and dice.chance(0.5)
    name = dice.pick(("charcoal", "red", "sand") if care and hue == "green" else sorted(CLOTHS))
    tone = float(dice.pick((0.05, 0.2, 0.5, 0.75)))
    return {
        "format": "ausblick-plan", "version": 1, "title": f"dice {seed}",
        "room": {"x_min": -0.5 * wide, "x_max": 0.5 * wide, "z_min": 0.0, "z_max": depth, "height": high,
                 "reflectance": {"walls": [tone] * 3, "ceiling": [max(tone, 0.3)] * 3, "floor": [0.2] * 3}},
        "screen": {"hue": hue, "reflectance": (0.06, 0.34, 0.10) if hue == "green" else (0.05, 0.10, 0.40),
                   "width": min(wide - 0.2, dice.between(2.8, 5.0)),
                   "height": min(high - 0.1, dice.between(2.3, 3.4)),
                   "bottom": 0.0, "wrinkle_slope": 0.01 if care else dice.pick((0.0, 0.02, 0.06, 0.15)),
                   "floor_run": mark + 0.8 if full else 0.0},
        "subject": {"z": mark, "framing": framing, "feet_seen": full,
                    "speed": dice.pick((0.3, 0.8) if care else (0.3, 1.5, 4.0)),
                    "hair_kind": dice.pick(("smooth", "curly", "fine", "none")),
                    "hair": dice.pick(((0.05, 0.035, 0.025), (0.45, 0.33, 0.16))),
                    "wardrobe": [{"name": name, "reflectance": CLOTHS[name]}]},
        "lights": _lights(dice, care, wide, high, mark),
        "camera": {
            "z": depth - 0.4, "y": 1.45, "focal_mm": dice.between(*lenses), "sensor": sensor,
            "shutter_s": dice.pick((0.01, 0.005) if care else (0.02, 0.02, 0.01, 0.005, 0.002)),
            "iso": float(sensor["base_iso"] * (1 if care else dice.pick((1, 1, 2, 4, 8)))),
            "f_number": float(dice.pick((2.0, 2.8, 4.0, 5.6))), "fps": float(dice.pick((25, 25, 50))),
            "recording": RECORDINGS[int(dice.between(2, 4))] if care else dice.pick(RECORDINGS),
        },
    }  # fmt: skip


def _lights(dice: Dice, care: bool, wide: float, high: float, mark: float) -> list[dict[str, Any]]:
    lights = []
    flux, height = float(dice.pick((2000, 6000, 15000))), 0.5 * min(high, 3.0)
    for side in (-1, 1) if care or dice.chance(0.75) else (-1,):
        x, z = side * 0.46 * wide, dice.between(0.75, 0.95) * mark
        if not care:
            x, z, height = x * dice.between(0.6, 1.0), z * dice.between(0.5, 1.0), dice.between(1.0, 0.85 * high)
            flux = float(dice.pick((2000, 6000, 15000)))
        lights.append({
            "role": "screen", "position": [x, height, z], "aim": [-0.45 * x if care else -0.2 * x, 1.3, 0.0],
            "dimmer": 1.0 if care else dice.between(0.3, 1.0),
            "fixture": {"flux_lm": flux, "cct": 5600.0 if care else float(dice.pick((5600, 5600, 4500, 3200))),
                        "emitter": {"shape": "rect", "width": dice.pick((0.3, 0.6, 1.2)), "height": 0.4}},
        })  # fmt: skip
    aside = dice.pick((-1, 1)) * dice.between(0.9, min(1.8, 0.45 * wide))
    lights.append({
        "role": "key", "position": [aside, dice.between(1.7, 0.9 * high), mark + dice.between(1.0, 2.2)],
        "aim": [0.0, 1.5, mark],
        "fixture": {"flux_lm": float(dice.pick((2000, 6000, 12000))), "cct": 5600.0,
                    "emitter": {"shape": "rect", "width": dice.pick((0.3, 0.9)), "height": 0.6}},
    })  # fmt: skip
    if dice.chance(0.4):
        lights.append({
            "role": "back", "position": [0.45 * wide, min(0.9 * high, 2.4), max(0.3, mark - 1.0)],
            "aim": [0.0, 1.6, mark], "fixture": {"flux_lm": 2000.0, "cct": 5600.0},
        })  # fmt: skip
    return lights


def metered(plan: dict[str, Any]) -> dict[str, Any]:
    """Screen lamps and key balanced, the aperture by the meter, as somebody on a set would."""
    store = BasisStore()
    evaluation = evaluate(plan_from(plan), store)
    face, screen = evaluation.exposure.subject_lux, evaluation.screen
    if not face or screen is None or screen.lux_mean <= 0.0:
        return plan
    # As much light on the screen as on the face, by dimming whichever has more.
    ratio = screen.lux_mean / face
    for lamp in plan["lights"]:
        if lamp["role"] == ("screen" if ratio > 1.0 else "key"):
            lamp["dimmer"] = lamp.get("dimmer", 1.0) * min(ratio, 1.0 / ratio)
    over = evaluate(plan_from(plan), store).exposure.stops_over or 0.0
    f_number = float(np.clip(plan["camera"]["f_number"] * 2.0 ** (over / 2.0), 1.4, 16.0))
    return {**plan, "camera": {**plan["camera"], "f_number": round(f_number, 1)}}


def built(seed: int) -> dict[str, Any]:
    """Two in three are exposed by the meter, the others as they came."""
    plan = plan_of(seed)
    return metered(plan) if seed % 3 else plan
