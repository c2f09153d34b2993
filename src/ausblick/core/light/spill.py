"""Spill: which share of the key channel's light on the subject is screen colour, and who sends it.

Share in % = (E_K - (E_A + E_B) / 2) / E_K, with E all light that arrives at a small surface, K the key
channel, A and B the others: white light gives 0. What faces the screen is harmless; front, underside
and the edge as the camera sees it (surfaces at right angles to the view) are not.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..camera.coverage import action_heights
from ..geometry.vectors import Floats, cross, unit
from ..plan import EYE_HEIGHT, Plan, Subject
from .basis import BasisStore
from .others_shade import probes_among_others
from .returned import SceneLight, by_surface, probe_factors

Kind = Literal["front", "side", "back", "under", "top"]


@dataclass(frozen=True)
class Place:
    """A small surface on the subject: where it is (3,) m and where it faces (3,), unit length."""

    name: str
    kind: Kind
    at: tuple[float, float, float]
    facing: tuple[float, float, float]


@dataclass(frozen=True, eq=False)
class ProbeReading:
    """Light (3,) in lux at a place, `share` of screen colour in % (None in the dark), and that share
    by surface in points, largest first; `lamps` is what the lamps themselves add by their colour."""

    place: Place
    light: Floats
    share: float | None
    sources: tuple[tuple[str, float], ...]
    lamps: float
    framed: bool


@dataclass(frozen=True)
class Spill:
    """Key-channel share in %: the face, the worse cheek, the back of the head, the worst underside."""

    front: float | None
    side: float | None
    back: float | None
    under: float | None
    probes: tuple[ProbeReading, ...]


NO_SPILL = Spill(None, None, None, None, ())


KNEES_FORWARD = 0.4
"""Of somebody seated, before the mark, m."""


def knees_forward(subject: Subject) -> float:
    """How far before the mark the knees are, m."""
    return KNEES_FORWARD if subject.posture == "seated" else 0.0


def facing_camera(plan: Plan, subject: Subject) -> tuple[Floats, Floats]:
    """The subject's own ahead, toward the camera, and aside, to its right in the picture: (3,) each, unit length."""
    toward = np.array([plan.camera.x - subject.x, 0.0, plan.camera.z - subject.z])
    ahead = unit(toward) if float(np.linalg.norm(toward)) > 1e-6 else np.array([0.0, 0.0, 1.0])
    return ahead, cross(np.array([0.0, 1.0, 0.0]), ahead)


def places_of(plan: Plan, subject: Subject) -> list[Place]:
    """Where the subject is probed: head, chest, arms, hands and feet."""
    x, z = subject.x, subject.z
    ahead, aside = facing_camera(plan, subject)

    def place(name: str, kind: Kind, up: float, out: Floats, facing: Floats, reach: float) -> Place:
        at = np.array([x, subject.up(up), z]) + reach * out
        return Place(name, kind, tuple(np.round(at, 6).tolist()), tuple(np.round(facing, 9).tolist()))

    knees = knees_forward(subject)
    down, over = np.array([0.0, -1.0, 0.0]), np.array([0.0, 1.0, 0.0])
    return [
        place("face", "front", EYE_HEIGHT, ahead, ahead, 0.0),
        place("chest", "front", 0.75, ahead, ahead, 0.1),
        place("right cheek", "side", EYE_HEIGHT, aside, -aside, -0.07),
        place("left cheek", "side", EYE_HEIGHT, aside, aside, 0.07),
        place("right arm", "side", 0.65, aside, -aside, -0.25),
        place("left arm", "side", 0.65, aside, aside, 0.25),
        place("back of the head", "back", EYE_HEIGHT, ahead, -ahead, -0.1),
        place("shoulders", "top", 0.82, ahead, over, 0.0),
        place("chin", "under", 0.87, ahead, down, 0.08),
        place("hands", "under", 0.47, ahead, down, 0.1),
        place("legs", "front", 0.25, ahead, ahead, 0.1 + knees),
        place("feet", "front", 0.04, ahead, ahead, 0.15 + knees),
    ]


def spill_of(plan: Plan, key: int, light: SceneLight, store: BasisStore) -> Spill:
    """Spill at every place of the plan's subject; `key` is the index of the key channel."""
    if plan.subject is None:
        return NO_SPILL
    places = places_of(plan, plan.subject)
    at, facing = np.array([p.at for p in places]), np.array([p.facing for p in places])
    arriving = by_surface(light, probe_factors(light.scene, at, facing, store))
    low, high = action_heights(plan.subject)
    low -= 0.02
    from_lamps = probes_among_others(plan, at, facing, store)
    parts = np.stack(list(arriving.values()), axis=1) if arriving else np.zeros((len(places), 0, 3))
    totals = from_lamps + parts.sum(axis=1)
    # In % of the key channel's light: by surface (P, S), all of it (P,), the lamps' own (P,).
    per_cent = 100.0 / np.maximum(totals[:, key], 1e-9)
    by_part = _excess(parts, key) * per_cent[:, None]
    shares, own = _excess(totals, key) * per_cent, _excess(from_lamps, key) * per_cent
    return _summed(
        [
            _reading(place, totals[i], key, (float(shares[i]), float(own[i])),
                     dict(zip(arriving, by_part[i].tolist(), strict=True)), low <= place.at[1] <= high)
            for i, place in enumerate(places)
        ]
    )  # fmt: skip


def _excess(light: Floats, key: int) -> Floats:
    """Light (...) that the key channel has above the mean of the others, of light (..., 3)."""
    return np.asarray(1.5 * light[..., key] - 0.5 * light.sum(axis=-1))


def _reading(
    place: Place, total: Floats, key: int, shares: tuple[float, float], parts: dict[str, float], framed: bool
) -> ProbeReading:
    """`shares`: of all light, and of the lamps' own; `parts`: by surface; all in %."""
    if total[key] <= 1e-9:
        return ProbeReading(place, total, None, (), 0.0, framed)
    largest = tuple(sorted(((n, s) for n, s in parts.items() if abs(s) >= 0.01), key=lambda part: -part[1]))
    return ProbeReading(place, total, shares[0], largest, shares[1], framed)


def _summed(readings: list[ProbeReading]) -> Spill:
    named = {reading.place.name: reading.share for reading in readings}
    hands = next(reading for reading in readings if reading.place.name == "hands")
    return Spill(
        front=named["face"],
        side=_worst(named["left cheek"], named["right cheek"]),
        back=named["back of the head"],
        under=_worst(named["chin"], hands.share if hands.framed else None),
        probes=tuple(readings),
    )


def _worst(*shares: float | None) -> float | None:
    known = [share for share in shares if share is not None]
    return max(known) if known else None
