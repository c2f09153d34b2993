"""The plan's lamps at the cells that a frame shows, and what every deviation would make of them.

    ln light = ln( sum over lamps: level x colour x (own light at its place + what the set returns of it) + the rest )
               + exposure + white balance + the lens's fall-off

Data are logarithms: of the key channel, and of the other two channels over it. Exposure, balance and lens add.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np

from ..camera.level_schools import key_channel
from ..colour.white_point import light_rgb
from ..geometry.vectors import Floats
from ..light.basis import BasisStore, lamp_maps, weights
from ..light.body_shade import body_maps_at
from ..light.cloth import sheen_shares
from ..light.direct import direct_lux_facing
from ..light.emission import emission_of
from ..light.figure_shadow import hidden_round, lost_maps
from ..light.mix import lamp_rgb
from ..light.occlusion import before_wall, set_triangles
from ..light.returned import returned_maps, returned_to_screen, scene_light
from ..light.total import light_around
from ..plan import Light, Plan
from .face_light import face_light, on_face
from .observed_face import ObservedFace, face_zones
from .observed_light import ObservedCells, ObservedLight

STEP = 0.02
"""Places are moved by this to see what that changes, m."""
NEARLY, ABOUT = 0.1, 0.2
REMEMBERED = 400
MUCH, SKIN_LIKE, TOO_BRIGHT = 0.3, 0.6, 0.8
"""A lamp gives much of a face's light from this share on; a place whose colour is further from the planned skin's,
ln, or that is brighter by more, is taken for something else than that face."""
LOWEST = 0.3
"""No stand is nearer to the screen or the floor, m."""


@dataclass(frozen=True)
class Deviations:
    """What may differ from the plan: of every lamp its light over planned (L,), its colour in mired and in
    thousandths of Duv (L,), its place in m (L, 3); of the camera the exposure (ln), its balance in mired and green,
    and the lens's fall-off at the corner in two orders (ln)."""

    level: Floats
    mired: Floats
    green: Floats
    place: Floats
    camera: Floats = field(default_factory=lambda: np.zeros(5))

    @classmethod
    def none(cls, lamps: int) -> Deviations:
        return cls(np.ones(lamps), np.zeros(lamps), np.zeros(lamps), np.zeros((lamps, 3)))

    @property
    def vector(self) -> Floats:
        """All of it (5 + 6 L,): camera, then lamp by lamp level, mired, green, x, y, z."""
        each = np.column_stack([self.level, self.mired, self.green, self.place])
        return np.concatenate([self.camera, each.ravel()])

    @classmethod
    def of(cls, vector: Floats) -> Deviations:
        each = vector[5:].reshape(-1, 6)
        return cls(each[:, 0], each[:, 1], each[:, 2], each[:, 3:], vector[:5])


PER_LAMP = 6


