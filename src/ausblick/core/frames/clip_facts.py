"""What a clip's file says of itself."""

from __future__ import annotations

from dataclasses import dataclass

from ..standards.quantities import FramesPerSecond, MegabitsPerSecond
from .file_colour import UNTAGGED, FileColour


@dataclass(frozen=True)
class ClipFacts:
    """What the file says of itself. `codec` as the decoder names it, `codec_name` as people do; `mbit_s` from the
    packets where the container has no figure; `width`, `height` as they are shown, `pixel_shape` width over height of
    a recorded pixel; `frames_said` where the file says so; `turns` from the plan: quarter turns of the camera."""

    container: str
    codec: str
    pix_fmt: str
    chroma: str | None
    bits: int
    mbit_s: MegabitsPerSecond
    fps: FramesPerSecond
    width: int
    height: int
    matrix: str
    full_range: bool
    colour: FileColour = UNTAGGED
    codec_name: str = ""
    interlaced: bool = False
    pixel_shape: float = 1.0
    frames_said: int | None = None
    turns: int = 0
