"""Lamps that the camera sees, and which of them cut into the action."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from ..camera.coverage import Coverage, behind_window_wall
from ..camera.view import NEAREST, View
from ..figure.behind_body import BodyInFrame, behind_bodies, bodies_in_frame
from ..geometry.vectors import Bools, Floats
from ..light.basis import BasisStore
from ..light.keys import framing_key, lamp_keys
from ..light.lamp_bodies import head_corners, head_in_picture, pole_places, round_the_lens
from ..plan import Light, Plan

CORNER = 0.005
"""Of the action's picture: a lamp's corner that takes no more goes with the next nudge of the camera."""


@dataclass(frozen=True)
class FramedLamp:
    """A lamp in the picture, by its place among the plan's; does it cut into the action, and by its stand only? Or is
    it `hidden`, all of it behind somebody's body?"""

    index: int
    cuts: bool
    by_stand: bool
    hidden: bool = False


def lamps_in_picture(plan: Plan, view: View, coverage: Coverage, store: BasisStore) -> tuple[FramedLamp, ...]:
    """Lamps that stand in the picture, whatever they give."""
    framing = framing_key(plan)

    def seen() -> tuple[FramedLamp, ...]:
        bodies = store.record(("bodies in frame", framing), lambda: bodies_in_frame(plan, view))
        return tuple(_seen(plan, view, coverage.frame_outline, bodies))

    return store.record(("lamps in picture", framing, lamp_keys(plan)), seen)


def _seen(plan: Plan, view: View, outline: Floats, bodies: Sequence[BodyInFrame]) -> Iterator[FramedLamp]:
    lamps = [(i, lamp) for i, lamp in enumerate(plan.lights) if not (lamp.is_daylight or round_the_lens(plan, lamp))]
    if not lamps:
        return
    heads = np.array([lamp.position for _, lamp in lamps])
    poles = [pole_places(plan, lamp) for _, lamp in lamps]
    frame, depth = view.project(heads)
    behind, covered = behind_window_wall(plan, heads), behind_bodies(bodies, frame, depth)
    seen = np.all((frame > 0.0) & (frame < 1.0), axis=1) & (depth > NEAREST) & ~behind
    cutting = _in_action(plan, view, outline, np.concatenate([heads, *poles]))
    head, *pole = np.split(cutting, np.cumsum([len(heads), *map(len, poles)])[:-1])
    for k, (i, lamp) in enumerate(lamps):
        by_head = bool(head[k]) or (not behind[k] and _covers_action(plan, lamp, view, outline))
        cuts = by_head or bool(pole[k].any())
        if (seen[k] or cuts) and covered[k] and _hidden(plan, view, lamp, poles[k], bodies):
            yield FramedLamp(i, False, False, hidden=True)
        elif seen[k] or cuts:
            yield FramedLamp(i, cuts, cuts and not by_head)


def _hidden(plan: Plan, view: View, lamp: Light, pole: Floats, bodies: Sequence[BodyInFrame]) -> bool:
    """Is all of its head and stand that the frame shows behind a body?"""
    frame, depth = view.project(np.concatenate([head_corners(plan, lamp), pole]))
    shown = np.all((frame > 0.0) & (frame < 1.0), axis=1)
    return bool(behind_bodies(bodies, frame[shown], depth[shown]).all())


def _covers_action(plan: Plan, lamp: Light, view: View, outline: Floats) -> bool:
    """Does a lamp's head, near the lens perhaps all that is seen, lie over the action, though its middle does not?"""
    if len(outline) < 3:
        return False
    return head_in_picture(plan, lamp, view, outline.min(axis=0), outline.max(axis=0)) > CORNER


def _in_action(plan: Plan, view: View, outline: Floats, places: Floats) -> Bools:
    """Which of these places (N, 3) are in the picture where the action goes?"""
    if len(outline) < 3 or not len(places):
        return np.zeros(len(places), dtype=bool)
    frame, depth = view.project(places)
    inside = (frame > outline.min(axis=0)) & (frame < outline.max(axis=0))
    return np.asarray(inside.all(axis=1) & (depth > NEAREST) & ~behind_window_wall(plan, places))
