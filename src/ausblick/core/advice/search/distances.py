"""Mark to screen: what each distance would give here, and what the schools of distance come to.

The subject's own lamps and the camera go with the mark, as they would on the set; the screen and its
lamps stay.
"""

from __future__ import annotations

from dataclasses import dataclass

from ...evaluation.evaluate import evaluate
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import Change, DistanceSchool, Plan, PlanError, apply_changes
from ...standards.quantities import Metres, Percent
from ..moves import mark_to
from ..rules.spill_rules import screen_colour, worst_place

AT = (0.6, 0.9, 1.2, 1.5, 1.8, 2.1, 2.5, 3.0, 3.5, 4.0, 4.5, 5.0)
SCHOOLS: dict[DistanceSchool, float] = {"1m": 1.0, "1.2-2m": 1.6, "2m-plus": 2.3, "3m": 3.0}
BEHIND_CAMERA = 1.6
"""Room that the camera and a person need behind the mark at the least, m."""


@dataclass(frozen=True)
class AtDistance:
    """What a distance z in m gives: shadow at its deepest in % and the part of the needed screen in %,
    screen colour on edge and underside in % of the face's light, the needed screen in m, the margin in m, the
    share in % of the screen's light that comes from the subject's lamps; and the changes that go there."""

    z: float
    shadow_percent: Percent
    shadow_area: Percent
    edge: Percent | None
    under: Percent | None
    needed: tuple[float, float] | None
    margin_m: Metres | None
    others_percent: Percent | None
    changes: tuple[Change, ...]


@dataclass(frozen=True)
class SchoolRow:
    school: DistanceSchool
    found: AtDistance | None
    why_not: str


@dataclass(frozen=True)
class Distances:
    """The curve, nearest first, and a row for each school."""

    curve: tuple[AtDistance, ...]
    schools: tuple[SchoolRow, ...]


def distances(plan: Plan, store: BasisStore) -> Distances:
    """Empty without a figure."""
    if plan.subject is None:
        return Distances((), ())
    farthest = plan.room.z_max - BEHIND_CAMERA if plan.room.kind == "interior" else AT[-1]
    curve = [point for z in AT if z <= farthest and (point := _at(plan, z, store)) is not None]
    rows = [_row(plan, school, z, farthest, store) for school, z in SCHOOLS.items()]
    gone = next((point for point in curve if point.shadow_area == 0.0), None)
    rows.append(SchoolRow("shadow-gone", gone, "" if gone else "the shadow stays at every distance tried"))
    return Distances(tuple(curve), tuple(rows))


def _row(plan: Plan, school: DistanceSchool, z: float, farthest: float, store: BasisStore) -> SchoolRow:
    if z > farthest:
        return SchoolRow(school, None, "the room is not deep enough")
    found = _at(plan, z, store)
    return SchoolRow(school, found, "" if found else "the set can't be moved there")


def _at(plan: Plan, z: float, store: BasisStore) -> AtDistance | None:
    changes = mark_to(plan, z)
    try:
        result = evaluate(apply_changes(plan, changes), store)
    except PlanError:
        return None
    needed = result.coverage.needed
    return AtDistance(
        z=z,
        shadow_percent=result.shadow.deepest_percent if result.shadow else 0.0,
        shadow_area=result.shadow.area_visible_percent if result.shadow else 0.0,
        edge=_colour(result, "side"),
        under=_colour(result, "under"),
        needed=None if needed is None else (needed[2] - needed[0], needed[3] - max(needed[1], 0.0)),
        margin_m=result.coverage.margin_m,
        others_percent=result.zones.screen_from_subject_lamps,
        changes=changes,
    )


def _colour(result: Evaluation, kind: str) -> float | None:
    reading = worst_place(result, "side" if kind == "side" else "under")
    return None if reading is None else screen_colour(result, reading)
