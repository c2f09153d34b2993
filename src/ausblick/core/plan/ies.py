"""Photometry files of the LM-63 family: the intensity of a lamp by direction.

Read: ANSI/IES LM-63 of 1986, 1991, 1995 and 2002, photometry of type C, TILT=NONE and TILT=INCLUDE.
Vertical angle 0 is the lamp's axis; horizontal angle 0 lies along the height of its face, 90 along
its width, as the standard lays the luminous opening.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ..geometry.vectors import Floats

MOST_ANGLES = 1000
MOST_VALUES = 100_000
OLD = ("IESNA86", "IESNA91")
"""Formats in which the second factor after the ballast's is used; later it is kept for the future."""


class IesError(ValueError):
    """A photometry text that can't be read; the message says what is wrong and where."""


@dataclass(frozen=True, eq=False)
class Photometry:
    """candela (H, V) at horizontal and vertical angles in degrees, all multipliers applied.

    `tilt`: (angles, factors) of light against the tilt of the lamp from hanging straight down.
    """

    vertical: Floats
    horizontal: Floats
    candela: Floats
    tilt: tuple[Floats, Floats] | None
    watts: float

    def intensity(self, vertical: Floats, horizontal: Floats) -> Floats:
        """Candela at angles in degrees, bilinear between those of the file; 0 where it gives none."""
        v = np.asarray(vertical, dtype=float)
        inside = (v >= self.vertical[0] - 1e-9) & (v <= self.vertical[-1] + 1e-9)
        h = self._folded(np.asarray(horizontal, dtype=float))
        i, s = _between(self.horizontal, h)
        j, t = _between(self.vertical, v)
        k, m = np.minimum(i + 1, len(self.horizontal) - 1), np.minimum(j + 1, len(self.vertical) - 1)
        c = self.candela
        low, high = c[i, j] * (1 - t) + c[i, m] * t, c[k, j] * (1 - t) + c[k, m] * t
        return np.where(inside, low * (1 - s) + high * s, 0.0)

    def _folded(self, h: Floats) -> Floats:
        """Any horizontal angle brought into those of the file by its symmetry."""
        first, last = self.horizontal[0], self.horizontal[-1]
        turn = np.mod(h, 360.0)
        if last == first:
            return np.full_like(turn, first)
        if first == 90.0:
            turn = np.mod(turn - 90.0, 360.0)
            return 90.0 + np.where(turn > 180.0, 360.0 - turn, turn)
        if last == 90.0:
            half = np.where(turn > 180.0, 360.0 - turn, turn)
            return np.where(half > 90.0, 180.0 - half, half)
        if last == 180.0:
            return np.where(turn > 180.0, 360.0 - turn, turn)
        return turn

    @property
    def flux(self) -> float:
        """Lumens: the integral of the intensity over all directions, in half-degree zones."""
        edges = np.arange(0.0, 180.01, 0.5)
        around = np.arange(0.0, 360.0, 2.5) + 1.25
        v, h = np.meshgrid((edges[1:] + edges[:-1]) / 2.0, around, indexing="ij")
        zones = 2.0 * np.pi * -np.diff(np.cos(np.radians(edges)))
        return float(self.intensity(v, h).mean(axis=1) @ zones)

    def tilt_factor(self, degrees: float) -> float:
        """Factor for the angle between the lamp's axis and straight down."""
        return 1.0 if self.tilt is None else float(np.interp(degrees, *self.tilt))


def _between(angles: Floats, at: Floats) -> tuple[np.ndarray[tuple[int, ...], np.dtype[np.int64]], Floats]:
    if len(angles) == 1:
        return np.zeros(at.shape, dtype=np.int64), np.zeros(at.shape)
    i = np.clip(np.searchsorted(angles, at, side="right") - 1, 0, len(angles) - 2)
    return i, np.clip((at - angles[i]) / (angles[i + 1] - angles[i]), 0.0, 1.0)


class _Numbers:
    """The numbers after TILT, taken one after the other, whatever the line breaks."""

    def __init__(self, text: str) -> None:
        self.words = re.split(r"[\s,]+", text.strip()) if text.strip() else []
        self.at = 0

    def take(self, count: int, what: str) -> Floats:
        words = self.words[self.at : self.at + count]
        if len(words) < count:
            raise IesError(f"ends before {what}: {count} numbers are needed, {len(words)} are left")
        self.at += count
        try:
            numbers = np.array([float(word) for word in words])
        except ValueError:
            bad = next(word for word in words if not _is_number(word))
            raise IesError(f"has {bad[:20]!r} among the numbers of {what}") from None
        if not np.isfinite(numbers).all():
            raise IesError(f"has a number without end among {what}")
        return numbers

    def count(self, value: float, what: str, most: int) -> int:
        if value != int(value) or not 1 <= value <= most:
            raise IesError(f"gives {value:g} {what}; a whole number from 1 to {most} is needed")
        return int(value)


