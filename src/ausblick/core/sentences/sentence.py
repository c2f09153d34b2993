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
