"""A sentence that is told: its id in the table, and what it tells. The words are made where they are read."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Sentence:
    """`parameters` in the plan's units (m, lx, s, stops); texts are names that a person gave, never translated.

    A parameter may be another sentence, or several that are listed.
    """

    id: str
    parameters: dict[str, float | str | Sentence | tuple[float | str | Sentence, ...]]


def tell(ident: str, /, **parameters: float | str | Sentence | tuple[float | str | Sentence, ...]) -> Sentence:
    """tell("space.gap", away=1.2): the sentence of the table with its parameters."""
    return Sentence(ident, parameters)


LISTED = 3


def few(parts: tuple[str, ...] | tuple[Sentence, ...]) -> tuple[str | Sentence, ...]:
    """What a sentence lists that is read at a glance: all of a few, of many the first and how many more."""
    if len(parts) <= LISTED:
        return parts
    return (*parts[: LISTED - 1], tell("more", count=float(len(parts) - LISTED + 1)))
