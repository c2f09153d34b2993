"""Floor and section as lines in metres, for whatever draws them: paper, or a picture in an open format.

floor    along z, away from the screen, to the right; x, right of the camera, upwards
section  the same along; height upwards
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

import numpy as np

from ..camera.screen_grid import shown_sheets
from ..evaluation.results import Evaluation
from ..geometry.vectors import Floats
from ..light.emission import emission_of
from ..light.lamp_bodies import HEAD, stands
from ..plan import EYE_HEIGHT, Light, Plan, Subject, people_of
from ..sentences import Units, length

Kind = Literal["room", "screen", "flag", "pane", "sight", "action", "figure", "camera", "lamp", "aim", "stand"]
Pair = tuple[float, float]


@dataclass(frozen=True)
class Stroke:
    """A line through places in m; `closed` joins its ends."""

    kind: Kind
    points: tuple[Pair, ...]
    closed: bool = False


@dataclass(frozen=True)
class Label:
    """Words at a place in m: the number of a lamp, what stands there, or a note that ends there."""

    text: str
    at: Pair
    kind: Literal["lamp", "place", "note"] = "place"


@dataclass(frozen=True)
class Dimension:
    """A measure between two places in m of one view, drawn `row` steps outside of it."""

    start: Pair
    end: Pair
    text: str
    row: int = 0


@dataclass(frozen=True)
class SetView:
    """`low`, `high`: corners of what is drawn, m."""

    name: Literal["Floor", "Section"]
    low: Pair
    high: Pair
    strokes: tuple[Stroke, ...]
    labels: tuple[Label, ...]
    dimensions: tuple[Dimension, ...]


FLOOR, SECTION = (2, 0), (2, 1)
"""Which of x, y, z go to the right and up."""
NEAR, AIM = 0.3, 0.9
"""Room round what is drawn where no wall ends it, and how long a lamp's aim is drawn, m."""


def set_views(evaluation: Evaluation, units: Units) -> tuple[SetView, SetView]:
    """Floor and section of the set, over the same stretch of z."""
    plan = evaluation.plan
    low, high = _extent(plan)
    floor = _Flat(evaluation, FLOOR)
    section = _Flat(evaluation, SECTION)
    return (
        SetView(
            "Floor", (low[2], low[0]), (high[2], high[0]), tuple(floor.strokes()),
            (*floor.labels(), *_sides(low, high)),
            tuple(_floor_measures(plan, low, units)),
        ),
        SetView(
            "Section", (low[2], 0.0), (high[2], high[1]), tuple(section.strokes()), tuple(section.labels()),
            tuple(_section_measures(plan, high, units)),
        ),
    )  # fmt: skip


def standing(plan: Plan) -> list[tuple[int, Light]]:
    """Lamps with their number on paper; a sun stands nowhere."""
    return [(n, lamp) for n, lamp in enumerate(plan.lights, 1) if not lamp.is_daylight]


def _extent(plan: Plan) -> tuple[Floats, Floats]:
    screen, camera, room = plan.screen, plan.camera, plan.room
    half = screen.width / 2.0
    places = [lamp.position for _, lamp in standing(plan)] + [(camera.x, camera.y, camera.z)]
    places += [(one.x, one.top, one.z) for one in people_of(plan)]
    places += [(screen.x_centre - half, 0.0, 0.0), (screen.x_centre + half, screen.bottom + screen.height, 0.0)]
    spread = np.array(places)
    low, high = spread.min(axis=0) - NEAR, spread.max(axis=0) + NEAR
    if room.kind == "interior":
        low = np.minimum(low, [room.x_min, 0.0, room.z_min])
        high = np.maximum(high, [room.x_max, room.height, room.z_max])
    return low, high


