"""The rigging sheet of a screen: clamps, weights, ballast, steaming time, people, cautions.

Wind on a flat surface: F = 1/2 rho v^2 Cd A, Cd = 1.2 for a plate across the wind. A stand with feet of
radius r tips when the moment at its foot exceeds m*g*r; half as much again is kept in hand.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..plan import Plan

AIR = 1.25
PLATE_DRAG = 1.2
GRAVITY = 9.81
FOOT_RADIUS = 0.5
IN_HAND = 1.5
CLAMP_EVERY = 0.3
WEIGHT_EVERY = 0.8
PULL = 20.0
"""Sideways pull of a tightened cloth at the top of each stand, newton."""
STEAM_PER_M2 = {"muslin": 4.0, "stretch": 1.0, "foam-backed": 1.0, "velvet": 2.0, "other": 3.0}
"""Minutes of steaming per square metre; materials not named need none."""
CLAMPED = {"muslin", "stretch", "foam-backed", "velvet", "vinyl", "other"}
HUNG = CLAMPED | {"paper"}


@dataclass(frozen=True)
class Caution:
    """What applies here, with the number that calls for it."""

    says: str


@dataclass(frozen=True)
class RiggingSheet:
    """Counts, kg and minutes. `moment_nm` = the tipping moment at each stand's foot that the ballast holds."""

    area_m2: float
    clamps: int
    edge_weights: int
    stands: int
    moment_nm: float
    ballast_kg: float
    bags_per_stand: int
    steaming_min: float
    people: int
    cautions: tuple[Caution, ...]


def wind_force(area_m2: float, wind_ms: float) -> float:
    """Newton on a flat surface across the wind."""
    return 0.5 * AIR * wind_ms**2 * PLATE_DRAG * area_m2


def tipping_moment(height_m: float, area_m2: float, stands: int, wind_ms: float) -> float:
    """Newton metre at the foot of each stand: the cloth's pull at the top, the wind at half height."""
    return PULL * height_m + wind_force(area_m2, wind_ms) / stands * height_m / 2.0


LEAST_CLAMPS = 8
"""However small: the corners twice, because one slips."""


def _clamps(material: str, edges: float, hung: bool) -> int:
    if material in CLAMPED:
        return max(LEAST_CLAMPS, math.ceil(edges / CLAMP_EVERY))
    return LEAST_CLAMPS if hung else 0


def rigging_sheet(plan: Plan, bag_kg: float = 7.0) -> RiggingSheet:
    """The sheet for the plan's screen. bag_kg is one sandbag."""
    screen = plan.screen
    area = screen.width * (screen.height + screen.floor_run)
    hung = screen.material in HUNG
    stands = 2 if hung or screen.material == "framed" else 0
    top = screen.bottom + screen.height
    wind = plan.room.wind_ms
    moment = tipping_moment(top, screen.width * screen.height, stands, wind) if stands else 0.0
    ballast = IN_HAND * moment / (GRAVITY * FOOT_RADIUS)
    edges = screen.width + 2.0 * screen.height
    return RiggingSheet(
        area_m2=area,
        clamps=_clamps(screen.material, edges, hung),
        edge_weights=math.ceil(screen.width / WEIGHT_EVERY) if hung and screen.floor_run == 0.0 else 0,
        stands=stands,
        moment_nm=moment,
        ballast_kg=ballast,
        bags_per_stand=max(1, math.ceil(ballast / bag_kg)) if stands else 0,
        steaming_min=area * STEAM_PER_M2.get(screen.material, 0.0),
        people=2 if screen.width > 2.0 or top > 2.2 else 1,
        cautions=tuple(_cautions(plan, stands, top, ballast, wind)),
    )


def _cautions(plan: Plan, stands: int, top: float, ballast: float, wind: float) -> list[Caution]:
    screen, found = plan.screen, []
    if stands:
        found.append(
            Caution(
                f"{ballast:.0f} kg on each stand; stands creep together under tension and must not tip on anybody."
            )
        )
    if top > 2.2:
        found.append(
            Caution(f"The upper edge is at {top:.1f} m: use a step ladder, with a second person holding it.")
        )
    if screen.bottom > 0.5 or top > 3.0:
        found.append(
            Caution("Anything hung overhead needs a second fixing and a competent rigger; follow local codes.")
        )
    if screen.floor_run > 0.0:
        found.append(Caution(f"{screen.floor_run:.1f} m of cloth underfoot: tape the edges, lay mats, people slip."))
    if wind > 0.0:
        force = wind_force(screen.width * screen.height, wind)
        fan = plan.room.kind == "interior"
        what = "A fan" if fan else "Wind"
        found.append(
            Caution(
                f"{what} of {wind:.0f} m/s pushes with {force:.0f} N: guy the frame, and take it down above the "
                "maker's limit."
            )
        )
        if fan:
            found.append(Caution("Hair, sleeves and cables stay clear of the fan, and its guard stays on."))
    if screen.material in STEAM_PER_M2:
        found.append(
            Caution("Steam burns and wets: keep it off mains, and let the cloth dry before lamps come near.")
        )
    return found