@dataclass(frozen=True, eq=False)
class LightModel:
    """`own` (L, N): each lamp's light first-hand as planned, shadows taken off, `left` (L, N): what those leave of
    it; `look` (L, N, 3): how much brighter its sheen makes it; `returned` (L, N, 3): what the set sends back of it
    when white; `rest` (N, 3); `key`: the channel of the level."""

    plan: Plan
    observed: ObservedLight
    lamps: tuple[int, ...]
    own: Floats
    left: Floats
    look: Floats
    returned: Floats
    rest: Floats
    key: int
    store: BasisStore

    @cached_property
    def lamp_list(self) -> list[Light]:
        return [self.plan.lights[i] for i in self.lamps]

    @cached_property
    def others(self) -> tuple[int, int]:
        first, second = (c for c in range(3) if c != self.key)
        return first, second

    @property
    def count(self) -> int:
        return int(self.own.shape[1])

    @cached_property
    def as_planned(self) -> Deviations:
        return Deviations.none(len(self.lamps))

    def data(self, light: Floats) -> Floats:
        """Logarithms (N,) or (3 N,) of light (N, 3): level, and the other channels over it where they are known."""
        logs = np.log(np.maximum(light, 1e-6))
        level = logs[:, self.key]
        if not self.observed.coloured:
            return np.asarray(level)
        return np.concatenate([level, *(logs[:, c] - level for c in self.others)])

    def lamp_light(self, by: Deviations) -> Floats:
        """Each lamp's light (L, N, 3) with what deviates of it."""
        colour = np.array([self._colour(i, by) for i in range(len(self.lamps))])
        own = np.array([self._own(i, by.place[i]) for i in range(len(self.lamps))]).reshape(self.own.shape)
        returned = np.array([self._around(i, by.place[i])[1] for i in range(len(self.lamps))])
        back = returned.reshape(self.returned.shape)
        return np.asarray(by.level[:, None, None] * colour[:, None, :] * (own[:, :, None] * self.look + back))

    def light(self, by: Deviations) -> tuple[Floats, Floats]:
        """All of it (N, 3), and each lamp's (L, N, 3), without what the camera makes of it."""
        each = self.lamp_light(by)
        rest = self.rest * self._balance_gains(by.camera[1], by.camera[2])
        return np.maximum(each.sum(axis=0) + rest, 1e-6), each

    def predicted(self, by: Deviations) -> Floats:
        """The data (N,) or (3 N,) that deviations would give."""
        total, _ = self.light(by)
        return np.asarray(self.data(total) + self._camera @ by.camera)

    def _balance_gains(self, mired: float, green: float) -> Floats:
        """What another white balance does to light (3,) that is white under the planned one."""
        camera = self.plan.camera
        kelvin, tint = camera.white_balance_k, camera.tint
        return light_rgb(kelvin, tint / 1000.0, shifted(kelvin, -mired), tint - green)

    @cached_property
    def _camera(self) -> Floats:
        """What exposure and lens add, per unit (M, 5); balance and green are no straight lines and added apart."""
        off = (self.observed.frame - 0.5) * (self.plan.camera.sensor.px_w, self.plan.camera.sensor.px_h)
        corner = 0.25 * (self.plan.camera.sensor.px_w**2 + self.plan.camera.sensor.px_h**2)
        r2 = (off * off).sum(axis=1) / corner
        zero = np.zeros(self.count)
        level = np.column_stack([np.ones(self.count), zero, zero, -r2, -r2 * r2])
        return np.vstack([level, np.zeros((2 * self.count, 5))]) if self.observed.coloured else level

    def slopes(self, by: Deviations) -> Floats:
        """How the data change with each deviation: (M, 5 + 6 L)."""
        total, each = self.light(by)
        columns = [self._camera[:, k] for k in range(5)]
        for k, step in ((1, 2.0), (2, 1.0)):
            aside = step * np.eye(5)[k]
            columns[k] = self._share(self._rebalanced(by, each, aside) / (2.0 * step * total))
        for i in range(len(self.lamps)):
            colour, place = self._colour(i, by), by.place[i]
            whole = colour * (self._own(i, place)[:, None] * self.look[i] + self._around(i, place)[1])
            columns.append(self._share(whole / total))
            for m, g in ((2.0, 0.0), (0.0, 1.0)):
                less, more = (self._colour(i, by, side * m, side * g) for side in (-1.0, 1.0))
                columns.append(self._share(each[i] * np.log(more / less) / (2.0 * (m + g)) / total))
            for slope in self._place_slopes(i, place):
                columns.append(self._share(by.level[i] * colour * slope[:, None] * self.look[i] / total))
        return np.column_stack(columns)

    def _rebalanced(self, by: Deviations, each: Floats, aside: Floats) -> Floats:
        """Difference (N, 3) of the light between a camera's balance on one side and on the other."""
        less, more = (replace(by, camera=by.camera + side * aside) for side in (-1.0, 1.0))
        turned = np.array([np.log(self._colour(i, more) / self._colour(i, less)) for i in range(len(self.lamps))])
        gains = [self._balance_gains(float(one.camera[1]), float(one.camera[2])) for one in (less, more)]
        return np.asarray((each * turned[:, None, :]).sum(axis=0) + self.rest * (gains[1] - gains[0]))

    def _share(self, change: Floats) -> Floats:
        """A relative change (N, 3) of the light, as one of the data."""
        level = change[:, self.key]
        if not self.observed.coloured:
            return level
        return np.concatenate([level, *(change[:, c] - level for c in self.others)])

    def _colour(self, i: int, by: Deviations, mired: float = 0.0, green: float = 0.0) -> Floats:
        """Weights (3,) of a lamp's colour under the camera's balance, as both deviate; `mired`, `green` on top."""
        lamp, camera = self.lamp_list[i], self.plan.camera
        kelvin = shifted(lamp.fixture.cct, float(by.mired[i]) + mired)
        duv = lamp.fixture.duv + (float(by.green[i]) + green) / 1000.0
        balance = shifted(camera.white_balance_k, -float(by.camera[1]))
        return np.asarray(light_rgb(kelvin, duv, balance, camera.tint - float(by.camera[2])) * np.array(lamp.gel))

    def _place_slopes(self, i: int, place: Floats) -> Floats:
        """Change of a lamp's own light per metre across, up and away (3, N)."""
        if np.abs(place).max() < NEARLY:
            return np.asarray(self._slopes_as_planned[i])
        return self._measured_slopes(i, place)

    def _own(self, i: int, place: Floats) -> Floats:
        """A lamp's own light (N,): for a hand's breadth along its slopes, beyond that worked out anew."""
        if np.abs(place).max() < NEARLY:
            return np.asarray(self.own[i] + place @ self._slopes_as_planned[i])
        return self.own_at(i, place)

    @cached_property
    def _slopes_as_planned(self) -> Floats:
        return np.array([self._measured_slopes(i, np.zeros(3)) for i in range(len(self.lamps))])

    def _measured_slopes(self, i: int, place: Floats) -> Floats:
        if self.lamp_list[i].is_daylight:
            return np.zeros((3, self.count))
        here = self.own_at(i, place)
        return np.array([(self.own_at(i, place + STEP * axis) - here) / STEP for axis in np.eye(3)])

    def _around(self, i: int, place: Floats) -> tuple[Floats, Floats]:
        """What shadows leave of a lamp's light (N,), and what the set returns of it (N, 3), with its stand about
        there: both change slowly."""
        tenth = tuple(int(v) for v in np.round(place / ABOUT)) if np.abs(place).max() >= NEARLY else (0, 0, 0)
        if tenth == (0, 0, 0):
            return self.left[i], self.returned[i]
        if (i, tenth) not in self._elsewhere:
            lamp, index = self.lamp_list[i], self.lamps[i]
            moved = lamp.model_copy(update={"position": _off_the_floor(lamp, ABOUT * np.array(tenth))})
            lights = (*self.plan.lights[:index], moved, *self.plan.lights[index + 1 :])
            plan = self.plan.model_copy(update={"lights": lights})
            parts = _parts(plan, self.observed, self.store)
            left, back = (np.concatenate([part[k][index] for part in parts]) for k in (1, 2))
            self._elsewhere[i, tenth] = left, weights(self.plan)[index] * back
        return self._elsewhere[i, tenth]

    @cached_property
    def _elsewhere(self) -> dict[tuple[int, tuple[int, ...]], tuple[Floats, Floats]]:
        return {}

    def own_at(self, i: int, by: Floats) -> Floats:
        """A lamp's own light (N,) with its stand moved by (3,) m, its aim kept; the last ones are remembered."""
        key = (i, by.tobytes())
        if key not in self._moved:
            if len(self._moved) > REMEMBERED:
                self._moved.clear()
            self._moved[key] = self._own_moved(i, by)
        return self._moved[key]

    @cached_property
    def _moved(self) -> dict[tuple[int, bytes], Floats]:
        return {}

    def _own_moved(self, i: int, by: Floats) -> Floats:
        lamp = self.lamp_list[i]
        weight = weights(self.plan)[self.lamps[i]]
        moved = lamp.model_copy(update={"position": _off_the_floor(lamp, by)})
        emission = emission_of(moved, self.plan)
        parts = []
        for one in self.observed.surfaces:
            seen, facing = one.seen.ravel(), one.grid.facing()
            toward = facing if facing.ndim == 1 else facing[seen]
            blocks = before_wall(self.plan) if one.grid.sheet.name == "wall" else set_triangles(self.plan)
            points = one.grid.points()[seen]
            parts.append(direct_lux_facing(emission, points, toward, blocks, most=3) if len(points) else np.zeros(0))
        if self.observed.face is not None and self.plan.subject is not None:
            parts.append(on_face(emission, face_zones(self.plan, self.plan.subject), self.plan))
        return np.asarray(weight * self._around(i, by)[0] * np.concatenate(parts))


