"""The room that the camera sees beside the screen: walls, floor, ceiling, the wall round a window, as they are lit.

Only what the frame shows is worked out, on a lattice as fine as it is near; returned light on a coarser one.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import cv2
import numpy as np

from ..camera.exposure import grey_lux
from ..camera.screen_grid import curve_radius, sheets_of
from ..camera.sheet_met import met
from ..camera.view import View, view_key
from ..figure.solid_body import SolidBody, solid_body
from ..geometry.quantiles import quantiles
from ..geometry.vectors import AsGiven, Bools, Floats, Reals
from ..light.basis import BasisStore
from ..light.body_light import shadow_on
from ..light.body_overhead import hidden_from_above
from ..light.direct import direct_lux
from ..light.emission import emission_of
from ..light.keys import blocking_key, framing_key, lamp_keys, together
from ..light.mix import ambient_rgb, summed
from ..light.occlusion import set_triangles
from ..light.past_cards import returned_past_cards
from ..light.past_people import beside_even_light
from ..light.returned import SceneLight, close_at_ends, linear_between, probe_factors
from ..plan import Light, Plan, Subject, people_of

Span = tuple[float, float]
ALONG = ((2, 1), (0, 2), (0, 1))
"""The two axes along a side whose normal is x, y or z."""
SEEN_BY = (128, 72)
"""Rays over the frame by which it is found what of a side is seen."""
NODES, RETURNED_NODES = 56, 12
"""Places along each way of what is seen of a side: for lamps, and for what comes back."""
STRAY = 0.01
"""Share of the places seen, at either end, that the lattice need not reach: beyond it all goes on as at its end."""
ROUND_SEEN = 0.3
"""The lattice reaches at least so far beyond what is seen of a side, m."""
FEET = 0.8
"""Round the feet, m."""
SOFTER = 0.8
"""Steps of the lattice over which light is evened, so that a border across it does not show its steps."""
OPEN_AIR = 100.0
"""How far the ground reaches outdoors, m."""
ROUND_THE_SET = 3.0
"""The ground is lit by the set's lamps as far round them, screen and camera, m; beyond it goes on as it is there."""


@dataclass(frozen=True)
class Side:
    """A flat part of the room across an axis (0 x, 1 y, 2 z) at `at` m that faces up or down that axis; `spans` in m
    along its other two axes; `opening`: what is cut out of it, a window's pane."""

    axis: int
    at: float
    facing: float
    spans: tuple[Span, Span]
    ink: tuple[float, float, float]
    opening: tuple[Span, Span] | None = None

    @property
    def is_floor(self) -> bool:
        return self.axis == 1 and self.facing > 0.0

    @property
    def normal(self) -> Floats:
        return np.asarray(self.facing * np.eye(3)[self.axis])

    def places(self, u: Floats, v: Floats) -> Floats:
        """Places (V * U, 3) over u (U,) and v (V,) in m, by rows of v."""
        found = np.empty((len(v), len(u), 3))
        first, second = ALONG[self.axis]
        found[..., self.axis] = self.at
        found[..., first], found[..., second] = np.meshgrid(u, v)
        return found.reshape(-1, 3)

    def depth_at(self, u: Reals, v: Reals) -> Reals:
        """z of places on it, m."""
        if self.axis == 2:
            return np.full_like(u, self.at)
        return (u, v)[ALONG[self.axis].index(2)]

    def part_of(self, other: Side) -> bool:
        """Is it a piece of another side, and not that one?"""
        (u0, u1), (v0, v1) = self.spans
        (low_u, high_u), (low_v, high_v) = other.spans
        within = low_u <= u0 and u1 <= high_u and low_v <= v0 and v1 <= high_v
        same = (self.axis, self.at, self.facing) == (other.axis, other.at, other.facing)
        return same and within and self.spans != other.spans

    def met(self, lens: Floats, rays: AsGiven) -> tuple[AsGiven, AsGiven, AsGiven]:
        """How far along each ray (..., 3) its front is met (inf: nowhere), and where on it; as closely as the rays
        are given."""
        toward = rays[..., self.axis].copy()
        on = toward * self.facing < -1e-9
        reach = float(self.at - lens[self.axis]) / np.where(on, toward, np.inf)
        u, v = (
            np.asarray(float(lens[axis]) + reach * rays[..., axis], dtype=rays.dtype) for axis in ALONG[self.axis]
        )
        on &= (reach > 0.0) & _within(u, v, self.spans)
        if self.opening is not None:
            on &= ~_within(u, v, self.opening)
        return np.where(on, reach, np.inf), u, v


