"""How sure a cause is told to be: what the fit says of itself, brought to the share of such answers that is right.

Measured on 380 stand-in sets with one fault or two and decoys (`benchmarks/causes.py`), and held against 200 others;
the table stands in docs/model.md. Two answers are surer of themselves than they may be: that all is as planned,
because a fault smaller than the errors of a set leaves no trace; and that something stands in a beam, or is none of
the lamps', because a form that is free fits what no lamp does, and what nobody modelled too.
"""

from __future__ import annotations

import math

SLOPE, SHIFT, SHIFT_BEHIND_LENS = 2.0, -3.3, -2.0
"""Of the log odds that all is as planned; the second where the lens darkens its corners: what that leaves open makes
the fit less sure of itself, and it is right as often."""
FREE_FORM = 0.35
"""Of obstacles and strangers that were named one in three was there, whatever the fit said."""


def stated_certainty(story: str, probable: float, lens: bool = False) -> float:
    """From 0 to 1, of a story's name and what its fit gives it; `lens`: one that darkens its corners is in it."""
    p = min(1.0, max(0.0, probable))
    if story in ("obstacle", "unknown"):
        return FREE_FORM * p
    if story != "as-planned" or p in (0.0, 1.0):
        return p
    shift = SHIFT_BEHIND_LENS if lens else SHIFT
    return 1.0 / (1.0 + math.exp(-(SLOPE * math.log(p / (1.0 - p)) + shift)))