def _off_the_floor(lamp: Light, by: Floats) -> tuple[float, float, float]:
    x, y, z = np.array(lamp.position) + by
    return float(x), max(LOWEST, float(y)), max(LOWEST, float(z))


def shifted(kelvin: float, mired: float) -> float:
    """A colour temperature so many mired warmer, K."""
    return min(max(1e6 / max(1e6 / kelvin + mired, 30.0), 1000.0), 25000.0)


def light_model_of(plan: Plan, observed: ObservedLight, store: BasisStore) -> LightModel:
    """Without the face where no lamp gives much of its light, or what is seen there can be no such face."""
    lit = weights(plan)
    lamps = tuple(int(i) for i in np.flatnonzero(lit > 0.0))
    parts = _parts(plan, observed, store)
    own, left, white, look = (np.concatenate([part[k] for part in parts], axis=1) for k in range(4))
    rest = np.concatenate([part[4] for part in parts])
    some = list(lamps)
    model = LightModel(
        plan, observed, lamps,
        own=lit[some, None] * own[some], left=left[some], look=look[some],
        returned=lit[some, None, None] * white[some], rest=rest,
        key=key_channel(plan.screen.hue, np.array(plan.screen.reflectance)), store=store,
    )  # fmt: skip
    return model if observed.face is None or tells(model, observed.face) else _without_face(model)


