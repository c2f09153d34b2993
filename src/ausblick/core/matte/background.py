"""What stands behind the figure: every surface of the screen as it is lit, the room, lamps and their stands."""

from __future__ import annotations

from collections.abc import Hashable
from dataclasses import dataclass

import cv2
import numpy as np

from ..camera.exposure import grey_lux
from ..camera.pane_film import film_of
from ..geometry.channels import lay, threefold
from ..geometry.lattice import read_at
from ..geometry.vectors import Bools, Floats, Floats32
from ..light.cloth import FOLD
from ..light.mix import ambient_rgb
from ..remembered.shelf import Shelf
from .capture import Capture, LitSheet
from .defocus import out_of_focus
from .lamp_picture import lamp_layers
from .lit_room import LitSide
from .met_surfaces import MetSurface, MetSurfaces, met_in_window
from .pixel_window import PixelWindow


def background_of(capture: Capture, window: PixelWindow) -> tuple[Floats32, Floats32]:
    """Linear light (H, W, 3), and where it is screen-coloured (H, W)."""
    seen = surfaces_seen(capture, capture.view.lens, met_in_window(capture, window))
    image, on_screen = seen.image, seen.on_screen
    for one in lamp_layers(capture, window, before=False):
        cover = one.cover * ~seen.in_wall[one.box] if one.behind_wall else one.cover
        image[one.box] += threefold(cover) * (one.paint - image[one.box])
        on_screen[one.box] *= 1.0 - cover
    return out_of_focus(image, capture.defocus_px / window.scale), on_screen


@dataclass(frozen=True, eq=False)
class SeenSurfaces:
    """Linear light (H, W, 3) of what rays meet first; where that is the screen, the wall round a window, and where
    nothing is met but the sky (H, W)."""

    image: Floats32
    on_screen: Floats32
    in_wall: Bools
    nothing: Bools


def surfaces_seen(capture: Capture, eye: Floats, met: MetSurfaces) -> SeenSurfaces:
    """How what an eye (3,) sees looks."""
    shape = met.nothing.shape
    image = np.zeros((*shape, 3), dtype=np.float32)
    if met.nothing.any():
        image[met.nothing] = _sky(capture)
    on_screen, in_wall = np.zeros(shape, dtype=np.float32), np.zeros(shape, dtype=bool)
    for one in met.each:
        if one.sheet is not None:
            look = _seen(capture.seed, capture.sheets[one.sheet], one, met.key)
            on_screen[one.box] += one.first
        else:
            assert one.side is not None
            part = capture.room[one.side]
            look = _through_pane(capture, read_at(part.look, part.u, part.v, one.x, one.y), one, part, eye)
            if part.side.opening is not None:
                in_wall[one.box] |= one.first
        lay(look, one.first, image[one.box])
    if met.borders is not None:
        closer = surfaces_seen(capture, eye, met.borders.met)
        for picture, rays in ((image, closer.image), (on_screen, closer.on_screen)):
            picture.reshape(met.nothing.size, -1)[met.borders.pixels] = rays.mean(axis=0).reshape(rays.shape[1], -1)
    return SeenSurfaces(image, on_screen, in_wall, met.nothing)


def _seen(seed: int, lit: LitSheet, one: MetSurface, key: Hashable) -> Floats32:
    if lit.folds.max() <= 0.0:
        return read_at(lit.look, lit.xs, lit.ys, one.x, one.y)
    look, folds = (read_at(own, lit.xs, lit.ys, one.x, one.y) for own in (lit.look, lit.folds))
    # The contrast is the fold's slope at its steepest: about two standard deviations of the field.
    rise = np.float32(1.0) + np.float32(0.5) * _waves(seed, lit, one, key) * folds
    return look * threefold(rise)


def _through_pane(capture: Capture, look: Floats32, one: MetSurface, part: LitSide, eye: Floats) -> Floats32:
    """What is seen (h, w, 3) of the room beyond a window with film on its pane is darker by it."""
    film = film_of(capture.plan)
    if film is None:
        return look
    z = np.asarray(part.side.depth_at(one.x, one.y), dtype=np.float64)
    return look * threefold(film.through(z, eye[2]).astype(np.float32))


def _sky(capture: Capture) -> Floats:
    """What is seen where nothing stands (3,): outdoors the sky, which lights the ground evenly."""
    return np.minimum(ambient_rgb(capture.plan, np.array([0.0, 1.0, 0.0])) / grey_lux(capture.plan.camera), 1.0)


_WAVES: Shelf[Floats32] = Shelf(16)


def _waves(seed: int, lit: LitSheet, one: MetSurface, key: Hashable) -> Floats32:
    """Random folds of 8 cm where a surface is met (h, w), the same for the same seed."""
    ends = lit.xs[0], lit.xs[-1], lit.ys[0], lit.ys[-1]
    if key is None:
        return _folded(seed, ends, one)
    return _WAVES.get((key, one.sheet, seed, ends), lambda: _folded(seed, ends, one))


def _folded(seed: int, ends: tuple[float, float, float, float], one: MetSurface) -> Floats32:
    x0, x1, y0, y1 = ends
    cell = FOLD / 4.0
    width, height = round((x1 - x0) / cell) + 8, round((y1 - y0) / cell) + 8
    rng = np.random.default_rng(seed + 1)
    rough = cv2.GaussianBlur(rng.normal(size=(height, width)), (0, 0), 1.1)
    field = rough / max(float(np.std(rough)), 1e-9)
    # Rays that miss the surface land anywhere; their folds are never seen.
    column = np.clip((one.x - x0) / cell + 4, 0, width - 1).astype(np.float32)
    row = np.clip((one.y - y0) / cell + 4, 0, height - 1).astype(np.float32)
    waves = cv2.remap(field.astype(np.float32), column, row, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    return np.asarray(waves, dtype=np.float32)
