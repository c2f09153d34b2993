"""The outline that throws everything else away and never touches the action: of all frames together, with a rim."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import cv2
import numpy as np

from ..frames.contact import contact_of
from ..frames.find_screen import find_screen
from ..frames.whole_masks import filled
from ..geometry.vectors import Bools, Floats32
from .outlines_of_masks import FramePolygon, polygons_of

RIM = 0.03
"""Of the frame's width, round whatever moved."""


@dataclass(frozen=True)
class Action:
    """Masks (h, w) of the reduced frame: where anything stood before the screen in any frame, and what the screen
    spanned in any; `frames` that showed a screen."""

    figure: Bools
    screen: Bools
    frames: int


@dataclass(frozen=True)
class ActionOutline:
    """`polygons`: closed, in parts of the frame, y down; `mask` (h, w) the same; `cut_percent`: of the action and its
    rim, what lies outside of the screen and is cut off."""

    polygons: tuple[FramePolygon, ...]
    mask: Bools
    cut_percent: float
    frames: int


def action_of(pictures: Iterable[Floats32], wanted: str = "other") -> Action | None:
    """All frames of a clip, or a still alone: signal (h, w, 3), reduced, of one size. None without a screen."""
    figure = screen = None
    count = 0
    for picture in pictures:
        found = find_screen(picture, wanted=wanted)
        if found is None:
            continue
        own = contact_of(found).figure
        spanned = found.mask | own
        figure = own if figure is None else figure | own
        screen = spanned if screen is None else screen | spanned
        count += 1
    return None if figure is None or screen is None else Action(figure, screen, count)


def outline_of(action: Action) -> ActionOutline:
    """The action with its rim, clipped to the screen."""
    width = action.figure.shape[1]
    reach = max(1, round(RIM * width))
    round_brush = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * reach + 1, 2 * reach + 1))
    wide = cv2.dilate(action.figure.astype(np.uint8), round_brush).astype(bool)
    # What the figure hides of the screen is screen too: it is spanned in some frame, or between its parts.
    screen = filled(action.screen)
    mask = wide & screen
    cut = float((wide & ~screen).sum()) / max(1, int(wide.sum()))
    return ActionOutline(polygons_of(mask), mask, 100.0 * cut, action.frames)
