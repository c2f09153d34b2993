"""A sentence in words: its template from the table with its parameters, in metric units.

A template holds `{name}` or `{name:kind}`. Kinds: `0` to `4` digits, `g` as short as it is exact, `m` and `m1` a
length, `size` two lengths, `lx` light, `shutter` an exposure time, `stops` a number of stops without its sign, `list`
parts with a semicolon between. web/src/lib/say.ts does the same in the units that a person chose; both are held to
tests/say_cases.json.
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Sequence
from decimal import ROUND_HALF_UP, Decimal
from typing import Any

from .sentence import Sentence
from .table import SENTENCES

PLACE = re.compile(r"\{(\w+)(?::(\w+))?\}")


def say(sentence: Sentence) -> str:
    """The sentence in words. KeyError for an id or a parameter that isn't there."""

    def filled(match: re.Match[str]) -> str:
        return _shown(sentence.parameters[match[1]], match[2])

    return PLACE.sub(filled, SENTENCES[sentence.id])


def _shown(value: Any, kind: str | None) -> str:
    if kind is None:
        return ", ".join(_part(one) for one in value) if isinstance(value, tuple) else _part(value)
    if kind.isdigit():
        return digits(value, int(kind))
    return KINDS[kind](value)


def _part(value: Any) -> str:
    return say(value) if isinstance(value, Sentence) else str(value)


def digits(value: float, count: int) -> str:
    """Rounded half away from nought, as the page does; a true minus, and none before nought; a dash for a number
    without bound, which an answer has as null."""
    if not math.isfinite(value):
        return "–"
    rounded = Decimal(value).quantize(Decimal(1).scaleb(-count), ROUND_HALF_UP)
    return f"{abs(rounded):f}" if rounded == 0 else f"{rounded:f}".replace("-", "−")


def shutter(seconds: float) -> str:
    """1/100 s, or 0.5 s when long."""
    return f"1/{digits(1.0 / seconds, 0)} s" if seconds < 0.4 else f"{digits(seconds, 1)} s"


def stops_text(value: float) -> str:
    return f"{digits(abs(value), 1)} stop" if abs(abs(value) - 1.0) < 0.05 else f"{digits(abs(value), 1)} stops"


def _size(sides: Sequence[float]) -> str:
    return f"{digits(sides[0], 2)} × {digits(sides[1], 2)} m"


KINDS: dict[str, Callable[[Any], str]] = {
    "g": lambda value: f"{value:g}".replace("-", "−"),
    "m": lambda value: f"{digits(value, 2)} m",
    "m1": lambda value: f"{digits(value, 1)} m",
    "size": _size,
    "lx": lambda value: f"{digits(value, 0)} lx",
    "shutter": shutter,
    "stops": stops_text,
    "list": lambda parts: "; ".join(_part(part) for part in parts),
}
