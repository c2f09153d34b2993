"""Which surface of screen and room each ray from an eye meets first, and where on it: geometry without light.

A pixel in which one surface borders on another is looked into again, by a square of rays.
"""

from __future__ import annotations

from collections.abc import Hashable, Mapping
from dataclasses import dataclass, replace

import numpy as np

from ..camera.screen_grid import curve_radius
from ..camera.sheet_met import met
from ..camera.view import view_key
from ..geometry.vectors import Bools, Floats, Floats32, Ints, Ints32
from ..remembered.shelf import Shelf
from .capture import Capture
from .lit_room import Side
from .pixel_window import PixelWindow

Box = tuple[slice, slice]
"""Rows and columns."""


@dataclass(frozen=True, eq=False)
class MetSurface:
    """Of one surface, over the rows and columns of `box`: where it is met first (h, w), how far along the ray, and at
    what place on it, m (h, w). `sheet`: index into the capture's sheets, `side` into its room; the other is None."""

    sheet: int | None
    side: int | None
    box: Box
    first: Bools
    reach: Floats32
    x: Floats32
    y: Floats32


@dataclass(frozen=True, eq=False)
class MetSurfaces:
    """`nothing` (H, W): where a ray meets none of them. `key`: what they are remembered by, None where they are
    not. `borders`: what is met in pixels that show more than one, None where nobody looked."""

    each: tuple[MetSurface, ...]
    nothing: Bools
    key: Hashable = None
    borders: Borders | None = None

    @property
    def nbytes(self) -> int:
        own = sum(a.nbytes for one in self.each for a in (one.first, one.reach, one.x, one.y))
        return own + self.nothing.nbytes + (0 if self.borders is None else self.borders.met.nbytes)


@dataclass(frozen=True, eq=False)
class Borders:
    """`pixels` (N,): which, by their number row by row; `met`: by the rays into each, (FINE ** 2, N)."""

    pixels: Ints
    met: MetSurfaces


FINE = 3
"""Rays along each way of such a pixel."""


_KEPT: Shelf[MetSurfaces] = Shelf(5, 32 * 2**20, size=lambda made: made.nbytes)


def met_in_window(capture: Capture, window: PixelWindow) -> MetSurfaces:
    """What the lens sees through the middles of a window's pixels."""
    sensor = capture.plan.camera.sensor
    pieces = {i: whole for i, part in enumerate(capture.room) if (whole := _whole(capture, part.side)) is not None}
    sides = tuple(part.side for i, part in enumerate(capture.room) if i not in pieces)
    key = (
        view_key(capture.view), sensor.px_w, sensor.px_h, window.place, curve_radius(capture.plan.screen),
        tuple(lit.sheet for lit in capture.sheets), sides,
    )  # fmt: skip

    def met_at(columns: Floats, rows: Floats) -> MetSurfaces:
        u = (window.x + columns * window.scale) / sensor.px_w
        v = (window.y + rows * window.scale) / sensor.px_h
        whole = replace(capture, room=tuple(part for i, part in enumerate(capture.room) if i not in pieces))
        return met_surfaces(whole, capture.view.lens, capture.view.rays(np.stack((u, v), axis=-1)))

    def found() -> MetSurfaces:
        middles = met_at(*np.meshgrid(np.arange(window.width) + 0.5, np.arange(window.height) + 0.5))
        pixels = _bordering(middles)
        if not len(pixels):
            return replace(middles, key=key)
        row, column = np.divmod(pixels, window.width)
        right, down = (way.reshape(-1, 1) for way in np.meshgrid(*2 * ((np.arange(FINE) + 0.5) / FINE,)))
        closer = replace(met_at(column + right, row + down), key=(key, "borders"))
        return replace(middles, key=key, borders=Borders(pixels, closer))

    return _with_pieces(_KEPT.get(key, found), capture, pieces)


