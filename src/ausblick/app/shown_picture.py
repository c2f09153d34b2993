"""A picture that is shown again and again: worked out once, then kept as the file that is sent."""

from __future__ import annotations

from ausblick.core.geometry.vectors import Bytes
from ausblick.formats.images import png_bytes


class ShownPicture:
    """A picture (H, W, 3) or (H, W) until somebody wants its file; then that alone, which takes a fifth of the room.
    Threads may share it."""

    def __init__(self, pixels: Bytes) -> None:
        self.height, self.width = pixels.shape[:2]
        self._held: Bytes | bytes = pixels

    def png(self) -> bytes:
        held = self._held
        if not isinstance(held, bytes):
            self._held = held = png_bytes(held)
        return held