class _Flat:
    """The set seen along one axis."""

    def __init__(self, evaluation: Evaluation, axes: tuple[int, int]) -> None:
        self.plan, self.view, self.axes = evaluation.plan, evaluation.view, axes

    def strokes(self) -> Iterator[Stroke]:
        plan = self.plan
        if plan.room.kind == "interior":
            yield self._room()
        for sheet in shown_sheets(plan.screen):
            yield self._closed("screen", sheet.outline())
        for flag in plan.flags:
            yield self._closed("flag", np.array(flag.corners))
        if plan.window is not None:
            yield self._closed("pane", np.array(plan.window.corners))
        yield from self._sight()
        for person in people_of(plan):
            yield from self._person(person)
        for _, lamp in standing(plan):
            yield from self._lamp(lamp)

    def labels(self) -> Iterator[Label]:
        plan = self.plan
        for number, lamp in standing(plan):
            yield Label(str(number), self._at(np.array(lamp.position)), "lamp")
        camera = plan.camera
        yield Label("camera", self._at(np.array([camera.x, camera.y, camera.z])))
        if plan.subject is not None:
            yield Label("mark", self._at(np.array([plan.subject.x, 0.0, plan.subject.z])))
            for one in plan.companions:
                yield Label(one.name, self._at(np.array([one.x, 0.0, one.z])))

    def _at(self, place: Floats) -> Pair:
        return float(place[self.axes[0]]), float(place[self.axes[1]])

    def _line(self, kind: Kind, places: Floats) -> Stroke:
        return Stroke(kind, tuple(self._at(place) for place in places))

    def _closed(self, kind: Kind, places: Floats) -> Stroke:
        return Stroke(kind, tuple(self._at(place) for place in places), closed=True)

    def _room(self) -> Stroke:
        room = self.plan.room
        low, high = (room.x_min, room.x_max) if self.axes == FLOOR else (0.0, room.height)
        return Stroke("room", _corners(room.z_min, room.z_max, low, high), closed=True)

    def _sight(self) -> Iterator[Stroke]:
        """From the lens along the frame's edges to the screen's plane."""
        lens = self.view.lens
        edges = [[0.0, 0.5], [1.0, 0.5]] if self.axes == FLOOR else [[0.5, 0.0], [0.5, 1.0]]
        for ray in self.view.rays(np.array(edges)):
            if ray[2] < 0.0:
                # To the screen's plane, or to the floor where that comes first.
                far = -lens[2] / ray[2]
                if self.axes == SECTION and ray[1] < 0.0 < lens[1]:
                    far = min(far, -lens[1] / ray[1])
                yield self._line("sight", np.array([lens, lens + far * ray]))
        size = 0.16
        tip, back = lens, lens - size * self.view.axes[2]
        side = size * 0.6 * (self.view.axes[0] if self.axes == FLOOR else self.view.axes[1])
        yield self._closed("camera", np.array([tip, back + side, back - side]))

    def _person(self, subject: Subject) -> Iterator[Stroke]:
        reach = subject.envelope
        x0, x1 = subject.x - reach.left, subject.x + reach.right
        z0, z1 = subject.z - reach.back, subject.z + reach.front
        if self.axes == FLOOR:
            yield Stroke("action", _corners(z0, z1, x0, x1), closed=True)
            yield self._ring("figure", (subject.z, subject.x), 0.14, 0.23)
            return
        yield Stroke("action", _corners(z0, z1, 0.0, subject.top + reach.up), closed=True)
        neck = subject.up(2.0 * EYE_HEIGHT - 1.0)
        head = (subject.top - neck) / 2.0
        yield Stroke("figure", _corners(subject.z - 0.12, subject.z + 0.12, 0.0, neck), closed=True)
        yield self._ring("figure", (subject.z, neck + head), head, head)

    def _ring(self, kind: Kind, at: Pair, a: float, b: float) -> Stroke:
        turn = np.linspace(0.0, 2.0 * np.pi, 25)[:-1]
        return Stroke(
            kind, tuple((at[0] + a * float(np.cos(t)), at[1] + b * float(np.sin(t))) for t in turn), closed=True
        )

    def _lamp(self, lamp: Light) -> Iterator[Stroke]:
        here, aim = np.array(lamp.position), np.array(lamp.aim)
        far = max(float(np.linalg.norm(aim - here)), 1e-6)
        yield self._line("aim", np.array([here, here + (aim - here) * min(1.0, AIM / far)]))
        face = emission_of(lamp, self.plan).face
        if face.area > 0.0:
            yield self._closed("lamp", face.outline)
        else:
            yield self._ring("lamp", self._at(here), HEAD, HEAD)
        if self.axes == SECTION and stands(self.plan, lamp):
            yield self._line("stand", np.array([here, [here[0], 0.0, here[2]]]))


def _sides(low: Floats, high: Floats) -> Iterator[Label]:
    """Left and right as the camera sees them, in the corners behind it."""
    at = float(high[2]) - 0.15
    yield Label("right, as the camera sees", (at, float(high[0]) - 0.4), "note")
    yield Label("left, as the camera sees", (at, float(low[0]) + 0.2), "note")


def _corners(a0: float, a1: float, b0: float, b1: float) -> tuple[Pair, ...]:
    return (a0, b0), (a1, b0), (a1, b1), (a0, b1)


def _floor_measures(plan: Plan, low: Floats, units: Units) -> Iterator[Dimension]:
    """Along the line from screen to camera below the floor, the screen's width beside it, and the room's sides."""
    edge, camera = float(low[0]), plan.camera
    stops = [0.0, *([plan.subject.z] if plan.subject is not None else []), camera.z]
    for a, b in pairwise(stops):
        yield Dimension((a, edge), (b, edge), length(b - a, units))
    left, right = plan.screen.x_centre - plan.screen.width / 2.0, plan.screen.x_centre + plan.screen.width / 2.0
    yield Dimension((float(low[2]), left), (float(low[2]), right), length(right - left, units))
    room = plan.room
    if room.kind == "interior":
        yield Dimension((room.z_min, edge), (room.z_max, edge), length(room.z_max - room.z_min, units), row=1)
        across = length(room.x_max - room.x_min, units)
        yield Dimension((float(low[2]), room.x_min), (float(low[2]), room.x_max), across, row=1)


def _section_measures(plan: Plan, high: Floats, units: Units) -> Iterator[Dimension]:
    """Heights: of the screen at its side of the drawing, of lens and room at the other."""
    screen, camera, far = plan.screen, plan.camera, float(high[2])
    top = screen.bottom + screen.height
    near = min(0.0, plan.room.z_min) if plan.room.kind == "interior" else -NEAR
    yield Dimension((near, screen.bottom), (near, top), length(screen.height, units))
    yield Dimension((far, 0.0), (far, camera.y), f"lens {length(camera.y, units)}")
    if plan.room.kind == "interior":
        yield Dimension((far, 0.0), (far, plan.room.height), length(plan.room.height, units), row=1)