def _within(u: Reals, v: Reals, spans: tuple[Span, Span]) -> Bools:
    (u0, u1), (v0, v1) = spans
    return np.asarray((u >= u0) & (u <= u1) & (v >= v0) & (v <= v1))


@dataclass(frozen=True, eq=False)
class LitSide:
    """A side as it looks: linear light (V, U, 3), white = 1, over u (U,) and v (V,) in m."""

    side: Side
    u: Floats
    v: Floats
    look: Floats

    def shows(self, side: Side, spans: tuple[Span, Span]) -> bool:
        """Is what would be worked out of a side known here, but for what lies round what is seen of it?"""
        return (side.axis, side.at) == (self.side.axis, self.side.at) and all(
            known[0] - ROUND_SEEN <= low and high <= known[-1] + ROUND_SEEN
            for known, (low, high) in zip((self.u, self.v), spans, strict=True)
        )


def sides_of(plan: Plan) -> tuple[Side, ...]:
    """Walls, floor and ceiling of a room, the ground of an exterior, and the wall that a window is in."""
    room, ink = plan.room, plan.room.reflectance
    x, y, z = (room.x_min, room.x_max), (0.0, room.height), (room.z_min, room.z_max)
    if room.kind == "exterior":
        wide = (-OPEN_AIR, OPEN_AIR)
        sides = [Side(1, 0.0, 1.0, (wide, wide), ink.floor)]
    else:
        sides = [
            Side(0, x[0], 1.0, (z, y), ink.walls),
            Side(0, x[1], -1.0, (z, y), ink.walls),
            Side(1, 0.0, 1.0, (x, z), ink.floor),
            Side(1, room.height, -1.0, (x, z), ink.ceiling),
            Side(2, z[0], 1.0, (x, y), ink.walls),
            Side(2, z[1], -1.0, (x, y), ink.walls),
        ]
    if plan.window is not None and plan.window.in_wall:
        (left, low, at), _, (right, high, _), _ = plan.window.corners
        sides.append(Side(2, at, 1.0, (x, y), ink.walls, ((left, right), (low, high))))
    return tuple(sides)


def lit_room(plan: Plan, view: View, light: SceneLight, store: BasisStore) -> tuple[LitSide, ...]:
    """The sides that the frame shows, as they are lit."""
    return tuple(_lit(plan, side, spans, light, store) for side, spans in sides_seen(plan, view, store))


def sides_seen(plan: Plan, view: View, store: BasisStore) -> tuple[tuple[Side, tuple[Span, Span]], ...]:
    """The sides that the frame shows, and what of each."""
    # Outdoors the ground is worked out as far as there are lamps.
    lamps = () if plan.room.kind == "interior" else lamp_keys(plan)
    key = "sides seen", framing_key(plan), view_key(view), lamps
    return store.record(key, lambda: tuple(_seen(plan, view)))


def _seen(plan: Plan, view: View) -> Iterator[tuple[Side, tuple[Span, Span]]]:
    """Sides that are seen, and what of each is, with one step of the rays round it."""
    frame = np.stack(np.meshgrid(*(np.arange(n + 1) / n for n in SEEN_BY)), axis=-1)
    rays, sides = view.rays(frame), sides_of(plan)
    reaches = [side.met(view.lens, rays) for side in sides]
    on_screen = [met(sheet, curve_radius(plan.screen), view.lens, rays)[0] for sheet in sheets_of(plan.screen)]
    nearest = np.min([*(reach for reach, _, _ in reaches), *(reach - 1e-6 for reach in on_screen)], axis=0)
    for side, (reach, u, v) in zip(sides, reaches, strict=True):
        shown = np.isfinite(reach) & (reach <= nearest)
        if shown.any():
            on_u, on_v = side.spans if plan.room.kind == "interior" else _round_the_set(plan)
            if side.is_floor:
                for person in people_of(plan):
                    yield from _round_the_feet(side, person, u[shown], v[shown])
            yield side, (_span(u[shown], on_u), _span(v[shown], on_v))


