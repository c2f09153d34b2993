"""The frame before noise and recording, in linear light, and its true matte: clean layers laid over each other.

What is drawn is kept as foreground (premultiplied), alpha and background, so that their composite is the frame.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from functools import partial
from itertools import chain, islice

import cv2
import numpy as np

from ..camera.view import focus_distance
from ..figure.held_props import shown_props
from ..geometry.channels import in_colour, moved, threefold
from ..geometry.vectors import Floats32, Ints
from ..plan import Subject
from .background import background_of
from .capture import Capture
from .defocus import out_of_focus
from .drawn_place import DrawnPlace, place_of
from .figure_picture import BodyLayer, body_layer
from .glass import before_figure, lamps_in_glass
from .lamp_picture import lay_lamps
from .loose_hair import loose_hair
from .pixel_window import PixelWindow
from .prop_picture import prop_layer
from .strand_light import strand_light

GLARE = 0.006
LEAST_DISC = 1.0
"""Px of the picture: a smaller disc is not seen."""
WHOLE = slice(None), slice(None)
Behind = Callable[[], tuple[Floats32, Floats32]]
Layers = tuple[BodyLayer | None, BodyLayer | None]
"""Of a body: what of it stands still, and what moves."""


@dataclass(frozen=True, eq=False)
class Drawn:
    """Linear light: foreground (H, W, 3) premultiplied, alpha (H, W), background (H, W, 3).

    Masks (H, W): `hair` and `hand` where those are, `screen` where the background is screen-coloured, things that are
    keyed away on purpose (`away`) with it, `held` what is held out, `others` who is not the one looked at (see
    `PixelWindow`), `glass` within the outline of what one looks through. `cm2`: area of a drawn pixel where that one
    stands.
    """

    foreground: Floats32
    alpha: Floats32
    background: Floats32
    hair: Floats32
    hand: Floats32
    screen: Floats32
    held: Floats32
    away: Floats32
    others: Floats32
    glass: Floats32
    cm2: float

    @property
    def frame(self) -> Floats32:
        found = threefold(1.0 - self.alpha) * self.background
        found += self.foreground
        return found


def draw(capture: Capture, window: PixelWindow, again: bool = False, behind: Behind | None = None) -> Drawn:
    """`again`: the same people will be drawn in this window with other light; what each pixel makes of the light on
    them is worked out and kept. The picture is the same but for rounding. `behind`: gives what `background_of` does,
    where somebody knows that or wants to; it is asked beside the drawing of bodies."""
    bodies = _bodies(capture, window, again)
    with ThreadPoolExecutor(1) as beside:
        ahead = beside.submit(behind or partial(background_of, capture, window))
        farthest = list(islice(bodies, 1))
        background, on_screen = ahead.result()
    shape = (window.height, window.width)
    colour = np.zeros((*shape, 3), dtype=np.float32)
    alpha, held, away, others, glass, hair, hand = (np.zeros(shape, dtype=np.float32) for _ in range(7))
    picture, cm2 = _Picture(colour, alpha, background, on_screen, held, away, others, glass), 1.0
    looked_at = capture.of(window.person)
    for one, subject, layers in chain(farthest, bodies):
        picture.of_others = one is not looked_at
        strands, moving, cover = _lay_person(one, subject, window, picture, layers)
        if one is not looked_at:
            # Who stands before them hides their hair and hand.
            hair, hand = (1.0 - cover) * hair, (1.0 - cover) * hand
        else:
            hair, hand = strands, moving
            cm2 = (100.0 * subject.height / place_of(capture, subject, window).px_per_height) ** 2
    lay_lamps(capture, window, picture.colour, picture.alpha)
    return _finished(capture, window, picture, hair, hand, cm2)


def _bodies(capture: Capture, window: PixelWindow, again: bool) -> Iterator[tuple[Capture, Subject, Layers]]:
    """Everybody before the lens with their body, as it is looked for: still and moving, the farthest first."""
    for one in sorted((capture, *capture.others), key=_from_lens, reverse=True):
        subject = one.plan.subject
        if subject is not None and one.light and _before_the_lens(one, subject):
            parts = (body_layer(one, subject, window, moves, again) for moves in (False, True))
            still, moving = (_focused(part, one, window) for part in parts)
            yield one, subject, (still, moving)


def _from_lens(capture: Capture) -> float:
    return focus_distance(capture.plan.camera, capture.plan.subject)


def _lay_person(
    capture: Capture, subject: Subject, window: PixelWindow, picture: _Picture, layers: Layers
) -> tuple[Floats32, Floats32, Floats32]:
    """Where (H, W) a person's loose hair and moving hand are, and how much of each pixel the body covers."""
    place = place_of(capture, subject, window)
    hair, hand, cover = (np.zeros(place.shape, dtype=np.float32) for _ in range(3))
    if subject.framing != "hands":
        hair = _lay_hair(capture, subject, window, picture, layers[0])
    # Under the body, whose fingers close round them.
    _lay_props(capture, subject, place, picture, worn=False)
    for layer in layers:
        if layer is not None:
            picture.lay(layer)
            cover = np.maximum(cover, layer.cover)
    _lay_props(capture, subject, place, picture, worn=True)
    if layers[1] is not None:
        hand = _kept_of(layers[1])
    return hair, hand, cover


