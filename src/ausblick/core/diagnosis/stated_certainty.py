"""How sure a cause is told to be: what the fit says of itself, brought to the share of such answers that is right.

Fitted to 838 stand-in sets with one fault or two and decoys, one in four behind an open lens
(`benchmarks/causes.py`); the table in docs/model.md tells each tenth of them by the other nine. What the fit says is
tempered: it is wrong now and then where it is sure, and right more often than it says where it is not. Two answers
are surer of themselves than they may be: that all is as planned, because a fault smaller than the errors of a set
leaves no trace; and that something stands in a beam, or is none of the lamps', because a form that is free fits what
no lamp does, and what nobody modelled too.
"""

from __future__ import annotations

import math
from dataclasses import dataclass


@dataclass(frozen=True)
class Tempered:
    """Log odds that are told: a slope times those of the fit, and a shift."""

    slope: float
    shift: float

    def __call__(self, probable: float) -> float:
        p = min(1.0 - LEAST_DOUBT, max(LEAST_DOUBT, probable))
        return 1.0 / (1.0 + math.exp(-(self.slope * math.log(p / (1.0 - p)) + self.shift)))


LEAST_DOUBT = 1e-6
PLANNED, PLANNED_BEHIND_LENS = Tempered(0.6, -1.0), Tempered(0.6, 0.1)
"""That all is as planned; the second where the lens darkens its corners: what that leaves open makes the fit less
sure of itself, and it is right as often."""
FAULT, SECOND_FAULT = Tempered(0.2, 1.3), Tempered(0.2, 0.45)
FREE_FORM = {"obstacle": 0.17, "unknown": 0.02}
"""Of obstacles that were named one in six was there, of strangers none of a dozen, whatever the fit said."""


def stated_certainty(story: str, probable: float, lens: bool = False) -> float:
    """From 0 to 1, of the first thing named: its story's name and what the fit gives it; `lens`: one that darkens its
    corners is in it."""
    if story == "as-planned":
        return (PLANNED_BEHIND_LENS if lens else PLANNED)(probable)
    return _of_fault(story, probable, FAULT)


def second_certainty(story: str, probable: float) -> float:
    """The same of the second thing named: of a hundred that were, three in four were there."""
    return _of_fault(story, probable, SECOND_FAULT)


def _of_fault(story: str, probable: float, tempered: Tempered) -> float:
    return FREE_FORM[story] * min(1.0, max(0.0, probable)) if story in FREE_FORM else tempered(probable)
