"""Watts on circuits and heat near cloth: numbers for the usual cautions, never a substitute for an electrician."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..geometry.vectors import Floats
from ..light.emission import emission_of, flux_of, usual
from ..plan import Light, Plan
from ..standards.limits import LIMITS
from ..standards.quantities import Amperes, Metres, Watts

HOT_LM_PER_W, HOT_WATTS = 40.0, 100.0
"""Lamps that give less light per watt than this turn nearly all of it into heat: incandescent sources."""
CLEAR_PER_KW = 1.5
"""Metres to be kept clear per kilowatt; at least the limit of `light.heat`."""


Burns = Literal["cloth", "flag", "sheet"]
"""The screen; a cloth or board of its own; a sheet of diffusion before the lamp itself."""
NET = 25


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
    """A hot lamp nearer than is usually kept clear, m, to `what` may scorch."""

    light: str
    name: str
    away: Metres
    clear: Metres
    what: Burns


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
    return lamp.on and not lamp.is_daylight


def is_hot(lamp: Light, plan: Plan) -> bool:
    """Does it turn most of its power into heat? Known by its light per watt."""
    if not _draws(lamp) or lamp.fixture.watts < HOT_WATTS:
        return False
    bare = lamp.model_copy(update={"modifier": type(lamp.modifier)(), "beyond": ()})
    return flux_of(emission_of(bare, plan)) / lamp.fixture.watts < HOT_LM_PER_W


def hot_near_cloth(plan: Plan) -> list[Hot]:
    """Hot lamps too near to what burns: the screen, cloths and boards, a sheet that hangs before the lamp."""
    found = []
    for lamp in plan.lights:
        if is_hot(lamp, plan):
            clear = max(LIMITS["light.heat"].at, CLEAR_PER_KW * lamp.fixture.watts / 1000.0)
            what, away = min(_what_burns(plan, lamp), key=lambda item: item[1])
            if away < clear:
                found.append(Hot(lamp.id, lamp.name, away, clear, what))
    return found


def _what_burns(plan: Plan, lamp: Light) -> list[tuple[Burns, float]]:
    """What may scorch round a lamp, and how far away it is, m."""
    x, y, z = lamp.position
    screen = plan.screen
    beside = max(abs(x - screen.x_centre) - screen.width / 2.0, 0.0)
    over = max(screen.bottom - y, y - screen.bottom - screen.height, 0.0)
    found: list[tuple[Burns, float]] = [("cloth", math.hypot(beside, over, z))]
    if screen.floor_run > 0.0:
        found.append(("cloth", math.hypot(beside, y, max(z - screen.floor_run, 0.0))))
    at = np.array(lamp.position)
    found += [("flag", _to_quad(at, np.array(flag.corners))) for flag in plan.flags]
    found += [("sheet", usual(one, "distance")) for one in lamp.modifiers if one.kind == "diffusion"]
    return found


def _to_quad(at: Floats, corners: Floats) -> float:
    """Least distance of a place (3,) from a four-cornered surface (4, 3), by a net of places on it."""
    u, v = (w[..., None] for w in np.meshgrid(np.linspace(0.0, 1.0, NET), np.linspace(0.0, 1.0, NET)))
    a, b, c, d = corners
    net = (1 - u) * (1 - v) * a + u * (1 - v) * b + u * v * c + (1 - u) * v * d
    return float(np.linalg.norm(net - at, axis=-1).min())


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
