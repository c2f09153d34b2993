"""What walls, ceiling and floor are, in words, and what they then reflect."""

from __future__ import annotations

from typing import Literal

from ..plan.fields import Rgb

Tone = Literal["white", "grey", "dark", "draped"]
Surface = Literal["walls", "ceiling", "floor"]
SURFACES: tuple[Surface, ...] = ("walls", "ceiling", "floor")
REFLECTS: dict[Tone, Rgb] = {
    "white": (0.75, 0.75, 0.75),
    "grey": (0.35, 0.35, 0.35),
    "dark": (0.10, 0.10, 0.10),
    "draped": (0.03, 0.03, 0.03),
}
"""White paint that has aged a little, bare concrete, dark paint or wood, black cloth: usual tables of reflectance."""
