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
from ..colour.white_point import lights_rgb
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
from .observed_face import FaceZones, ObservedFace, face_zones
from .observed_light import ObservedCells, ObservedLight

STEP = 0.02
"""Places are moved by this to see what that changes, m."""
NEARLY, ABOUT = 0.1, 0.2
STEPS_ASIDE = np.array([2.0, 1.0, 2.0, 1.0])
"""So far colours are turned to see what that changes: a lamp's mired and green, and the camera's."""
AS_IT_IS = np.zeros((1, 4))
ASIDE = np.vstack([AS_IT_IS, *(side * row for row in np.diag(STEPS_ASIDE) for side in (-1.0, 1.0))])
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

    def light(self, by: Deviations) -> tuple[Floats, Floats]:
        """All of it (N, 3), and each lamp's (L, N, 3), without what the camera makes of it."""
        (tints,) = self._tints(by, AS_IT_IS)
        each = by.level[:, None, None] * self._undimmed(by, tints[:-1])
        return np.maximum(each.sum(axis=0) + self.rest * tints[-1], 1e-6), each

    def predicted(self, by: Deviations) -> Floats:
        """The data (N,) or (3 N,) that deviations would give."""
        total, _ = self.light(by)
        return np.asarray(self.data(total) + self._camera @ by.camera)

    def _undimmed(self, by: Deviations, colours: Floats) -> Floats:
        """Light (L, N, 3) of lamps in their colours (L, 3) at the level that is planned."""
        own = self.own + (by.place[:, None, :] @ self._slopes_as_planned)[:, 0]
        back = self.returned
        # For a hand's breadth along its slopes, beyond that worked out anew.
        far = np.flatnonzero(np.abs(by.place).max(axis=1) >= NEARLY)
        if len(far):
            back = back.copy()
        for i in far:
            own[i], back[i] = self.own_at(int(i), by.place[i]), self._around(int(i), by.place[i])[1]
        return np.asarray(colours[:, None, :] * (own[:, :, None] * self.look + back))

    def _tints(self, by: Deviations, aside: Floats) -> Floats:
        """Weights (V, L + 1, 3) of the lamps' colours under the camera's balance, and of what is white under the
        planned one, as they deviate and in ways (V, 4) aside of that: the lamps' mired and green, the camera's."""
        cct, duv, gel = self._colours
        camera, off = self.plan.camera, aside.T[:, :, None]
        own = np.ones(len(cct))
        own[-1] = 0.0
        kelvin = all_shifted(cct, np.append(by.mired, 0.0) + own * off[0])
        greener = duv + (np.append(by.green, 0.0) + own * off[1]) / 1000.0
        balance = all_shifted(np.array(camera.white_balance_k), -(by.camera[1] + off[2]))
        return lights_rgb(kelvin, greener, balance, camera.tint - (by.camera[2] + off[3])) * gel

    @cached_property
    def _colours(self) -> tuple[Floats, Floats, Floats]:
        """Of the lamps, and of a light that is white under the planned balance: kelvin, Duv, the gel (L + 1, 3)."""
        camera, fixtures = self.plan.camera, [lamp.fixture for lamp in self.lamp_list]
        return (
            np.array([*(one.cct for one in fixtures), camera.white_balance_k]),
            np.array([*(one.duv for one in fixtures), camera.tint / 1000.0]),
            np.array([*(lamp.gel for lamp in self.lamp_list), (1.0, 1.0, 1.0)]),
        )

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
        tints = self._tints(by, ASIDE)
        less, more = tints[1::2], tints[2::2]
        turned = np.log(more / less) / (2.0 * STEPS_ASIDE[:, None, None])
        colours, turned = tints[0, :-1], turned[:, :-1, None, :]
        undimmed = self._undimmed(by, colours)
        each = by.level[:, None, None] * undimmed
        total = np.maximum(each.sum(axis=0) + self.rest * tints[0, -1], 1e-6)
        gains = (more - less)[2:, -1, None, :] / (2.0 * STEPS_ASIDE[2:, None, None])
        balance = self._share(((each * turned[2:]).sum(axis=1) + self.rest * gains) / total)
        moved = np.array([self._place_slopes(i, place) for i, place in enumerate(by.place)])
        moved = (by.level[:, None] * colours)[:, None, None, :] * moved[..., None] * self.look[:, None]
        warmer = each[:, None] * np.moveaxis(turned[:2], 0, 1)
        lamps = np.concatenate([undimmed[:, None], warmer, moved], axis=1)
        columns = self._share(lamps.reshape(-1, self.count, 3) / total)
        return np.vstack([self._camera.T[:1], balance, self._camera.T[3:], columns]).T

    def _share(self, change: Floats) -> Floats:
        """Relative changes (..., N, 3) of the light, as changes (..., M) of the data."""
        level = change[..., self.key]
        if not self.observed.coloured:
            return level
        return np.concatenate([level, *(change[..., c] - level for c in self.others)], axis=-1)

    def _place_slopes(self, i: int, place: Floats) -> Floats:
        """Change of a lamp's own light per metre across, up and away (3, N)."""
        if np.abs(place).max() < NEARLY:
            return np.asarray(self._slopes_as_planned[i])
        return self._measured_slopes(i, place)

    @cached_property
    def _slopes_as_planned(self) -> Floats:
        return np.array([self._measured_slopes(i, np.zeros(3)) for i in range(len(self.lamps))])

    def _measured_slopes(self, i: int, place: Floats) -> Floats:
        if self.lamp_list[i].is_daylight:
            return np.zeros((3, self.count))
        # What is left and what returns is known about there only: a step between two such places is no slope.
        left, here = self._around(i, place)[0], self._bare_at(i, place)
        return np.array([left * (self._bare_at(i, place + STEP * axis) - here) / STEP for axis in np.eye(3)])

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
        """A lamp's own light (N,) with its stand moved by (3,) m, its aim kept."""
        return np.asarray(self._around(i, by)[0] * self._bare_at(i, by))

    def _bare_at(self, i: int, by: Floats) -> Floats:
        """The same before shadows take from it (N,); the last ones are remembered."""
        key = (i, by.tobytes())
        if key not in self._moved:
            if len(self._moved) > REMEMBERED:
                self._moved.clear()
            self._moved[key] = self._bare(i, by)
        return self._moved[key]

    @cached_property
    def _moved(self) -> dict[tuple[int, bytes], Floats]:
        return {}

    def _bare(self, i: int, by: Floats) -> Floats:
        lamp = self.lamp_list[i]
        moved = lamp.model_copy(update={"position": _off_the_floor(lamp, by)})
        emission = emission_of(moved, self.plan)
        parts = [direct_lux_facing(emission, *place, most=3) for place in self._seen_places if len(place[0])]
        if self._face is not None:
            parts.append(on_face(emission, self._face, self.plan))
        return np.asarray(weights(self.plan)[self.lamps[i]] * np.concatenate(parts))

    @cached_property
    def _seen_places(self) -> list[tuple[Floats, Floats, Floats]]:
        """Of each surface the seen cells (N, 3), where they face, and what may stand before them."""
        found = []
        for one in self.observed.surfaces:
            seen, facing = one.seen.ravel(), one.grid.facing()
            blocks = before_wall(self.plan) if one.grid.sheet.name == "wall" else set_triangles(self.plan)
            found.append((one.grid.points()[seen], facing if facing.ndim == 1 else facing[seen], blocks))
        return found

    @cached_property
    def _face(self) -> FaceZones | None:
        return (
            None
            if self.observed.face is None or self.plan.subject is None
            else face_zones(self.plan, self.plan.subject)
        )


def _off_the_floor(lamp: Light, by: Floats) -> tuple[float, float, float]:
    x, y, z = np.array(lamp.position) + by
    return float(x), max(LOWEST, float(y)), max(LOWEST, float(z))


def all_shifted(kelvin: Floats, mired: Floats) -> Floats:
    """Colour temperatures so many mired warmer, K."""
    return np.clip(1e6 / np.maximum(1e6 / kelvin + mired, 30.0), 1000.0, 25000.0)


def shifted(kelvin: float, mired: float) -> float:
    """A colour temperature so many mired warmer, K."""
    return float(all_shifted(np.array(kelvin), np.array(mired)))


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
