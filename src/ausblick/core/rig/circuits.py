"""Watts on circuits and heat near cloth: numbers for the usual cautions, never a substitute for an electrician."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..light.emission import emission_of, flux_of
from ..plan import Light, Plan
from ..standards.limits import LIMITS
from ..standards.quantities import Amperes, Metres, Watts

HOT_LM_PER_W, HOT_WATTS = 40.0, 100.0
"""Lamps that give less light per watt than this turn nearly all of it into heat: incandescent sources."""
CLEAR_PER_KW = 1.5
"""Metres to be kept clear per kilowatt; at least the limit of `light.heat`."""


@dataclass(frozen=True)
class Load:
    """What lamps that are on draw from a circuit, in W and A, and its rating in A; None when unknown."""

    circuit: str
    watts: Watts
    amps: Amperes
    rated_amps: Amperes | None

    @property
    def percent(self) -> float | None:
        """Of the rating."""
        return None if self.rated_amps is None else 100.0 * self.amps / self.rated_amps


@dataclass(frozen=True)
class Hot:
    """A hot lamp nearer to the screen's cloth than is usually kept clear, m."""

    light: str
    name: str
    away: Metres
    clear: Metres


def loads(plan: Plan) -> list[Load]:
    """Every circuit of the plan with what its lamps draw undimmed: dimming must never be what saves a fuse."""
    mains = plan.room.mains
    rated = {circuit.name: circuit.amps for circuit in mains.circuits}
    names = dict.fromkeys([*rated, *(lamp.circuit for lamp in plan.lights if _draws(lamp))])
    found = []
    for name in names:
        watts = sum(lamp.fixture.watts for lamp in plan.lights if _draws(lamp) and lamp.circuit == name)
        found.append(Load(name, watts, watts / mains.volts, rated.get(name)))
    return found


def _draws(lamp: Light) -> bool:
    return lamp.on and lamp.fixture.emitter.shape != "sun"


def is_hot(lamp: Light, plan: Plan) -> bool:
    """Does it turn most of its power into heat? Known by its light per watt."""
    if not _draws(lamp) or lamp.fixture.watts < HOT_WATTS:
        return False
    bare = lamp.model_copy(update={"modifier": type(lamp.modifier)(), "beyond": ()})
    return flux_of(emission_of(bare, plan)) / lamp.fixture.watts < HOT_LM_PER_W


def hot_near_cloth(plan: Plan) -> list[Hot]:
    screen, found = plan.screen, []
    left, right = screen.x_centre - screen.width / 2.0, screen.x_centre + screen.width / 2.0
    for lamp in plan.lights:
        if is_hot(lamp, plan):
            x, y, z = lamp.position
            gaps = (max(left - x, x - right, 0.0), max(screen.bottom - y, y - screen.bottom - screen.height, 0.0), z)
            away = math.sqrt(sum(gap * gap for gap in gaps))
            clear = max(LIMITS["light.heat"].at, CLEAR_PER_KW * lamp.fixture.watts / 1000.0)
            if away < clear:
                found.append(Hot(lamp.id, lamp.name, away, clear))
    return found


def overhead(plan: Plan) -> list[Light]:
    """Lamps that hang or stand over the heads of people in the action."""
    subject = plan.subject
    if subject is None:
        return []
    reach = subject.envelope
    return [
        lamp
        for lamp in plan.lights
        if _draws(lamp)
        and lamp.position[1] > LIMITS["light.overhead"].at
        and subject.x - reach.left - 0.3 < lamp.position[0] < subject.x + reach.right + 0.3
        and subject.z - reach.back - 0.3 < lamp.position[2] < subject.z + reach.front + 0.3
    ]