def _focused(layer: BodyLayer | None, capture: Capture, window: PixelWindow) -> BodyLayer | None:
    """Light and cover of a body alike, so that its matte stays true."""
    disc = capture.unsharp_px / window.scale
    if layer is None or disc <= LEAST_DISC:
        return layer
    cloth = (None if one is None else out_of_focus(one, disc) for one in (layer.away, layer.held))
    return BodyLayer(out_of_focus(layer.colour, disc), out_of_focus(layer.cover, disc), *cloth)


def _kept_of(layer: BodyLayer) -> Floats32:
    """How much (H, W) of a layer stays in the foreground."""
    return layer.cover if layer.away is None else np.asarray(layer.cover - layer.away)


def _finished(
    capture: Capture, window: PixelWindow, picture: _Picture, hair: Floats32, hand: Floats32, cm2: float
) -> Drawn:
    """With what a pane mirrors, and the lens's veil over all of it."""
    colour, alpha, background = picture.colour, picture.alpha, picture.background
    mirrored = lamps_in_glass(capture, window)
    if mirrored is not None:
        background = background + mirrored
        if before_figure(capture):
            colour = colour + threefold(alpha) * mirrored
    through = (1.0 - alpha).ravel() @ background.reshape(-1, 3)
    veil = GLARE / alpha.size * (np.array(cv2.sumElems(colour)[:3]) + through)
    # The same veil on both layers keeps the composite exact.
    background = moved(background, 1.0 - GLARE, veil)
    colour *= np.float32(1.0 - GLARE)
    colour += in_colour(alpha, veil)
    seen, moving = _kept(hair), _kept(hand)
    screen, held, away = _kept(picture.on_screen), _kept(picture.held), _kept(picture.away)
    others, glass = _kept(picture.others), _kept(picture.glass)
    return Drawn(colour, alpha, background, seen, moving, screen, held, away, others, glass, cm2)


def _kept(mask: Floats32) -> Floats32:
    """A mask (H, W) as it is kept: pictures are by the dozen, and an empty one takes no room."""
    return mask if mask.any() else np.broadcast_to(np.float32(0.0), mask.shape)


