"""Fonts and lines of what is printed: dark on white, whatever the page's theme; shapes tell more than colours."""

from __future__ import annotations

from pathlib import Path

from reportlab.lib.colors import Color, HexColor
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont

from ausblick.core.paper.set_drawing import Kind

PLAIN, BOLD = "Sheet", "Sheet-Bold"
INK, QUIET, HAIR, WASH = HexColor(0x161A18), HexColor(0x5C6660), HexColor(0xB9C0BC), HexColor(0xF1F3F1)
FACE, SEEN = HexColor(0xFFFFFF), HexColor(0x2F7D4F)

LINES: dict[Kind, tuple[float, Color, tuple[float, float] | None]] = {
    "room": (1.2, INK, None),
    "screen": (2.0, SEEN, None),
    "flag": (1.4, INK, None),
    "pane": (0.9, QUIET, None),
    "sight": (0.5, QUIET, (3, 2)),
    "action": (0.5, QUIET, (1, 2)),
    "figure": (0.9, INK, None),
    "camera": (1.1, INK, None),
    "lamp": (1.6, INK, None),
    "aim": (0.5, INK, None),
    "stand": (0.5, QUIET, None),
}
"""Width in points, colour and dashes of what is drawn."""


def load_fonts() -> None:
    """Once a process; the files come with the package, so that every script of a title prints."""
    if PLAIN in pdfmetrics.getRegisteredFontNames():
        return
    folder = Path(__file__).parent / "fonts"
    for name, file in ((PLAIN, "DejaVuSansCondensed.ttf"), (BOLD, "DejaVuSansCondensed-Bold.ttf")):
        pdfmetrics.registerFont(TTFont(name, str(folder / file)))
    pdfmetrics.registerFontFamily(PLAIN, normal=PLAIN, bold=BOLD, italic=PLAIN, boldItalic=BOLD)