def _without_face(model: LightModel) -> LightModel:
    n = model.observed.cells
    return replace(
        model, observed=replace(model.observed, face=None), own=model.own[:, :n], left=model.left[:, :n],
        look=model.look[:, :n], returned=model.returned[:, :n], rest=model.rest[:n],
    )  # fmt: skip


def tells(model: LightModel, face: ObservedFace) -> bool:
    """Does the face tell of a lamp, and is it one?"""
    total, each = model.light(model.as_planned)
    seen = slice(model.observed.cells, None)
    share = each[:, seen, model.key].sum(axis=1) / total[seen, model.key].sum()
    off = np.log(np.maximum(face.rgb, 1e-6) / total[seen])
    colour = off - off[:, model.key, None]
    return bool(share.max() > MUCH and np.abs(colour).max() < SKIN_LIKE and off.mean() < TOO_BRIGHT)


def _parts(plan: Plan, observed: ObservedLight, store: BasisStore) -> list[tuple[Floats, ...]]:
    parts = [_of_surface(plan, one, store) for one in observed.surfaces]
    return parts if observed.face is None else [*parts, face_light(plan, store)]


def _of_surface(plan: Plan, one: ObservedCells, store: BasisStore) -> tuple[Floats, ...]:
    """Of a surface's seen cells: each lamp's own light at full power less what is lost (L, N), what is left of it
    (L, N), what returns of it when it is white (L, N, 3), its look with sheen over without (L, N, 3), and light of no
    lamp (N, 3)."""
    grid, seen, camera = one.grid, one.seen, plan.camera
    left = (1.0 - lost_maps(plan, grid, store)) * (1.0 - body_maps_at(plan, grid, store))
    own = lamp_maps(plan, grid, store) * left
    tint = np.array([lamp_rgb(plan, lamp) for lamp in plan.lights]).reshape(-1, 1, 1, 3)
    white = returned_maps(plan, grid, store) / np.maximum(tint, 1e-6)
    dark = plan.model_copy(update={"lights": ()})
    rest = light_around(plan, grid) + returned_to_screen(grid, scene_light(dark, store), store)
    rest = np.broadcast_to(rest, (*grid.shape, 3))
    look = np.ones((*own.shape, 3))
    if grid.sheet.name != "wall":
        open_to = 1.0 - hidden_round(plan, grid, store)
        white, rest = white * open_to[..., None], rest * open_to[..., None]
        lens = np.array([camera.x, camera.y, camera.z])
        look = look + sheen_shares(plan, grid, lens, store)[..., None] / np.maximum(plan.screen.reflectance, 0.01)
    return own[:, seen], left[:, seen], white[:, seen], look[:, seen], rest[seen]
