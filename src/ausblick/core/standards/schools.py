"""The schools side by side, as numbers: level of the screen, distance of the mark, shutter, exposure of the face."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class LevelBand:
    """Wanted level in % of the school's trace, and the band that counts as met."""

    level: float
    low: float
    high: float


BELOW_FACE = LevelBand(42.0, 40.0, 45.0)
"""School below-face: 40 to 45 %, never above 50, for saturated colour and little spill."""
MID_GREY = LevelBand(55.0, 52.0, 58.0)
"""School mid-grey: one grey shade of an exposure view, about 55 %."""
AROUND = 3.0
"""Points either side of a level that is computed or set by hand. Ours: half the width of the named bands."""
PLATE_FROM, PLATE_SLOPE, PLATE_LEAST, PLATE_MOST = 28.0, 0.35, 30.0, 60.0
"""School follow-plate: level = 28 + 0.35 × the plate's mean, within 30 to 60 %. Ours, because the schools say only
that it follows: a night plate of 15 % gives 33 %, noon at 75 % gives 54 %."""
EDGE_LEAST, EDGE_MOST, EDGE_STEP = 30.0, 60.0, 0.5
"""Levels in % that the school away-from-edge searches: darker is noise, brighter is spill."""
COLOUR_HELPS = 2.0
"""Where colour cuts too, half the gap in brightness does: ours."""

DISTANCE = {"1m": 1.0, "1.2-2m": 1.2, "2m-plus": 2.0, "3m": 3.0}
"""Schools of distance, mark to screen in m: the least that each asks for."""

SHUTTER_ANGLE = {"180": 180.0, "90": 90.0}
SHUTTER_LOW, SHUTTER_HIGH = 0.85, 1.18
"""Of the school's angle: a quarter of a stop either way, so that 1/50 at 24 frames holds."""
FASTER_MOST = 60.0
"""School faster: up to 60 degrees; below that movement looks choppy."""

FACE_UNDER, FACE_OVER = 0.5, 0.5
FACE_ROUND_WISH = 0.17
"""Round a level of the face that somebody wants, stops: half a third, what a dial can be set to."""
FACE_UNDER_DARK, FACE_OVER_BRIGHT = 1.0, 1.0
PLATE_DARK, PLATE_BRIGHT = 30.0, 65.0
"""The face, stops from grey: half a stop either way; a plate under 30 % allows a stop under, over 65 % one over."""
