"""What else in a frame may be a screen: a question with the places to point at."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import cv2
import numpy as np

from ..geometry.vectors import Bools
from ..standards.quantities import Percent
from .find_screen import Sought

LEAST, OF_FOUND, MOST = 0.03, 0.2, 4
"""Of the frame at least, of the screen that is found at least, and so many at the most."""
SMOOTH = 0.006
"""Corners of an outline lie no further from it than this, of the frame's width."""


@dataclass(frozen=True)
class Candidate:
    """A place that may be a screen: `hue` is the key channel that it would be keyed by; `corners`: its outline in
    parts of the frame, to be read inside of."""

    hue: Literal["green", "blue"]
    area_percent: Percent
    corners: tuple[tuple[float, float], ...]


def candidates_of(sought: Sought, apart: Sequence[Bools] = ()) -> tuple[Candidate, ...]:
    """The largest first; none where one screen is found and nothing comes near it. `apart`: what has the colour of
    the screen that is found and stands apart from it, in a mirror perhaps."""
    least = LEAST if sought.found is None else max(LEAST, OF_FOUND * float(sought.found.mask.mean()))
    found = [one for channel, mask in sought.maybe for one in _parts(channel, mask, least)]
    if sought.found is not None:
        found += [_candidate(sought.found.channel, part) for part in apart]
    return tuple(sorted(found, key=lambda one: -one.area_percent)[:MOST])


def _parts(channel: int, mask: Bools, least: float) -> list[Candidate]:
    count, labels, stats, _ = cv2.connectedComponentsWithStats(mask.astype(np.uint8), connectivity=8)
    large = [i for i in range(1, count) if stats[i, cv2.CC_STAT_AREA] > least * mask.size]
    return [_candidate(channel, np.asarray(labels == i)) for i in large]


def _candidate(channel: int, part: Bools) -> Candidate:
    return Candidate("green" if channel == 1 else "blue", 100.0 * float(part.mean()), _outline(part))


def _outline(part: Bools) -> tuple[tuple[float, float], ...]:
    height, width = part.shape
    outlines, _ = cv2.findContours(part.astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_SIMPLE)
    largest = cv2.approxPolyDP(max(outlines, key=cv2.contourArea), SMOOTH * width, True)[:, 0]
    return tuple((round(float(x) / (width - 1), 4), round(float(y) / (height - 1), 4)) for x, y in largest)