def _round_the_feet(floor: Side, subject: Subject, x: Floats, z: Floats) -> Iterator[tuple[Side, tuple[Span, Span]]]:
    """A part of the floor of its own, on a closer lattice, where feet and their shadows are seen."""
    spans = tuple(
        (max(at - FEET, span[0]), min(at + FEET, span[1]))
        for at, span in zip((subject.x, subject.z), floor.spans, strict=True)
    )
    (x0, x1), (z0, z1) = spans
    if x0 < x1 and z0 < z1 and np.any((x > x0) & (x < x1) & (z > z0) & (z < z1)):
        yield replace(floor, spans=((x0, x1), (z0, z1))), ((x0, x1), (z0, z1))


def _span(places: Floats, whole: Span) -> Span:
    """From the least to the greatest of nearly all places, with some more, within the whole: a ray that slips through
    a seam of the screen makes no lattice coarse."""
    low, high = np.clip(quantiles(places, (STRAY, 1.0 - STRAY)), *whole)
    more = max(ROUND_SEEN, 0.1 * (high - low))
    return max(float(low - more), whole[0]), min(float(high + more), whole[1])


def _round_the_set(plan: Plan) -> tuple[Span, Span]:
    """Across and away from the screen, x and z in m."""
    half, camera = plan.screen.width / 2.0, plan.camera
    ends = [(plan.screen.x_centre - half, 0.0), (plan.screen.x_centre + half, 0.0), (camera.x, camera.z)]
    ends += [(lamp.position[0], lamp.position[2]) for lamp in plan.lights if not lamp.is_daylight]
    low, high = np.min(ends, axis=0) - ROUND_THE_SET, np.max(ends, axis=0) + ROUND_THE_SET
    return (float(low[0]), float(high[0])), (float(low[1]), float(high[1]))


def _lit(plan: Plan, side: Side, spans: tuple[Span, Span], light: SceneLight, store: BasisStore) -> LitSide:
    u, v = (np.linspace(*span, NODES) for span in spans)
    few_u, few_v = (low + (high - low) * close_at_ends(RETURNED_NODES) for low, high in spans)
    places, coarse = side.places(u, v), side.places(few_u, few_v)
    facing = np.array(np.broadcast_to(side.normal, coarse.shape))
    factors = probe_factors(light.scene, coarse, facing, store)
    back = returned_past_cards(plan, light, factors, coarse, facing, store)
    if side.is_floor:
        back *= beside_even_light(plan, coarse, facing, light, store)
    back = back.reshape(RETURNED_NODES, RETURNED_NODES, 3)
    to_u, to_v = linear_between(few_u, u, store), linear_between(few_v, v, store)
    around = np.einsum("vj,ui,jic->vuc", to_v, to_u, back, optimize=True) + ambient_rgb(plan, side.normal)
    bodies = [solid_body(one, plan.camera) for one in people_of(plan)] if side.is_floor else []
    for body in bodies:
        around = around * (1.0 - hidden_from_above(body, places).reshape(NODES, NODES, 1))
    lamps = _by_lamp(plan, side, spans, places, bodies, store)
    lux = around + (summed(plan, lamps) if plan.lights else 0.0)
    lux = cv2.GaussianBlur(lux, (0, 0), SOFTER, borderType=cv2.BORDER_REPLICATE)
    return LitSide(side, u, v, np.array(side.ink) * lux / grey_lux(plan.camera))


def _by_lamp(
    plan: Plan, side: Side, spans: tuple[Span, Span], places: Floats, bodies: Sequence[SolidBody], store: BasisStore
) -> Floats:
    """Light (L, V, U) of each lamp at full power, less what people's bodies keep off."""
    occluders = set_triangles(plan)

    def of(lamp: Light) -> Floats:
        emission = emission_of(lamp, plan)
        lux = direct_lux(emission, places, side.normal, occluders)
        for body in bodies:
            lux = lux * (1.0 - shadow_on(body, emission, places))
        return lux.reshape(NODES, NODES)

    ground = together("side", side, spans, tuple(body.key for body in bodies), blocking_key(plan))
    return np.stack(store.each_lamp(plan, ground, of)) if plan.lights else np.zeros((0, NODES, NODES))
