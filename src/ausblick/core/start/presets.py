"""Kinds of things that people have, with what is usual for each: where somebody says no more than its kind."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal

from ..plan.scene import Material

LampKind = Literal["small-panel", "large-panel", "soft-box", "tube", "bulb-in-a-bowl", "window"]
ClothKind = Literal["cloth", "paper-roll", "pop-up", "frame", "painted-wall", "foam-cloth", "vinyl"]
CameraKind = Literal["phone", "small", "large"]
Movement = Literal["still", "talks", "moves", "dances"]
Behind = Literal["picture", "dark", "medium", "bright", "unknown"]


@dataclass(frozen=True)
class LampPreset:
    """Light in lm as it leaves the lamp, W from the wall; `face` as the plan document has it."""

    name: str
    face: dict[str, Any]
    lumen: float
    watts: float

    @property
    def lumen_per_watt(self) -> float:
        """By which watts alone become light."""
        return self.lumen / self.watts


LAMPS: dict[LampKind, LampPreset] = {
    "small-panel": LampPreset("small panel", {"shape": "rect", "width": 0.3, "height": 0.3}, 4_000.0, 45.0),
    "large-panel": LampPreset("large panel", {"shape": "rect", "width": 0.6, "height": 1.2}, 16_000.0, 200.0),
    "soft-box": LampPreset("soft box", {"shape": "rect", "width": 0.6, "height": 0.9}, 7_000.0, 135.0),
    "tube": LampPreset("tube", {"shape": "rect", "width": 0.04, "height": 1.2}, 2_400.0, 30.0),
    "bulb-in-a-bowl": LampPreset("bulb in a bowl", {"shape": "disc", "diameter": 0.25}, 1_600.0, 25.0),
}
"""LED lamps of these kinds as they are sold: 60 to 100 lm/W, a soft box loses about half."""
WINDOW_LUX, WINDOW_CCT = 150.0, 6500.0
"""What a window front adds to a room by day, some metres in: ours, because 100 to 300 lx are usual."""


@dataclass(frozen=True)
class ClothPreset:
    """`hangs`: what is longer than the room is high runs onto the floor."""

    name: str
    material: Material
    hangs: bool
    width: float
    height: float


CLOTHS: dict[ClothKind, ClothPreset] = {
    "cloth": ClothPreset("cloth", "muslin", True, 3.0, 2.6),
    "paper-roll": ClothPreset("paper roll", "paper", True, 2.7, 5.0),
    "pop-up": ClothPreset("pop-up panel", "pop-up", False, 1.5, 2.0),
    "frame": ClothPreset("stretched frame", "framed", False, 3.0, 2.6),
    "painted-wall": ClothPreset("painted wall", "paint", False, 3.0, 2.4),
    "foam-cloth": ClothPreset("foam-backed cloth", "foam-backed", True, 3.0, 4.0),
    "vinyl": ClothPreset("vinyl", "vinyl", True, 3.0, 5.0),
}
INK: dict[str, tuple[float, float, float]] = {"green": (0.06, 0.34, 0.10), "blue": (0.05, 0.10, 0.40)}


@dataclass(frozen=True)
class CameraPreset:
    """`lenses`: (mm, widest f-number); `fixed`: its opening can't be changed."""

    name: str
    sensor: dict[str, float | int]
    recording: dict[str, str | float | int]
    lenses: tuple[tuple[float, float], ...]
    fixed: bool = False


UHD = {"px_w": 3840, "px_h": 2160}
CAMERAS: dict[CameraKind, CameraPreset] = {
    "phone": CameraPreset(
        "phone",
        {"width_mm": 9.8, "height_mm": 5.5, "base_iso": 64.0, **UHD},
        {"codec": "long-gop", "chroma": "4:2:0", "bits": 8, "mbit_s": 50.0},
        ((6.9, 1.8),),
        fixed=True,
    ),
    "small": CameraPreset(
        "camera with a small sensor",
        {"width_mm": 17.3, "height_mm": 9.7, "base_iso": 200.0, **UHD},
        {"codec": "long-gop", "chroma": "4:2:0", "bits": 8, "mbit_s": 100.0},
        ((14.0, 2.8), (25.0, 2.8), (42.0, 2.8)),
    ),
    "large": CameraPreset(
        "camera with a large sensor",
        {"width_mm": 35.9, "height_mm": 20.2, "base_iso": 400.0, **UHD},
        {"codec": "long-gop", "chroma": "4:2:0", "bits": 8, "mbit_s": 100.0},
        ((24.0, 2.8), (35.0, 2.8), (50.0, 1.8), (85.0, 1.8)),
    ),
}
"""Main camera of a phone, a quarter and a full of 36 x 24 mm, 16:9 out of each."""
MOVES: dict[Movement, tuple[float, dict[str, float]]] = {
    "still": (0.3, {"left": 0.35, "right": 0.35, "up": 0.1, "front": 0.2, "back": 0.15}),
    "talks": (0.8, {"left": 0.5, "right": 0.5, "up": 0.15, "front": 0.35, "back": 0.2}),
    "moves": (1.5, {"left": 0.7, "right": 0.7, "up": 0.3, "front": 0.4, "back": 0.3}),
    "dances": (4.0, {"left": 0.9, "right": 0.9, "up": 0.5, "front": 0.6, "back": 0.5}),
}
"""Speed of the fastest hand in m/s, reach round the mark in m: ours, because a hand that gestures is so fast."""
LEVELS: dict[Behind, float] = {"dark": 12.0, "medium": 35.0, "bright": 65.0}
"""Mean level in % of a picture that is called that."""
