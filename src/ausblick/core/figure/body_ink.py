"""What the figure's body is painted with: skin with eyes, brows and lips, hair, cloth, shoes, wood.

Painted by where on the body a place is, so that lines are as sharp as the picture. Numbers are ours, from usual
faces.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
import numpy.typing as npt

from ..geometry.vectors import Bytes, Floats32, put_rows
from ..plan import Subject
from ..plan.people import Garment
from .body_file import HEADS
from .solid_body import PARTS

Values = npt.NDArray[np.floating[Any]]
SHOES, WOOD = (0.05, 0.045, 0.04), (0.09, 0.065, 0.045)
ABOVE, BELOW = ("coat", "moving sleeve"), ("legs",)
"""Parts that are dressed, above the waist and below it."""
GREY = (0.16, 0.16, 0.18)
"""Cloth of nobody's choice."""
WHITE_OF_EYE, IRIS = (0.32, 0.29, 0.275), (0.075, 0.05, 0.032)
EYE_AT, EYE_WIDE, EYE_HIGH = (0.0185, 0.9335), 0.0086, 0.0028
IRIS_RADIUS, PUPIL_RADIUS = 0.0036, 0.0016
GLOSS = {"head": 0.028, "hand": 0.028, "moving hand": 0.028, "hair": 0.035, "shoes": 0.04, "chair": 0.02}
CLOTH_GLOSS, SHINY_CLOTH = 0.008, 0.06
"""Share of light that a surface mirrors broadly when it meets it straight: skin 0.028, dull and shiny cloth."""


@dataclass(frozen=True, eq=False)
class Ink:
    """Of samples of the body: what they reflect (N, 3), and what they mirror (N,)."""

    reflectance: Floats32
    gloss: Floats32


def ink_of(subject: Subject, part: Bytes, own: Floats32) -> Ink:
    """`part` (N,) as in PARTS, `own` (N, 3) in shares of stature."""
    worn = worn_on(subject)
    plain = {"hair": subject.hair, "shoes": SHOES, "chair": WOOD}
    plain |= {name: GREY if one is None else one.reflectance for name, one in worn.items()}
    inks = np.array([plain.get(name, subject.skin) for name in PARTS], dtype=np.float32)
    cloth = {name: CLOTH_GLOSS + SHINY_CLOTH * (0.0 if one is None else one.gloss) for name, one in worn.items()}
    gloss = np.array([(GLOSS | cloth)[name] for name in PARTS], dtype=np.float32)
    ink, shine = inks.take(part, axis=0), gloss.take(part)
    # A suit that is to vanish is plain.
    above = subject.worn_above
    plain_suit = above is not None and above.keying == "away"
    for name, paint in (("head", _face), ("hair", _strands), ("coat", _coat), ("shoes", _sole)):
        (those,) = np.nonzero(part == PARTS.index(name))
        if len(those) and not (plain_suit and name == "coat"):
            put_rows(ink, those, paint(subject, own.take(those, axis=0), ink.take(those, axis=0)))
    return Ink(ink, shine)


def worn_on(subject: Subject) -> dict[str, Garment | None]:
    """What each dressed part wears; None is cloth of nobody's choice."""
    return {**dict.fromkeys(ABOVE, subject.worn_above), **dict.fromkeys(BELOW, subject.worn_below)}


def on_adult(subject: Subject, own: Floats32) -> Floats32:
    """Places of a head as they are on an adult's: a child's is larger, and ends where stature does."""
    size = HEADS[subject.body]
    moved = own / np.float32(size)
    moved[:, 1] = 0.87 + (own[:, 1] - (1.0 - 0.13 * size)) / size
    return moved


def _within(distance: Values, soft: float) -> Values:
    """1 where a distance is below 0, 0 from `soft` on."""
    return np.asarray(np.clip(1.0 - distance / soft, 0.0, 1.0), dtype=np.float32)


def _mixed(ink: Values, share: Values, other: tuple[float, ...] | Values) -> Values:
    return np.asarray(ink + share[:, None] * (np.asarray(other, dtype=np.float32) - ink))


