"""What stands behind the figure: every surface of the screen as it is lit, the room, lamps and their stands."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ..camera.exposure import grey_lux
from ..camera.pane_film import film_of
from ..geometry.lattice import at_places
from ..geometry.vectors import Bools, Floats, Floats32
from ..light.basis import weight
from ..light.cloth import FOLD
from ..light.emission import emission_of
from ..light.lamp_bodies import POLE, LampBody
from ..light.mix import ambient_rgb
from ..light.solids import Pillar
from ..plan import Light, Plan
from .capture import Capture, LitSheet
from .defocus import out_of_focus
from .lit_room import LitSide
from .met_surfaces import MetSurface, MetSurfaces, met_in_window
from .pixel_window import PixelWindow

FINE = 4
"""Binary digits of a pixel to which outlines are drawn."""
BLACK = 0.04
"""What lamps' bodies and stands reflect: matt black paint."""


def background_of(capture: Capture, window: PixelWindow) -> tuple[Floats, Floats]:
    """Linear light (H, W, 3), and where it is screen-coloured (H, W)."""
    seen = surfaces_seen(capture, capture.view.lens, met_in_window(capture, window))
    image, on_screen = seen.image, seen.on_screen
    for cover, paint in _lamps(capture, window, before=False, wall=seen.in_wall):
        image = cover[..., None] * paint + (1.0 - cover[..., None]) * image
        on_screen *= 1.0 - cover
    return out_of_focus(image, capture.defocus_px / window.scale), on_screen


@dataclass(frozen=True, eq=False)
class SeenSurfaces:
    """Linear light (H, W, 3) of what rays meet first; where that is the screen, the wall round a window, and where
    nothing is met but the sky (H, W)."""

    image: Floats
    on_screen: Floats
    in_wall: Bools
    nothing: Bools


def surfaces_seen(capture: Capture, eye: Floats, met: MetSurfaces) -> SeenSurfaces:
    """How what an eye (3,) sees looks."""
    shape = met.nothing.shape
    image = np.broadcast_to(_sky(capture), (*shape, 3)).copy()
    on_screen, in_wall = np.zeros(shape), np.zeros(shape, dtype=bool)
    for one in met.each:
        if one.sheet is not None:
            look = _seen(capture.seed, capture.sheets[one.sheet], one.x, one.y)
            on_screen[one.box][one.first] = 1.0
        else:
            assert one.side is not None
            part = capture.room[one.side]
            look = _through_pane(capture, at_places(part.look, part.u, part.v, one.x, one.y), one, part, eye)
            if part.side.opening is not None:
                in_wall[one.box] |= one.first
        np.copyto(image[one.box], look, where=one.first[..., None])
    return SeenSurfaces(image, on_screen, in_wall, met.nothing)


def lay_lamps(capture: Capture, window: PixelWindow, colour: Floats, alpha: Floats) -> None:
    """Lamps and stands that stand before the figure, over a premultiplied picture (H, W, 3) and its alpha (H, W)."""
    for cover, paint in _lamps(capture, window, before=True):
        a = cover[..., None]
        colour[...] = a * paint + (1.0 - a) * colour
        alpha[...] = cover + (1.0 - cover) * alpha


def _seen(seed: int, lit: LitSheet, x: Floats32, y: Floats32) -> Floats:
    seen = _look(lit, lit.look, x, y)
    if lit.folds.max() > 0.0:
        seen = seen * (1.0 + _folds(seed, lit, x, y))[..., None]
    return seen


def _through_pane(capture: Capture, look: Floats, one: MetSurface, part: LitSide, eye: Floats) -> Floats:
    """What is seen (h, w, 3) of the room beyond a window with film on its pane is darker by it."""
    film = film_of(capture.plan)
    if film is None:
        return look
    z = np.asarray(part.side.depth_at(one.x, one.y), dtype=np.float64)
    return look * film.through(z, eye[2])[..., None]


def _sky(capture: Capture) -> Floats:
    """What is seen where nothing stands (3,): outdoors the sky, which lights the ground evenly."""
    return np.minimum(ambient_rgb(capture.plan, np.array([0.0, 1.0, 0.0])) / grey_lux(capture.plan.camera), 1.0)


def _look(lit: LitSheet, values: Floats, x: Floats32, y: Floats32) -> Floats:
    """Values (H, W, ...) of a surface's grid at places x, y (...)."""
    return at_places(values, lit.xs, lit.ys, x, y)


