"""How far a moving hand covers what is behind it: its outline from straight ahead, smeared as the picture is."""

from __future__ import annotations

import math
from collections.abc import Hashable, Sequence
from dataclasses import dataclass

import cv2
import numpy as np

from ..camera.smear import SMEAR_WAY, spread
from ..camera.view import View
from ..figure.held_props import hand_at
from ..figure.on_mark import on_mark
from ..figure.outline import piece_outlines
from ..geometry.vectors import Floats, Floats32
from ..plan import Plan, Subject
from ..remembered.shelf import Shelf
from .before_screen import screen_behind
from .crop import crop_corner, crop_size

COVERS = np.append((np.arange(32) + 0.5) / 32.0, 1.0)
"""Covers that places are counted by; the last is that of solid ones."""
SOLID, CLEAR = 0.999, 0.001
CELL = 0.002
"""Side of a cell in shares of stature: a finger is some five wide."""
ACROSS, UP = (-0.1, 0.6), (0.25, 1.1)
"""Where the moving arm is, in shares of stature."""
SHORTEST, LONGEST = 5.0, 80.0
"""Cells of a smear that cells can show; of a shorter one as much less melts."""
BESIDE = 0.05
"""How far aside and up, in shares of stature, it is asked how large a pixel is and which way it lies."""
STILL = ("legs", "shoes", "hair", "coat", "head", "hand")
FINE = 4
"""Bits of a cell that outlines are drawn to."""


@dataclass(frozen=True, eq=False)
class SmearedHand:
    """Of hand and sleeve: cm2 (K,) of the mark's plane at each of COVERS, and cm of outline."""

    hand: Floats
    sleeve: Floats
    hand_edge: float
    sleeve_edge: float


@dataclass(frozen=True, eq=False)
class _Arm:
    """Masks (H, W) of moving hand and sleeve, how steep each is, and where the still body is not; `left` and `top` of
    them in shares of stature; `key`: what they are remembered by."""

    key: Hashable
    hand: Floats32
    sleeve: Floats32
    hand_slope: Floats32
    sleeve_slope: Floats32
    alone: Floats32
    left: float
    top: float


_KEPT: Shelf[SmearedHand] = Shelf(64)


def smeared_hand(plan: Plan, subject: Subject, view: View, smear_px: float) -> SmearedHand:
    """In the crop that a test key has round it, however the camera is turned, and before the screen."""
    sensor, arm, mark = plan.camera.sensor, _arm(subject), on_mark(subject, plan.camera)
    hand = np.array([*hand_at(subject), 0.0])
    beside = np.array([[0.0, 0.0, 0.0], [BESIDE, 0.0, 0.0], [0.0, BESIDE, 0.0]])
    frame, _ = view.project(mark.at(hand + beside))
    px = frame * (sensor.px_w, sensor.px_h)
    # From px of the sensor to shares of stature on the mark's plane.
    shares = np.linalg.pinv((px[1:] - px[0]).T / BESIDE)
    corner = np.array(crop_corner(px[0], sensor))
    ends = corner + np.array(crop_size(sensor)) * np.array([[0, 0], [1, 0], [1, 1], [0, 1]])
    at = hand[:2] + (ends - px[0]) @ shares.T
    x, y, z = mark.at(hand).tolist()
    low, high = (screen_behind(plan, view, (x, y, z)) - mark.foot[:2]) / mark.height
    (left, bottom), (right, top) = np.maximum(at.min(axis=0), low), np.minimum(at.max(axis=0), high)
    columns = _cells(left - arm.left, right - arm.left, arm.alone.shape[1])
    rows = _cells(arm.top - top, arm.top - bottom, arm.alone.shape[0])
    x, y = smear_px * (shares @ SMEAR_WAY) / CELL
    smear = round(min(math.hypot(x, y), LONGEST), 2)
    turn = round(math.atan2(-y, x), 2)
    key = (arm.key, rows.start, rows.stop, columns.start, columns.stop, smear, turn)
    return _KEPT.get(key, lambda: _seen(arm, (rows, columns), smear, turn, 100.0 * subject.height * CELL))


