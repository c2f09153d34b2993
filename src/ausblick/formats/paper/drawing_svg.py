"""Floor and section as SVG, a picture in an open format, to a ruler's scale at 96 px an inch."""

from __future__ import annotations

from collections.abc import Sequence

from reportlab.graphics import renderSVG

from ausblick.core.paper.set_drawing import SetView

from .inks import BOLD, PLAIN
from .to_scale import drawn_to_scale

WIDTH, HEIGHT = 900.0, 1000.0


def drawing_svg(views: Sequence[SetView], title: str) -> str:
    """SVG text. Letters are the reader's own sans serif."""
    scaled = drawn_to_scale(views, WIDTH, HEIGHT)
    text: str = renderSVG.drawToString(scaled.drawing)
    text = text.replace(f"font-family: {BOLD}", "font-family: sans-serif; font-weight: bold")
    text = text.replace(f"font-family: {PLAIN}", "font-family: sans-serif")
    return text.replace("<title>...</title>", f"<title>{_plain(title)}, 1:{scaled.scale}</title>")


def _plain(text: str) -> str:
    return text.replace("&", "&amp;").replace("<", "&lt;")
