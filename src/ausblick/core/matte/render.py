"""The frame before noise and recording, in linear light, and its true matte: clean layers laid over each other.

What is drawn is kept as foreground (premultiplied), alpha and background, so that their composite is the frame.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ..figure.details import face_shade, held_by, layers_of, prop_look
from ..figure.limbs import HAIR_CAP, Layer, Limb, bounds, distance, strands
from ..geometry.vectors import Floats, Floats32
from ..plan import Prop, Subject
from ..plan.people import Keying
from .background import background_of, lay_lamps
from .capture import Capture
from .glass import before_figure, lamps_in_glass
from .pixel_window import PixelWindow

GLARE = 0.006
MOST_SUBFRAMES = 48
SMEAR_WAY = (0.78, -0.62)
"""Direction of the hand's movement in the picture: outward and up."""


@dataclass(frozen=True, eq=False)
class Drawn:
    """Linear light: foreground (H, W, 3) premultiplied, alpha (H, W), background (H, W, 3).

    Masks (H, W): `hair` and `hand` where those are, `screen` where the background is screen-coloured, things that are
    keyed away on purpose with it, `held` what is held out. `cm2`: area of a drawn pixel at the mark.
    """

    foreground: Floats
    alpha: Floats
    background: Floats
    hair: Floats
    hand: Floats
    screen: Floats
    held: Floats
    cm2: float

    @property
    def frame(self) -> Floats:
        return np.asarray(self.foreground + (1.0 - self.alpha[..., None]) * self.background)


def draw(capture: Capture, window: PixelWindow) -> Drawn:
    background, on_screen = background_of(capture, window)
    shape = (window.height, window.width)
    colour, alpha = np.zeros((*shape, 3)), np.zeros(shape)
    hair, hand, held = np.zeros(shape), np.zeros(shape), np.zeros(shape)
    cm2 = 1.0
    subject = capture.plan.subject
    if subject is not None and capture.light and _before_the_lens(capture, subject):
        place = place_of(capture, subject, window)
        cm2 = (100.0 * subject.height / place.px_per_height) ** 2
        for layer in layers_of(subject):
            if layer.name == "head":
                _lay_hair(capture, subject, place, colour, alpha, hair)
            cover = _cover(place, layer.limbs, round(capture.smear_px / window.scale, 3) if layer.moves else 0.0)
            paint, keying = _paint(capture, subject, place, layer), _keying(subject, layer)
            np.multiply(held, 1.0 - cover, out=held)
            if keying == "away":
                background = _behind(background, on_screen, colour, alpha, cover, paint)
                continue
            _over(colour, alpha, cover, paint)
            if keying == "held-out":
                np.maximum(held, cover, out=held)
            if layer.moves:
                np.maximum(hand, cover, out=hand)
        for prop, limb in zip(subject.props, held_by(subject), strict=False):
            _lay_prop(capture, place, prop, limb, colour, alpha)
    lay_lamps(capture, window, colour, alpha)
    glass = lamps_in_glass(capture, window)
    if glass is not None:
        background = background + glass
        if before_figure(capture):
            colour += alpha[..., None] * glass
    veil = GLARE * (colour + (1.0 - alpha[..., None]) * background).mean(axis=(0, 1))
    # The same veil on both layers keeps the composite exact.
    colour = (1.0 - GLARE) * colour + alpha[..., None] * veil
    return Drawn(colour, alpha, (1.0 - GLARE) * background + veil, hair, hand, on_screen, held, cm2)


def _before_the_lens(capture: Capture, subject: Subject) -> bool:
    ends = np.array([[subject.x, 0.0, subject.z], [subject.x, subject.top, subject.z]])
    return bool(np.all(capture.view.project(ends)[1] > 0.1))


@dataclass(frozen=True)
class DrawnPlace:
    """Where the figure's plane lies in a window: px of its foot, px per share of the height right and up.

    Hashable, so that covers are drawn once for all captures of the same geometry.
    """

    foot: tuple[float, float]
    right: tuple[float, float]
    up: tuple[float, float]
    shape: tuple[int, int]

    @property
    def matrix(self) -> Floats:
        return np.array([self.right, self.up]).T

    @property
    def px_per_height(self) -> float:
        return math.sqrt(abs(float(np.linalg.det(self.matrix))))

    def box(self, x0: float, y0: float, x1: float, y1: float, margin: float) -> tuple[slice, slice] | None:
        """Pixels that hold a box of the figure, with a margin in px; None outside the window."""
        corners = np.array([[x0, y0], [x1, y0], [x1, y1], [x0, y1]]) @ self.matrix.T + self.foot
        low = np.maximum(np.floor(corners.min(axis=0) - margin).astype(int), 0)
        high = np.minimum(np.ceil(corners.max(axis=0) + margin).astype(int), (self.shape[1], self.shape[0]))
        if np.any(high <= low):
            return None
        return slice(int(low[1]), int(high[1])), slice(int(low[0]), int(high[0]))

    def shares(self, box: tuple[slice, slice]) -> tuple[Floats, Floats]:
        """x and y in shares of the height at every pixel of a box."""
        rows, columns = np.mgrid[box]
        flat = np.stack([columns + 0.5 - self.foot[0], rows + 0.5 - self.foot[1]])
        x, y = np.tensordot(np.linalg.inv(self.matrix), flat, axes=1)
        return x, y