def _face(subject: Subject, own: Values, ink: Values) -> Values:
    place = on_adult(subject, own)
    x, y, z = np.abs(place[:, 0]), place[:, 1], place[:, 2]
    front = z > 0.015
    # Cheeks, nose and ears are redder; a beard's shadow is left out.
    red = np.float32(0.5) * np.exp(-(((x - 0.026) / 0.014) ** 2) - ((y - 0.912) / 0.012) ** 2) * front
    red += 0.45 * np.exp(-((x / 0.008) ** 2) - ((y - 0.911) / 0.007) ** 2) * front + 0.3 * (x > 0.042)
    ink = np.asarray(ink * (1.0 - red[:, None] * np.array([0.02, 0.16, 0.16])), dtype=np.float32)
    lip_top, lip_low = 0.8985 - 0.35 * np.abs(x - 0.0035), 0.8895 + 18.0 * x * x
    lips = _within(np.maximum(y - lip_top, lip_low - y), 0.0012) * _within(x - 0.0125, 0.002) * front
    ink = ink * (1.0 - lips[:, None] * np.array([0.12, 0.42, 0.38], dtype=np.float32))
    parted = _within(np.abs(y - 0.8943) - 0.0003, 0.0008) * _within(x - 0.0118, 0.002) * front
    ink = ink * (1.0 - 0.55 * parted[:, None])
    arch = 0.9452 - 16.0 * (x - 0.0195) ** 2
    thick = 0.0022 - 0.10 * np.maximum(x - 0.015, 0.0)
    brow = _within(np.abs(y - arch) - thick, 0.0012) * _within(x - 0.027, 0.003) * _within(0.0095 - x, 0.004) * front
    hairs = 0.8 + 0.2 * np.sin(2600.0 * x + 1500.0 * y)
    ink = _mixed(ink, 0.62 * brow * hairs, subject.hair)
    (near,) = np.nonzero(front & (np.abs(y - EYE_AT[1]) < 3.0 * EYE_HIGH))
    ink[near] = _eyes(x[near], y[near], ink[near])
    return ink


def _eyes(x: Values, y: Values, ink: Values) -> Values:
    across, up = (x - EYE_AT[0]) / EYE_WIDE, (y - EYE_AT[1] - 0.04 * (x - EYE_AT[0])) / EYE_HIGH
    almond = np.sqrt(across * across + up * up * (1.0 + 0.6 * across * across))
    lid = _within(almond - 1.25, 0.35) * (0.35 + 0.65 * (up > 0.0))
    ink = ink * (1.0 - 0.72 * lid[:, None])
    open_ = _within(almond - 1.0, 0.12)
    eye = np.broadcast_to(np.array(WHITE_OF_EYE, dtype=np.float32), ink.shape)
    away = np.hypot(x - EYE_AT[0], y - EYE_AT[1] - 0.0004)
    eye = _mixed(eye, _within(away - IRIS_RADIUS, 0.0005), IRIS)
    eye = _mixed(eye, _within(away - PUPIL_RADIUS, 0.0004), (0.01, 0.01, 0.01))
    # The upper lid's shade.
    eye = eye * (0.55 + 0.45 * _within(up - 0.2, 0.7))[:, None]
    return _mixed(ink, open_, eye)


def _strands(subject: Subject, own: Values, ink: Values) -> Values:
    """Lighter and darker locks that run from the crown down."""
    place = on_adult(subject, own)
    turn = np.arctan2(place[:, 0], place[:, 2] + 0.012)
    drop = place[:, 1]
    wave = 0.0 if subject.hair_kind == "smooth" else 3.0
    found = np.zeros(len(turn), dtype=np.float32)
    for i, often in enumerate((11.0, 23.0, 47.0, 91.0)):
        found += np.sin(often * turn + (40.0 + 13.0 * i) * drop + wave * np.sin(90.0 * drop + i)) / (1.0 + 0.4 * i)
    return np.asarray(ink * (1.0 + 0.16 * found)[:, None])


def _coat(_: Subject, own: Values, ink: Values) -> Values:
    """Buttons, and the dark line where one front lies over the other."""
    (near,) = np.nonzero((own[:, 2] > 0.02) & (np.abs(own[:, 0]) < 0.012))
    x, y = own[near, 0], own[near, 1]
    left = 1.0 - 0.35 * _within(np.abs(x + 0.0085) - 0.0006, 0.0012) * _within(y - 0.722, 0.004)
    for at in (0.695, 0.635, 0.575):
        left = left * (1.0 - 0.6 * _within(np.hypot(x - 0.004, y - at) - 0.0046, 0.0010))
    ink[near] *= left[:, None]
    return ink


def _sole(_: Subject, own: Values, ink: Values) -> Values:
    return np.asarray(ink * np.where(own[:, 1] < 0.009, 0.5, 1.0)[:, None].astype(np.float32))
