"""What a fit of the lamps says, and what to do about it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from ..plan import Change, Plan, edit

CLEARLY = 0.06
"""Differences below this share are not worth a walk to the lamp."""
CLEARLY_M = 0.12
"""The same for where a stand is, m."""
AS_PLANNED = "The lamps stand and burn as planned."
Hypothesis = Literal["as planned", "exposure", "dimmer", "stand", "pair", "several", "unknown"]


@dataclass(frozen=True)
class FitPart:
    """One of two changes: a lamp's index, and either where its stand moved (x, z) m or its light over planned."""

    lamp: int
    moved: tuple[float, float] | None
    factor: float | None

    @property
    def clear(self) -> bool:
        """Is it worth a walk to the lamp?"""
        if self.moved is not None:
            return math.hypot(*self.moved) >= CLEARLY_M
        return abs((self.factor or 1.0) - 1.0) >= CLEARLY


@dataclass(frozen=True)
class LampFit:
    """`story` and the lamp's id; `factor`: light over planned, of the lamp or of everything; `moved` (x, z) m; what
    is left unexplained in % of the level; `sure` 0..1; says, and the changes that make the plan as built."""

    story: Hypothesis
    lamp: str | None
    factor: float
    moved: tuple[float, float] | None
    misfit_percent: float
    sure: float
    says: str
    cure: str
    changes: tuple[Change, ...]
    weights: dict[str, float]


@dataclass(frozen=True)
class Explanation:
    """Words of a story: what it is, what cures it, and the changes that make the plan as built."""

    says: str
    cure: str = ""
    changes: tuple[Change, ...] = ()


def exposure_words(gain: float) -> Explanation:
    off = abs(math.log2(max(gain, 1e-6)))
    word = "brighter" if gain > 1.0 else "darker"
    way = "down" if gain > 1.0 else "up"
    return Explanation(
        f"Everything is {off:.1f} stops {word} than planned, evenly: the exposure, or all lamps",
        f"Set shutter, aperture, ISO and ND as planned; else all screen lamps {way} {off:.1f} stops",
    )


def dimmer_words(plan: Plan, index: int, factor: float) -> Explanation:
    lamp = plan.lights[index]
    now = lamp.dimmer * factor
    word = "weaker" if factor < 1.0 else "stronger"
    if now <= 1.0:
        verb = "Raise" if factor < 1.0 else "Lower"
        cure = f"{verb} {lamp.name} from about {100 * now:.0f} % to {100 * lamp.dimmer:.0f} %"
    else:
        cure = f"Lower {lamp.name} by {math.log2(factor):.1f} stops"
    off = abs(math.log2(max(factor, 1e-6)))
    return Explanation(
        f"{lamp.name} gives {100 * factor:.0f} % of what was planned: {word} by {off:.1f} stops",
        cure,
        (edit.lamp(index).dimmer(round(min(1.0, now), 3)),),
    )


def stand_words(plan: Plan, index: int, dx: float, dz: float) -> Explanation:
    lamp = plan.lights[index]
    x, y, z = lamp.position
    parts = [
        f"{abs(dz):.2f} m {'further from' if dz > 0 else 'nearer to'} the screen" if abs(dz) > 0.05 else "",
        f"{abs(dx):.2f} m to the {'right' if dx > 0 else 'left'}" if abs(dx) > 0.05 else "",
    ]
    where = ", ".join(part for part in parts if part) or "a little off"
    return Explanation(
        f"{lamp.name} does not stand as planned: {where}",
        f"Bring {lamp.name} back to {x:.2f} m across, {z:.2f} m from the screen",
        (edit.lamp(index).position([round(x + dx, 2), y, round(max(0.3, z + dz), 2)]),),
    )


def several_words(plan: Plan, off: list[tuple[int, float]]) -> Explanation:
    """`off`: lamps and their light over planned, the worst first."""
    says = ", ".join(f"{plan.lights[i].name} {100 * v:.0f} %" for i, v in off[:4])
    lamps = [(plan.lights[i], v) for i, v in off[:4]]
    cures = [
        f"{lamp.name} to {100 * lamp.dimmer:.0f} % from about {100 * lamp.dimmer * v:.0f} %" for lamp, v in lamps
    ]
    changes = tuple(edit.lamp(i).dimmer(round(min(1.0, plan.lights[i].dimmer * v), 3)) for i, v in off)
    return Explanation(f"Of what was planned: {says}", ", ".join(cures), changes)


def pair_words(plan: Plan, parts: tuple[FitPart, ...]) -> Explanation:
    """Two changes in one breath; of one lamp moved and dimmed its place is explained first."""
    explained = [
        stand_words(plan, part.lamp, *part.moved) if part.moved else dimmer_words(plan, part.lamp, part.factor or 1.0)
        for part in parts
    ]
    return Explanation(
        "; ".join(one.says for one in explained),
        "; ".join(one.cure for one in explained),
        tuple(change for one in explained for change in one.changes),
    )