def _bordering(met: MetSurfaces) -> Ints:
    """Pixels (N,) beside which another surface is met, those of each surface together."""
    which = np.full(met.nothing.shape, -1, dtype=np.int32)
    for number, one in enumerate(met.each):
        which[one.box][one.first] = number
    other = np.zeros(which.shape, dtype=bool)
    across, down = which[:, 1:] != which[:, :-1], which[1:] != which[:-1]
    for part, differs in ((np.s_[:, 1:], across), (np.s_[:, :-1], across), (np.s_[1:], down), (np.s_[:-1], down)):
        other[part] |= differs
    found = np.flatnonzero(other)
    return found[np.argsort(which.ravel()[found], kind="stable")]


def _whole(capture: Capture, side: Side) -> Side | None:
    """The side of which another is a piece, on a closer lattice where somebody stands; None where it is none."""
    return next((other.side for other in capture.room if side.part_of(other.side)), None)


def _with_pieces(met: MetSurfaces, capture: Capture, pieces: Mapping[int, Side]) -> MetSurfaces:
    """The same with pieces (by their place in the room) cut out of their sides: somebody who walks takes them along
    and changes nothing of what else is met."""
    kept = [i for i in range(len(capture.room)) if i not in pieces]
    each = [one if one.side is None else replace(one, side=kept[one.side]) for one in met.each]
    for number, whole in pieces.items():
        for i, one in enumerate(each):
            if one.side is None or capture.room[one.side].side != whole:
                continue
            (u0, u1), (v0, v1) = capture.room[number].side.spans
            inside = one.first & (one.x >= u0) & (one.x <= u1) & (one.y >= v0) & (one.y <= v1)
            each[i] = replace(one, first=one.first & ~inside)
            rows, columns = np.flatnonzero(inside.any(axis=1)), np.flatnonzero(inside.any(axis=0))
            if len(rows):
                part = slice(rows[0], rows[-1] + 1), slice(columns[0], columns[-1] + 1)
                box = _within(one.box, part)
                maps = one.reach[part], one.x[part], one.y[part]
                each.append(MetSurface(None, number, box, inside[part], *maps))
    borders = met.borders
    if pieces and borders is not None:
        borders = replace(borders, met=_with_pieces(borders.met, capture, pieces))
    return replace(met, each=tuple(each), borders=borders)


def _within(box: Box, part: Box) -> Box:
    """A part of a box, where that is."""
    (rows, columns), (down, across) = box, part
    return (
        slice(rows.start + down.start, rows.start + down.stop),
        slice(columns.start + across.start, columns.start + across.stop),
    )


def met_surfaces(capture: Capture, eye: Floats, rays: Floats) -> MetSurfaces:
    """What rays (H, W, 3) from an eye (3,) meet, as closely as a picture needs it."""
    ways: Floats32 = rays.astype(np.float32)
    nearest: Floats32 = np.full(rays.shape[:2], np.inf, dtype=np.float32)
    which = np.full(rays.shape[:2], -1, dtype=np.int32)
    places: list[tuple[int | None, int | None, Floats32, Floats32, Floats32]] = []
    radius = curve_radius(capture.plan.screen)
    for i, lit in enumerate(capture.sheets):
        places.append((i, None, *met(lit.sheet, radius, eye, ways)))
        _sooner(nearest, which, places[-1][2], len(places) - 1, 0.0)
    for i, part in enumerate(capture.room):
        places.append((None, i, *part.side.met(eye, ways)))
        # The floor lies under its run.
        _sooner(nearest, which, places[-1][2], len(places) - 1, 1e-6)
    each = []
    for number, (sheet, side, reach, x, y) in enumerate(places):
        first = which == number
        rows, columns = np.flatnonzero(first.any(axis=1)), np.flatnonzero(first.any(axis=0))
        if len(rows):
            box = slice(rows[0], rows[-1] + 1), slice(columns[0], columns[-1] + 1)
            maps = np.where(first[box], reach[box], np.float32(0.0)), x[box].copy(), y[box].copy()
            each.append(MetSurface(sheet, side, box, first[box], *maps))
    return MetSurfaces(tuple(each), which < 0)


def _sooner(nearest: Floats32, which: Ints32, reach: Floats32, number: int, by: float) -> None:
    sooner = reach < nearest - by
    nearest[sooner] = reach[sooner]
    which[sooner] = number
