"""A number that can be asked why: its formula in words, what went into it, and whose formula it is."""

from __future__ import annotations

from dataclasses import dataclass

from ..standards.unbounded import Unbounded


@dataclass(frozen=True)
class Input:
    name: str
    value: float
    unit: str


@dataclass(frozen=True, kw_only=True)
class Number:
    """One reading; `value` is None where the plan gives no such number."""

    id: str
    stage: str
    label: str
    value: Unbounded | None
    unit: str
    digits: int
    formula: str
    source: str
    inputs: tuple[Input, ...]