@dataclass
class _Picture:
    """A foreground (H, W, 3), premultiplied, with its alpha (H, W) over a background (H, W, 3); `on_screen`,
    `held`, `away`, `others` and `glass` as in `Drawn`; `of_others`: what is laid next is theirs."""

    colour: Floats32
    alpha: Floats32
    background: Floats32
    on_screen: Floats32
    held: Floats32
    away: Floats32
    others: Floats32
    glass: Floats32
    of_others: bool = False

    def over(self, colour: Floats32, cover: Floats32, box: tuple[slice, slice] = WHOLE) -> None:
        """Lay a premultiplied layer over what is there in a box."""
        rows, columns = np.flatnonzero(cover.any(axis=1)), np.flatnonzero(cover.any(axis=0))
        if not len(rows):
            return
        part = slice(rows[0], rows[-1] + 1), slice(columns[0], columns[-1] + 1)
        colour, cover = colour[part], cover[part]
        left = 1.0 - cover
        for layer, own in (
            (self.colour, colour),
            (self.alpha, cover),
            (self.held, None),
            (self.away, None),
            (self.others, self.of_others * cover),
            (self.glass, None),
        ):
            there = layer[box][part]
            there *= threefold(left) if there.ndim == 3 else left
            if own is not None:
                there += own

    def lay(self, layer: BodyLayer) -> None:
        if layer.away is None:
            self.over(layer.colour, layer.cover)
        else:
            self._lay_with_hole(layer, layer.away)
        if layer.held is not None:
            self.held = np.maximum(self.held, layer.held)

    def _lay_with_hole(self, layer: BodyLayer, away: Floats32) -> None:
        """Cloth that has the screen's colour on purpose hides what was drawn and becomes background itself."""
        whole = layer.cover
        kept = whole - away
        share = threefold(np.divide(away, whole, out=np.zeros_like(away), where=whole > 0.0))
        behind = (1.0 - whole) * (1.0 - self.alpha)
        gone = np.maximum(away + behind, 1e-9)
        ink = share * layer.colour + threefold(behind) * self.background
        shown = np.where((away > 0.0)[..., None], ink / threefold(gone), self.background)
        self.on_screen = np.where(away > 0.0, (away + behind * self.on_screen) / gone, self.on_screen)
        self.background = shown
        self.colour = (1.0 - share) * layer.colour + threefold(1.0 - whole) * self.colour
        self.alpha = kept + (1.0 - whole) * self.alpha
        self.held, self.away = (1.0 - whole) * self.held, away + (1.0 - whole) * self.away
        self.others = self.of_others * whole + (1.0 - whole) * self.others
        self.glass = (1.0 - whole) * self.glass


def _before_the_lens(capture: Capture, subject: Subject) -> bool:
    ends = np.array([[subject.x, 0.0, subject.z], [subject.x, subject.top, subject.z]])
    return bool(np.all(capture.view.project(ends)[1] > 0.1))


def _lay_props(capture: Capture, subject: Subject, place: DrawnPlace, picture: _Picture, worn: bool) -> None:
    # A second thing stands in the first, or behind it in the grip.
    for one in reversed(shown_props(subject)):
        layer = prop_layer(capture, subject, place, one) if one.worn == worn else None
        if layer is not None:
            picture.over(layer.colour, layer.cover)
            picture.glass = np.maximum(picture.glass, layer.inside)


def _lay_hair(
    capture: Capture, subject: Subject, window: PixelWindow, picture: _Picture, body: BodyLayer | None
) -> Floats32:
    """Loose strands, behind the body; where they are seen (H, W)."""
    place = place_of(capture, subject, window)
    seen = np.zeros(place.shape, dtype=np.float32)
    if subject.hair_kind == "none":
        return seen
    strands = loose_hair(subject, place, capture.seed)
    rows, columns = (np.flatnonzero(strands.any(axis=axis)) for axis in (1, 0))
    if not len(rows):
        return seen
    disc = capture.unsharp_px / window.scale
    more = math.ceil(2.0 * disc)
    box = _with_margin(rows, more, strands.shape[0]), _with_margin(columns, more, strands.shape[1])
    loose = out_of_focus(strands[box], disc)
    ink = np.array(subject.hair, dtype=np.float32) * strand_light(capture, subject, place, box)
    picture.over(threefold(loose) * ink, loose, box)
    seen[box] = (loose if body is None else (1.0 - body.cover[box]) * loose) > 0.01
    return seen


def _with_margin(places: Ints, more: int, size: int) -> slice:
    """From the first to the last of them, and some more on either side as far as there is."""
    return slice(max(0, int(places[0]) - more), min(size, int(places[-1]) + 1 + more))