def _cells(begin: float, end: float, count: int) -> slice:
    first, last = (round(min(max(at / CELL, 0.0), count)) for at in (begin, end))
    return slice(first, max(first, last))


def _seen(arm: _Arm, crop: tuple[slice, slice], smear: float, turn: float, side: float) -> SmearedHand:
    """`smear` in cells, `turn` of its way in radians, down the rows; `side` of a cell in cm."""
    way = math.cos(turn), math.sin(turn)
    hand, sleeve = (spread(mask, max(smear, SHORTEST), way)[crop] for mask in (arm.hand, arm.sleeve))
    alone, cover = arm.alone[crop], hand + sleeve
    seen = cover > CLEAR
    cover, hand, alone_there = cover[seen], hand[seen], alone[seen]
    at = np.where(cover > SOLID, len(COVERS) - 1, np.minimum((32.0 * cover).astype(int), 31))
    shown = min(1.0, smear / SHORTEST)

    def areas(part: Floats32) -> Floats:
        counted = np.bincount(at, weights=alone_there * part / cover, minlength=len(COVERS))
        melting = shown * counted[:-1]
        # What does not melt is solid: as much is covered in sum. So is what passes before the body.
        before = float(((1.0 - alone_there) * part).sum())
        solid = before + counted[-1] + (1.0 - shown) * float(counted[:-1] @ COVERS[:-1])
        return np.asarray(side * side * np.append(melting, solid))

    edges = (side * float((slope[crop] * alone).sum()) for slope in (arm.hand_slope, arm.sleeve_slope))
    return SmearedHand(areas(hand), areas(cover - hand), *edges)


def _slope(mask: Floats32) -> Floats32:
    """How steep (H, W) a mask is, softened by a cell; its sum is the length of the outline in cells."""
    soft = cv2.GaussianBlur(mask, (0, 0), 1.0)
    across, up = (cv2.Sobel(soft, -1, *way, ksize=3) / 8.0 for way in ((1, 0), (0, 1)))
    return np.asarray(np.hypot(across, up))


def _arm(subject: Subject) -> _Arm:
    held = any(prop.held for prop in subject.props)
    key = (subject.body, subject.posture, subject.height, subject.framing == "hands", held, subject.hair_kind)
    return _ARMS.get(key, lambda: _drawn(subject, key))


_ARMS: Shelf[_Arm] = Shelf(8)


def _drawn(subject: Subject, key: Hashable) -> _Arm:
    hand, sleeve, still = (_mask(subject, names) for names in (("moving hand",), ("moving sleeve",), STILL))
    sleeve = sleeve * (1.0 - hand)
    more = round(0.5 * LONGEST) + 2
    rows, columns = (np.flatnonzero((hand + sleeve).any(axis=axis)) for axis in (1, 0))
    down, across = (slice(max(0, int(of[0]) - more), int(of[-1]) + more) for of in (rows, columns))
    return _Arm(
        key=key,
        hand=hand[down, across],
        sleeve=sleeve[down, across],
        hand_slope=_slope(hand)[down, across],
        sleeve_slope=_slope(sleeve)[down, across],
        alone=1.0 - still[down, across],
        left=ACROSS[0] + CELL * across.start,
        top=UP[1] - CELL * down.start,
    )


def _mask(subject: Subject, names: Sequence[str]) -> Floats32:
    """1 where (H, W) there is anything of these pieces of the body."""
    high, wide = (round((end - begin) / CELL) for begin, end in (UP, ACROSS))
    found = np.zeros((high, wide), dtype=np.uint8)
    for outline in piece_outlines(subject, names):
        cells = (outline - (ACROSS[0], UP[1])) * (1.0, -1.0) / CELL - 0.5
        cv2.fillPoly(found, [np.round(2**FINE * cells).astype(np.int32)], 1, shift=FINE)
    return found.astype(np.float32)
