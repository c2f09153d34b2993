"""Floor and section to one scale of a ruler, as shapes that become PDF or SVG."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from reportlab.graphics.shapes import Circle, Drawing, Group, Line, Polygon, PolyLine, Rect, String
from reportlab.pdfbase.pdfmetrics import stringWidth

from ausblick.core.paper.set_drawing import Dimension, Label, Pair, SetView

from .inks import BOLD, FACE, HAIR, INK, LINES, PLAIN, QUIET, load_fonts

POINTS_PER_METRE = 72.0 / 0.0254
SCALES = (10, 15, 20, 25, 30, 40, 50, 60, 75, 100, 125, 150, 200, 250, 300, 400, 500, 1000, 2000, 5000)
STEP, SMALL = 13.0, 6.5
"""Between rows of dimensions, and size of small letters, in points."""
MARGIN, BETWEEN = 40.0, 26.0
DOT = 5.5


@dataclass(frozen=True)
class Scaled:
    """`scale`: one to so many."""

    drawing: Drawing
    scale: int


def drawn_to_scale(views: Sequence[SetView], width: float, height: float) -> Scaled:
    """The views over each other, in the largest scale of a ruler at which they fit into `width` x `height` points."""
    load_fonts()
    across = max(view.high[0] - view.low[0] for view in views)
    down = sum(view.high[1] - view.low[1] for view in views)
    rows = [1 + max((one.row for one in view.dimensions if _is_level(one)), default=-1) for view in views]
    free = width - 2 * MARGIN, height - sum(rows) * STEP - BETWEEN * len(views)
    fits = (s for s in SCALES if across * _per_metre(s) <= free[0] and down * _per_metre(s) <= free[1])
    scale = next(fits, SCALES[-1])
    per_metre = _per_metre(scale)
    sheet = Drawing(width, down * per_metre + height - free[1])
    top = sheet.height
    for view, below in zip(reversed(views), reversed(rows), strict=True):
        top -= BETWEEN / 2
        bottom = top - (view.high[1] - view.low[1]) * per_metre
        left = (width - (view.high[0] - view.low[0]) * per_metre) / 2
        sheet.add(_View(view, left, bottom, per_metre).group())
        top = bottom - below * STEP - BETWEEN / 2
    return Scaled(sheet, scale)


def _is_level(one: Dimension) -> bool:
    return abs(one.end[1] - one.start[1]) < abs(one.end[0] - one.start[0])


def _per_metre(scale: int) -> float:
    return POINTS_PER_METRE / scale


@dataclass(frozen=True)
class _View:
    view: SetView
    left: float
    bottom: float
    per_metre: float

    def group(self) -> Group:
        group = Group()
        for part in (self._name(), *self._strokes(), *self._dimensions(), *self._labels()):
            group.add(part)
        return group

    def _at(self, place: Pair) -> Pair:
        low = self.view.low
        return (
            self.left + (place[0] - low[0]) * self.per_metre,
            self.bottom + (place[1] - low[1]) * self.per_metre,
        )

    def _name(self) -> String:
        top = self._at(self.view.high)[1] + 4
        return String(self.left, top, self.view.name, fontName=BOLD, fontSize=SMALL + 1, fillColor=INK)

    def _strokes(self) -> Iterator[Polygon | PolyLine]:
        for stroke in self.view.strokes:
            wide, ink, dashes = LINES[stroke.kind]
            points = [part for place in stroke.points for part in self._at(place)]
            how = {"strokeColor": ink, "strokeWidth": wide, "strokeDashArray": dashes}
            if stroke.closed:
                filled = FACE if stroke.kind in ("camera", "figure") else None
                yield Polygon(points, fillColor=filled, **how)
            else:
                yield PolyLine(points, **how)

    def _labels(self) -> Iterator[Circle | String]:
        for label in self.view.labels:
            x, y = self._at(label.at)
            yield from LABELS[label.kind](label, x, y)

    def _dimensions(self) -> Iterator[Line | Rect | String]:
        for one in self.view.dimensions:
            yield from self._dimension(one)

    def _dimension(self, one: Dimension) -> Iterator[Line | Rect | String]:
        (x0, y0), (x1, y1) = self._at(one.start), self._at(one.end)
        away = STEP * (one.row + 0.8)
        level = _is_level(one)
        if level:
            y0 = y1 = y0 - away
        else:
            side = -1.0 if x0 < self.left + 0.5 * (self.view.high[0] - self.view.low[0]) * self.per_metre else 1.0
            x0 = x1 = x0 + side * away
        how = {"strokeColor": QUIET, "strokeWidth": 0.4}
        yield Line(x0, y0, x1, y1, **how)
        for x, y in ((x0, y0), (x1, y1)):
            yield Line(x - 2, y - 2, x + 2, y + 2, **how)
        middle = String(0, 0, one.text, fontName=PLAIN, fontSize=SMALL, fillColor=INK, textAnchor="middle")
        wide = _wide(one.text) + 2
        turned = Group(Rect(-wide / 2, -1.5, wide, SMALL + 1, fillColor=FACE, strokeColor=None), middle)
        turned.translate((x0 + x1) / 2, (y0 + y1) / 2)
        if not level:
            turned.rotate(90)
        turned.translate(0, -SMALL / 2 + 1)
        yield turned


def _wide(text: str) -> float:
    return float(stringWidth(text, PLAIN, SMALL))


def _numbered(label: Label, x: float, y: float) -> Iterator[Circle | String]:
    yield Circle(x, y, DOT, fillColor=FACE, strokeColor=INK, strokeWidth=0.9)
    yield String(x, y - 2.4, label.text, fontName=BOLD, fontSize=SMALL, fillColor=INK, textAnchor="middle")


def _named(label: Label, x: float, y: float) -> Iterator[Circle | String]:
    yield Circle(x, y, 1.2, fillColor=INK, strokeColor=HAIR, strokeWidth=0.2)
    yield String(x + 8, y - 10, label.text, fontName=PLAIN, fontSize=SMALL, fillColor=QUIET, textAnchor="end")


def _said(label: Label, x: float, y: float) -> Iterator[Circle | String]:
    yield String(x, y, label.text, fontName=PLAIN, fontSize=SMALL, fillColor=QUIET, textAnchor="end")


LABELS = {"lamp": _numbered, "place": _named, "note": _said}
