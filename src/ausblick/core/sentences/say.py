"""A sentence in words: its template from the table with its parameters, lengths in metres or in feet and inches.

A template holds `{name}` or `{name:kind}`. Kinds: `0` to `4` digits, `g` as short as it is exact, `m` and `m1` a
length, `size` two lengths, `lx` light, `shutter` an exposure time, `stops` a number of stops without its sign, `list`
parts with a semicolon between. web/src/lib/say.ts does the same in the units that a person chose; both are held to
tests/say_cases.json.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from .lengths import Units, length, size
from .rounding import digits
from .sentence import Sentence
from .table import SENTENCES

PLACE = re.compile(r"\{(\w+)(?::(\w+))?\}")


def say(sentence: Sentence, units: Units = "m") -> str:
    """The sentence in words. KeyError for an id or a parameter that isn't there."""

    def filled(match: re.Match[str]) -> str:
        return _shown(sentence.parameters[match[1]], match[2], units)

    return PLACE.sub(filled, SENTENCES[sentence.id])


def _shown(value: Any, kind: str | None, units: Units) -> str:
    if kind is None:
        return ", ".join(_part(one, units) for one in value) if isinstance(value, tuple) else _part(value, units)
    if kind.isdigit():
        return digits(value, int(kind))
    return KINDS[kind](value, units)


def _part(value: Any, units: Units) -> str:
    return say(value, units) if isinstance(value, Sentence) else str(value)


def shutter(seconds: float) -> str:
    """1/100 s, or 0.5 s when long."""
    return f"1/{digits(1.0 / seconds, 0)} s" if seconds < 0.4 else f"{digits(seconds, 1)} s"


def stops_text(value: float) -> str:
    return f"{digits(abs(value), 1)} stop" if abs(abs(value) - 1.0) < 0.05 else f"{digits(abs(value), 1)} stops"


KINDS: dict[str, Callable[[Any, Units], str]] = {
    "g": lambda value, _: f"{value:g}".replace("-", "−"),
    "m": lambda value, units: length(value, units),
    "m1": lambda value, units: length(value, units, 1),
    "size": lambda sides, units: size(sides[0], sides[1], units),
    "lx": lambda value, _: f"{digits(value, 0)} lx",
    "shutter": lambda value, _: shutter(value),
    "stops": lambda value, _: stops_text(value),
    "list": lambda parts, units: "; ".join(_part(part, units) for part in parts),
}
