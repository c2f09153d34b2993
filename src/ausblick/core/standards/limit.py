"""What a limit is: where a value ceases to hold, how far beyond it weighs more, whose it is, and why it is there."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

Severity = Literal["stop", "fix", "consider", "fine"]


@dataclass(frozen=True, kw_only=True)
class Limit:
    """`at`: the limit, in `unit`. `fix`, `stop`: the excess beyond it from which it is to be mended, and from which
    it stops the shoot, in the unit of the excess (`excess_unit` where that is another one). `source`: the school,
    standard or habit it comes from; `reason`: why the number is what it is."""

    at: float
    unit: str
    source: str
    reason: str
    fix: float = math.inf
    stop: float = math.inf
    excess_unit: str = ""

    def grade(self, excess: float) -> Severity:
        """Severity from how far beyond the limit: over 0 consider, over `fix` fix, over `stop` stop."""
        if excess <= 0.0:
            return "fine"
        if excess <= self.fix:
            return "consider"
        return "fix" if excess <= self.stop else "stop"
