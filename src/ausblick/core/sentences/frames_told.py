"""What is told of frames and clips by themselves: ids begin with frame, and after a slash what is so."""

from __future__ import annotations

FRAMES = {
    "frame.bands/lamp": "Bands of {swing:1} points pass {times:1} times a second: light of {hz:0} Hz, fast shutter",
    "frame.bands/travel": "Bands of {swing:1} points pass {times:1} times a second: a lamp that flickers",
    "frame.bands/stand": "Bands of {swing:1} points stand still: light of {hz:0} Hz, or stripes in the cloth",
    "frame.bands/not-told": "Not judged at {fps:0} fps: a broad band of {hz:0} Hz light; none at {shutters}",
    "frame.bands/shutter": "Shutter {shutters}, or lamps that do not flicker",
    "frame.bands/compare": "Film it again with shutter {shutters}: bands of a lamp go, stripes stay",
    "frame.bands/lamps": "Lamps that do not flicker, or a slower frame rate and shutter",
}