def _is_number(word: str) -> bool:
    try:
        float(word)
    except ValueError:
        return False
    return True


@lru_cache(maxsize=64)
def read_ies(text: str) -> Photometry:
    """The photometry in a file's text. Raises IesError."""
    found = re.search(r"^[ \t]*TILT[ \t]*=[ \t]*(.*)$", text, flags=re.MULTILINE | re.IGNORECASE)
    if not found:
        raise IesError("has no line TILT=; is it a photometry file of the LM-63 family?")
    how = found.group(1).strip().upper()
    if how not in ("NONE", "INCLUDE"):
        raise IesError(f"keeps its tilt in another file ({how[:30]}); only NONE and INCLUDE can be read")
    numbers = _Numbers(text[found.end() :])
    tilt = _tilt(numbers) if how == "INCLUDE" else None
    head = numbers.take(10, "the ten numbers after TILT")
    _, _, multiplier, verticals, horizontals, kind, *_ = head
    if kind != 1:
        name = {2.0: "B", 3.0: "A"}.get(float(kind), f"{kind:g}")
        raise IesError(f"is photometry of type {name}; type C is read")
    if multiplier <= 0.0:
        raise IesError(f"multiplies its candela by {multiplier:g}")
    nv = numbers.count(verticals, "vertical angles", MOST_ANGLES)
    nh = numbers.count(horizontals, "horizontal angles", MOST_ANGLES)
    if nv * nh > MOST_VALUES:
        raise IesError(f"has {nv * nh} values; at most {MOST_VALUES} are read")
    ballast, second, watts = numbers.take(3, "ballast factor and watts")
    factor = multiplier * _positive(ballast, "ballast factor")
    first = text.lstrip("\ufeff").splitlines()[0].strip().upper()
    if not first.startswith("IESNA") or first.startswith(OLD):
        factor *= _positive(second, "ballast-lamp factor")
    vertical = _rising(numbers.take(nv, "the vertical angles"), "vertical")
    horizontal = _rising(numbers.take(nh, "the horizontal angles"), "horizontal")
    _check_angles(vertical, horizontal)
    candela = numbers.take(nv * nh, "the candela values").reshape(nh, nv) * factor
    if candela.min() < 0.0:
        raise IesError(f"has a candela value below zero ({candela.min():g})")
    if not 0.0 < candela.max() <= 1e8:
        raise IesError("gives no light" if candela.max() <= 0.0 else "gives more than 1e8 candela")
    return Photometry(vertical, horizontal, candela, tilt, float(watts))


def _positive(value: float, what: str) -> float:
    if not 0.0 < value <= 100.0:
        raise IesError(f"has a {what} of {value:g}")
    return value


def _tilt(numbers: _Numbers) -> tuple[Floats, Floats]:
    _, pairs = numbers.take(2, "the tilt table's size")
    count = numbers.count(pairs, "tilt angles", MOST_ANGLES)
    angles = _rising(numbers.take(count, "the tilt angles"), "tilt")
    factors = numbers.take(count, "the tilt factors")
    if factors.min() < 0.0:
        raise IesError("has a tilt factor below zero")
    return angles, factors


def _rising(angles: Floats, what: str) -> Floats:
    if np.any(np.diff(angles) <= 0.0):
        raise IesError(f"has {what} angles that do not rise")
    return angles


def _check_angles(vertical: Floats, horizontal: Floats) -> None:
    if vertical[0] not in (0.0, 90.0) or vertical[-1] not in (90.0, 180.0) or len(vertical) < 2:
        ends = f"{vertical[0]:g} to {vertical[-1]:g}"
        raise IesError(f"has vertical angles from {ends}; 0 or 90 to 90 or 180 is needed")
    around = (horizontal[0], horizontal[-1])
    if around not in ((0.0, 0.0), (0.0, 90.0), (0.0, 180.0), (0.0, 360.0), (90.0, 270.0)):
        raise IesError(f"has horizontal angles from {around[0]:g} to {around[1]:g}; 0 to 0, 90, 180 or 360 is needed")