def place_of(capture: Capture, subject: Subject, window: PixelWindow) -> DrawnPlace:
    sensor = capture.plan.camera.sensor
    # A seated figure is drawn as one that stands as much lower; its legs are its own.
    ends = np.array([[subject.x, -subject.lowered, subject.z], [subject.x, subject.top, subject.z]])
    side = ends[:1] + np.array([[subject.height, 0.0, 0.0]])
    frame, _ = capture.view.project(np.concatenate([ends, side]))
    px = (frame * (sensor.px_w, sensor.px_h) - (window.x, window.y)) / window.scale
    foot, up, right = (tuple(np.round(v, 4).tolist()) for v in (px[0], px[1] - px[0], px[2] - px[0]))
    return DrawnPlace(foot, right, up, (window.height, window.width))


def figure_place(capture: Capture, x: float, y: float) -> Floats:
    """Sensor px (2,) of a place of the figure given in shares of its height."""
    subject, sensor = capture.plan.subject, capture.plan.camera.sensor
    assert subject is not None
    place = place_of(capture, subject, PixelWindow(0.0, 0.0, sensor.px_w, sensor.px_h, 1.0))
    return np.asarray(place.foot + place.matrix @ np.array([x, y]))


@lru_cache(maxsize=96)
def _cover(place: DrawnPlace, limbs: tuple[Limb, ...], smear: float) -> Floats32:
    """Coverage (H, W) of limbs, moving ones averaged over `smear` px of movement."""
    cover = np.zeros(place.shape, dtype=np.float32)
    box = place.box(*bounds(limbs), margin=2.0 + smear)
    if box is None:
        return cover
    x, y = place.shares(box)
    count = 1 if smear < 0.5 else min(MOST_SUBFRAMES, math.ceil(smear) + 1)
    way = smear / place.px_per_height * np.array(SMEAR_WAY)
    total = np.zeros(x.shape)
    for t in np.linspace(-0.5, 0.5, count) if count > 1 else (0.0,):
        away = distance(limbs, x - t * way[0], y + t * way[1]) * place.px_per_height
        total += np.clip(0.5 - away, 0.0, 1.0)
    cover[box] = total / count
    return cover


def _over(colour: Floats, alpha: Floats, cover: Floats | Floats32, paint: Floats) -> None:
    """Lay a layer over what is there; premultiplied."""
    rows, columns = np.nonzero(cover.any(axis=1))[0], np.nonzero(cover.any(axis=0))[0]
    if not len(rows):
        return
    box = slice(rows[0], rows[-1] + 1), slice(columns[0], columns[-1] + 1)
    a = cover[box][..., None]
    colour[box] = a * paint[box] + (1.0 - a) * colour[box]
    alpha[box] = cover[box] + (1.0 - cover[box]) * alpha[box]


BARE = ("head", "neck", "hands", "moving hand", "feet", "chair")
"""Layers that the first garment does not cover."""


THINGS = {"feet": (0.05, 0.045, 0.04), "chair": (0.09, 0.065, 0.045)}
"""Dark shoes, stained wood."""


def _keying(subject: Subject, layer: Layer) -> Keying:
    return subject.wardrobe[0].keying if subject.wardrobe and layer.name not in BARE else "kept"


def _behind(
    background: Floats, on_screen: Floats, colour: Floats, alpha: Floats, cover: Floats32, paint: Floats
) -> Floats:
    """The background with a screen-coloured thing in it, which hides what was drawn of the figure."""
    left = 1.0 - cover
    colour *= left[..., None]
    alpha *= left
    np.maximum(on_screen, cover, out=on_screen)
    return np.asarray(cover[..., None] * paint + left[..., None] * background)


