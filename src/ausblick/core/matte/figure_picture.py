"""The figure as the camera sees it: its body, lit and painted, as layers that are laid over what is behind."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator
from dataclasses import dataclass, replace
from functools import partial

import numpy as np

from ..camera.smear import smeared
from ..camera.view import View
from ..figure.body_ink import ink_of, worn_on
from ..figure.solid_body import PARTS, solid_body
from ..geometry.channels import threefold
from ..geometry.vectors import Floats32
from ..plan import Plan, Subject, people_of
from ..remembered.shelf import Shelf
from .capture import Capture
from .drawn_place import place_seen
from .loose_hair import loose_hair
from .pixel_window import PixelWindow
from .places_in_pixels import PlacesInPixels, places_in_pixels
from .traced import Traced, traced

BEYOND = 32
"""Px of the picture round a window in which what moves is drawn: half the way of a fast hand in a crop."""
WITHIN = slice(BEYOND, -BEYOND)
GRAIN = 0.03
"""Unrest of cloth and skin from sample to sample, as a share (ours)."""


@dataclass(frozen=True, eq=False)
class BodyLayer:
    """Premultiplied linear light (H, W, 3) and cover (H, W) of a part of the figure, and how much of the pixel cloth
    covers that is to be keyed away, and that is held out (H, W); None where nothing of it is."""

    colour: Floats32
    cover: Floats32
    away: Floats32 | None
    held: Floats32 | None


def body_layer(
    capture: Capture, subject: Subject, window: PixelWindow, moving: bool, again: bool
) -> BodyLayer | None:
    """The part that moves, smeared by its movement, or the rest; None where it is not in the window. `again`: as
    `render.draw` says."""
    if capture.body is None:
        return None
    drawn = _drawn_in(window, moving)
    found = traced(capture.body.body, moving, capture.view, capture.plan.camera.sensor, drawn)
    if found is None:
        return None
    inked = _inked(capture.seed, subject, capture.body.body.shape.own, found)
    look = _look(capture.seed, subject, found)
    shown = threefold(found.cover) * _seen(look if again else None, inked, found, capture.body.both)
    smear = round(capture.smear_px / window.scale, 3)

    def laid(part: Floats32) -> Floats32:
        placed = _placed(part, found.box, drawn)
        return smeared(placed, smear, found.box)[WITHIN, WITHIN].copy() if moving else placed

    colour, cover = laid(np.maximum(shown, np.float32(0.0))), np.minimum(laid(found.cover), np.float32(1.0))
    shares = (inked.away, inked.held)
    cloth = [None if one is None else np.minimum(laid(one * found.cover), cover) for one in shares]
    return BodyLayer(colour, cover, *cloth)


def outlines(plan: Plan, view: View, window: PixelWindow, seed: int, again: bool) -> Iterator[Callable[[], object]]:
    """What does not hang on the light, to be worked out ahead piece by piece: what of everybody's body and loose hair
    is seen, and how they are painted; `again`: as `render.draw` says."""
    for subject in people_of(plan):
        for moving in (False, True):
            yield partial(_outlined, plan, view, window, seed, subject, moving, again)
        if subject.framing != "hands" and subject.hair_kind != "none":
            yield partial(loose_hair, subject, place_seen(plan.camera, view, subject, window), seed)


def _outlined(
    plan: Plan, view: View, window: PixelWindow, seed: int, subject: Subject, moving: bool, again: bool
) -> None:
    body = solid_body(subject, plan.camera)
    found = traced(body, moving, view, plan.camera.sensor, _drawn_in(window, moving))
    if found is None:
        return
    inked = _inked(seed, subject, body.shape.own, found)
    if again:
        _in_pixels(_look(seed, subject, found), inked, found, len(body.places))


def _drawn_in(window: PixelWindow, moving: bool) -> PixelWindow:
    """What moves is drawn beyond the window's borders too: while the shutter is open it comes in from there."""
    if not moving:
        return window
    aside, more = BEYOND * window.scale, 2 * BEYOND
    return replace(
        window, x=window.x - aside, y=window.y - aside, width=window.width + more, height=window.height + more
    )


def _placed(part: Floats32, box: tuple[slice, slice], window: PixelWindow) -> Floats32:
    """What a box of a window shows as a picture of all of it."""
    whole = np.zeros((window.height, window.width, *part.shape[2:]), dtype=np.float32)
    whole[box] = part
    return whole


@dataclass(frozen=True, eq=False)
class _Inked:
    """Of the samples of a window: what they reflect (N, 3), its unrest in it, and what they mirror (N,); how much of
    each pixel's share of the figure is cloth to be keyed away, and held out (h, w), or None."""

    reflectance: Floats32
    gloss: Floats32
    away: Floats32 | None
    held: Floats32 | None


_KEPT: Shelf[_Inked] = Shelf(8, 16 * 2**20, size=lambda made: made.reflectance.nbytes + made.gloss.nbytes)
_IN_PIXELS: Shelf[PlacesInPixels] = Shelf(4)


def _look(seed: int, subject: Subject, found: Traced) -> Hashable:
    """What decides how the samples of a window are painted."""
    return found.key, subject.skin, subject.hair, subject.hair_kind, subject.worn_above, subject.worn_below, seed


def _inked(seed: int, subject: Subject, own: Floats32, found: Traced) -> _Inked:
    def make() -> _Inked:
        ink = ink_of(subject, found.part, found.at(own))
        grain = 1.0 + GRAIN * np.random.default_rng(seed + 5).standard_normal(len(found.part), dtype=np.float32)
        cloth = (_cloth_that_is(keying, subject, found) for keying in ("away", "held-out"))
        return _Inked(ink.reflectance * grain[:, None], ink.gloss, *cloth)

    return _KEPT.get(_look(seed, subject, found), make)


def _cloth_that_is(keying: str, subject: Subject, found: Traced) -> Floats32 | None:
    """How much (h, w) of each pixel's share of the figure is cloth that the key is to treat so."""
    worn = worn_on(subject)
    such = {name for name, one in worn.items() if one is not None and one.keying == keying}
    if not such:
        return None
    there = np.array([name in such for name in PARTS], dtype=np.float32)[found.part]
    return np.asarray(np.clip(found.averaged(there[:, None])[..., 0], 0.0, 1.0))


def _in_pixels(look: Hashable, inked: _Inked, found: Traced, places: int) -> PlacesInPixels:
    return _IN_PIXELS.get(look, lambda: places_in_pixels(found, inked.reflectance, inked.gloss, places))


def _seen(look: Hashable | None, inked: _Inked, found: Traced, both: Floats32) -> Floats32:
    """Linear light (h, w, 3) of the body's part of each pixel, with light and gloss (V, 6) on its places; what pixels
    make of it is kept by `look`."""
    if look is not None:
        seen = _in_pixels(look, inked, found, len(both)).seen(both)
        return found.evened(seen.reshape(*found.cover.shape, 3))
    light = found.at(both)
    return found.averaged(inked.reflectance * light[:, :3] + inked.gloss[:, None] * light[:, 3:])
