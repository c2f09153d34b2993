"""A generic catalogue: made-up names by kind and power, to begin a kit from."""

from __future__ import annotations

from typing import Any

from .kit_document import Kit, kit_from

BLUE = [0.05, 0.10, 0.40]


def _lamp(name: str, count: int, lumen: float, width: float, height: float, watts: float) -> dict[str, Any]:
    face = {"shape": "rect", "width": width, "height": height}
    return {"name": name, "count": count, "fixture": {"emitter": face, "flux_lm": lumen, "watts": watts}}


def full_kit() -> Kit:
    """What a small company has that shoots this kind of thing every month."""
    return kit_from(
        {
            "screens": [
                {"name": "framed green 3.0 × 2.6", "material": "framed", "width": 3.0, "height": 2.6,
                 "wrinkle_slope": 0.01},
                {"name": "green roll 4.2 × 3.2 with floor", "material": "foam-backed", "width": 4.2, "height": 3.2,
                 "floor_run": 4.0, "wrinkle_slope": 0.015},
                {"name": "blue roll 4.2 × 3.2 with floor", "material": "foam-backed", "width": 4.2, "height": 3.2,
                 "floor_run": 4.0, "hue": "blue", "reflectance": BLUE, "wrinkle_slope": 0.015},
                {"name": "pop-up green 1.5 × 2.0", "material": "pop-up", "width": 1.5, "height": 2.0,
                 "wrinkle_slope": 0.01},
            ],
            "lenses": [
                {"name": "18 mm", "focal_mm": 18, "f_number": 2.8},
                {"name": "24 mm", "focal_mm": 24, "f_number": 2.8},
                {"name": "35 mm", "focal_mm": 35, "f_number": 2.0},
                {"name": "50 mm", "focal_mm": 50, "f_number": 1.8},
                {"name": "85 mm", "focal_mm": 85, "f_number": 1.8},
            ],
            "cameras": [
                {"name": "cropped sensor, UHD"},
                {"name": "UHD with a recorder",
                 "recording": {"codec": "intra", "chroma": "4:2:2", "bits": 10, "mbit_s": 500.0}},
                {"name": "UHD, raw output",
                 "recording": {"codec": "raw", "chroma": "raw", "bits": 12, "mbit_s": 830.0}},
            ],
            "lamps": [
                _lamp("large soft panel", 2, 24_000, 1.2, 1.2, 300),
                _lamp("tall soft panel", 2, 20_000, 0.6, 1.2, 240),
                _lamp("soft box 0.9", 2, 12_000, 0.9, 0.9, 160),
                _lamp("small panel", 2, 4_000, 0.3, 0.3, 45),
            ],
            "stands": [
                {"name": "light stand", "count": 8},
                {"name": "tall stand", "count": 3, "height": 3.6, "load_kg": 9},
            ],
            "sandbags": 12,
            "clamps": 30,
        }
    )  # fmt: skip


def small_kit() -> Kit:
    """A spare room: a pop-up, two panels and one soft light."""
    return kit_from(
        {
            "screens": [{"name": "pop-up green 1.5 × 2.0", "material": "pop-up", "width": 1.5, "height": 2.0,
                         "wrinkle_slope": 0.01}],
            "lenses": [
                {"name": "24 mm", "focal_mm": 24, "f_number": 3.5},
                {"name": "35 mm", "focal_mm": 35, "f_number": 2.8},
                {"name": "50 mm", "focal_mm": 50, "f_number": 1.8},
            ],
            "cameras": [{"name": "cropped sensor, UHD"}],
            "lamps": [_lamp("panel", 2, 6_000, 0.3, 0.6, 60), _lamp("soft light", 1, 8_000, 0.6, 0.6, 90)],
            "stands": [{"name": "light stand", "count": 4}],
            "sandbags": 3,
            "clamps": 8,
        }
    )  # fmt: skip