def _paint(capture: Capture, subject: Subject, place: DrawnPlace, layer: Layer) -> Floats:
    """Linear colour (H, W, 3) of a layer: reflectance under front light, turning into side light at its edges."""
    worn = subject.wardrobe[0].reflectance if subject.wardrobe else (0.16, 0.16, 0.18)
    skin = set(BARE) - set(THINGS)
    ink = np.array(subject.skin if layer.name in skin else THINGS.get(layer.name, worn))
    front = capture.light["face" if layer.name in skin else "chest"]
    if layer.name in ("legs", "chair"):
        front = capture.light["legs"]
    low, high = ("right cheek", "left cheek") if layer.name in ("head", "neck") else ("right arm", "left arm")
    x0, y0, x1, y1 = bounds(layer.limbs)
    paint = np.zeros((*place.shape, 3))
    box = place.box(x0, y0, x1, y1, margin=80.0)
    if box is None:
        return paint
    x, y = place.shares(box)
    middle = 0.0 if layer.name in ("torso", "head", "neck", "legs", "feet", "chair") else (x0 + x1) / 2.0
    turn = np.clip((x - middle) / layer.half, -1.0, 1.0)[..., None]
    facing, aside = np.sqrt(1.0 - 0.92 * turn * turn), np.abs(turn) ** 1.5
    sides = np.where(turn < 0.0, capture.light[low], capture.light[high])
    paint[box] = ink * (facing * front + 0.75 * aside * sides)
    if layer.name == "head":
        paint[box] *= face_shade(x, y)[..., None]
    return paint


def _lay_prop(capture: Capture, place: DrawnPlace, prop: Prop, limb: Limb, colour: Floats, alpha: Floats) -> None:
    """A thing in the raised hand; what is seen through it stays background."""
    cover = _cover(place, (limb,), 0.0)
    box = place.box(*bounds((limb,)), margin=2.0)
    if box is None:
        return
    x, _ = place.shares(box)
    turn = np.clip((x - limb.ax) / limb.ar, -1.0, 1.0)
    screen = capture.screen.mean(axis=(0, 1))
    look = prop_look(prop.kind, np.array(prop.reflectance), turn, capture.light["chest"], screen)
    whole, paint = np.zeros(place.shape), np.zeros((*place.shape, 3))
    whole[box], paint[box] = cover[box] * look.alpha, look.colour
    _over(colour, alpha, whole, paint)


def _lay_hair(
    capture: Capture, subject: Subject, place: DrawnPlace, colour: Floats, alpha: Floats, hair: Floats
) -> None:
    """The cap of hair and its loose strands."""
    if subject.hair_kind == "none":
        return
    ink = np.array(subject.hair) * (0.6 * capture.light["shoulders"] + 0.5 * capture.light["face"])
    cap, loose = _hair(place, subject.hair_kind, subject.height, capture.seed)
    np.maximum(hair, np.where((cap < 0.5) & (loose > 0.01), 1.0, 0.0), out=hair)
    _over(colour, alpha, cap + (1.0 - cap) * loose, np.broadcast_to(ink, (*place.shape, 3)))


@lru_cache(maxsize=12)
def _hair(place: DrawnPlace, kind: str, height: float, seed: int) -> tuple[Floats32, Floats32]:
    """Coverage (H, W) of the cap and of the strands; a strand thinner than a pixel covers 1 - exp(-density)."""
    cap = np.zeros(place.shape, dtype=np.float32)
    box = place.box(*bounds((HAIR_CAP,)), margin=2.0)
    if box is not None:
        x, y = place.shares(box)
        cap[box] = np.clip(0.5 - distance((HAIR_CAP,), x, y) * place.px_per_height, 0.0, 1.0)
    found = strands(kind, seed)
    points = found.points
    lengths = np.linalg.norm(np.diff(points, axis=1), axis=2).sum(axis=1) * place.px_per_height
    steps = int(np.clip(1.5 * lengths.max(initial=0.0), 14, 260))
    t = np.linspace(0.0, points.shape[1] - 1.0, steps)
    i = np.minimum(t.astype(int), points.shape[1] - 2)
    f = (t - i)[None, :, None]
    dense = points[:, i] * (1.0 - f) + points[:, i + 1] * f
    at = dense.reshape(-1, 2) @ place.matrix.T + place.foot - 0.5
    each = np.repeat(found.width / height * place.px_per_height * lengths / steps, steps)
    return cap, np.asarray(1.0 - np.exp(-_splat(at, each, place.shape)), dtype=np.float32)


def _splat(at: Floats, weights: Floats, shape: tuple[int, int]) -> Floats:
    """Weights (K,) at places (K, 2) in px shared among the four nearest pixels (H, W)."""
    rows, columns = shape
    inside = (at[:, 0] > -1) & (at[:, 1] > -1) & (at[:, 0] < columns) & (at[:, 1] < rows)
    at, weights = at[inside] + 1.0, weights[inside]
    base = at.astype(int)
    rest = at - base
    wide = columns + 3
    total = np.zeros((rows + 3) * wide)
    for dx in (0, 1):
        for dy in (0, 1):
            share = (rest[:, 0] if dx else 1.0 - rest[:, 0]) * (rest[:, 1] if dy else 1.0 - rest[:, 1])
            place = (base[:, 1] + dy) * wide + base[:, 0] + dx
            total += np.bincount(place, weights=share * weights, minlength=len(total))
    return np.asarray(total.reshape(rows + 3, wide)[1 : rows + 1, 1 : columns + 1])