def _folds(seed: int, lit: LitSheet, x: Floats32, y: Floats32) -> Floats:
    """Random folds of 8 cm, the same for the same seed, with the contrast that the light gives them."""
    cell = FOLD / 4.0
    width = round((lit.xs[-1] - lit.xs[0]) / cell) + 8
    height = round((lit.ys[-1] - lit.ys[0]) / cell) + 8
    rng = np.random.default_rng(seed + 1)
    rough = cv2.GaussianBlur(rng.normal(size=(height, width)), (0, 0), 1.1)
    field = rough / max(float(np.std(rough)), 1e-9)
    # Rays that miss the surface land anywhere; their folds are never seen.
    column = np.clip((x - lit.xs[0]) / cell + 4, 0, width - 1).astype(np.float32)
    row = np.clip((y - lit.ys[0]) / cell + 4, 0, height - 1).astype(np.float32)
    waves = cv2.remap(field.astype(np.float32), column, row, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    # The contrast is the fold's slope at its steepest: about two standard deviations of the field.
    return np.asarray(0.5 * waves * _look(lit, lit.folds, x, y))


def _lamps(
    capture: Capture, window: PixelWindow, before: bool, wall: Bools | None = None
) -> list[tuple[Floats, Floats]]:
    """Cover (H, W) and tone (3,) of lamps and stands behind or before the figure, the farthest first; what stands
    behind a window's `wall` (H, W) is seen beside it only."""
    plan, view = capture.plan, capture.view
    mark = plan.subject.z if plan.subject is not None else -np.inf
    found = []
    for lamp in plan.lights:
        if lamp.is_daylight or lamp.position[2] <= 0.0 or (lamp.position[2] > mark) != before:
            continue
        depth = float((np.array(lamp.position) - view.lens) @ view.axes[2])
        body = LampBody(plan, lamp)
        black = BLACK * capture.light["chest"] if capture.light else np.zeros(3)
        for outline, face in _outlines(body, view.lens):
            cover = _filled(capture, window, outline)
            if cover is not None and wall is not None and _behind_wall(plan, lamp):
                cover = cover * ~wall
            if cover is not None:
                found.append((depth, cover, np.ones(3) if face and _shines(capture, lamp) else black))
    return [(cover, paint) for _, cover, paint in sorted(found, key=lambda item: -item[0])]


def _behind_wall(plan: Plan, lamp: Light) -> bool:
    return plan.window is not None and plan.window.in_wall and lamp.position[2] < plan.window.z


def _shines(capture: Capture, lamp: Light) -> bool:
    """Does the camera look into a burning face? That clips in any picture of a lit set."""
    face = emission_of(lamp, capture.plan).face
    return weight(lamp, capture.plan.camera) > 0.0 and float((capture.view.lens - face.centre) @ face.axis) > 0.0


def _outlines(body: LampBody, lens: Floats) -> list[tuple[Floats, bool]]:
    """Outlines (N, 3) of a lamp's head (true) and of its pole, as the lens sees them."""
    centre = np.array([body.bound.x, body.bound.y, body.bound.z])
    away = lens - centre
    aside = np.array([away[2], 0.0, -away[0]]) / max(float(np.hypot(away[0], away[2])), 1e-6)
    found = []
    for pole in (solid for solid in body.solids if isinstance(solid, Pillar)):
        foot, top = np.array([pole.x, 0.0, pole.z]), np.array([pole.x, pole.top, pole.z])
        found.append((np.array([end + s * POLE * aside for end in (foot, top) for s in (-1, 1)]), False))
    if len(body.card):
        found.append((body.card.reshape(-1, 3), True))
    else:
        turn = 2.0 * np.pi * np.arange(16) / 16
        round_ = np.cos(turn)[:, None] * aside + np.sin(turn)[:, None] * np.array([0.0, 1.0, 0.0])
        found.append((centre + body.bound.radius * round_, True))
    return found


def _filled(capture: Capture, window: PixelWindow, outline: Floats) -> Floats | None:
    """Cover (H, W) of a convex outline (N, 3) in m; None where it is not in the window."""
    sensor = capture.plan.camera.sensor
    frame, depth = capture.view.project(outline)
    if np.any(depth <= 0.05):
        return None
    px = (frame * (sensor.px_w, sensor.px_h) - (window.x, window.y)) / window.scale - 0.5
    if np.any(px.max(axis=0) < 0.0) or np.any(px.min(axis=0) > (window.width, window.height)):
        return None
    cover = np.zeros((window.height, window.width), dtype=np.uint8)
    corners = np.clip(np.round(px * 2**FINE), -(2**28), 2**28).astype(np.int32)
    cv2.fillConvexPoly(cover, cv2.convexHull(corners), 255, cv2.LINE_AA, FINE)
    return cover / 255.0
