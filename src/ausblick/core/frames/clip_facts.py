"""What a clip's file says of itself."""

from __future__ import annotations

from dataclasses import dataclass

from ..standards.quantities import FramesPerSecond, MegabitsPerSecond


@dataclass(frozen=True)
class ClipFacts:
    """What the file says of itself. `mbit_s` from the packets where the container has no figure; `turns` from the
    plan: quarter turns of the camera."""

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
    turns: int = 0
