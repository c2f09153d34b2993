"""Even the screen: dimmers by least squares inside a search over heights, places and aims.

The search works on a coarse grid with each lamp's own light moved and what the room returns of it kept;
the result is judged by the whole evaluation, and taken only when it is better than before.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from ...camera.coverage import action_box
from ...camera.exposure import stops
from ...camera.screen_grid import Grid, seen_cells, sheets_of
from ...camera.view import view_of
from ...evaluation.evaluate import evaluate
from ...evaluation.results import Evaluation
from ...geometry.vectors import Bools, Floats, unit
from ...light.balance import Cells
from ...light.basis import BasisStore, lamp_maps
from ...light.direct import direct_lux, direct_lux_facing
from ...light.emission import Emission, emission_of
from ...light.mirror import in_pane
from ...light.mix import dimmed
from ...light.occlusion import NONE, before_wall, set_triangles
from ...light.total import light_without_lamps, total_maps
from ...plan import Change, Light, Plan, apply_changes, edit, people_of
from ...sentences import Sentence, tell
from ...standards.quantities import Lux, OpenStops
from ..moves import stand_inside
from ..rules.light_rules import wanted_lux
from ..rules.subject_rules import wanted_stops

GRID, SIDE_GRID = (15, 11), (9, 6)
STEPS = (0.5, 0.25, 0.1)
MOST_TRIALS = 210
CLOTH, ACTION = 0.45, 0.35
"""A stand keeps this far from the cloth and from the reach of the action, m."""
MOSTLY_OTHERS = 0.6
FACE_WEIGHS, FACE_FREE = 1.0, 0.1
"""A stop of the face beyond that many weighs as much as a stop of the screen's spread."""
FACE_KEPT = 0.3
"""A face may be so much further from its level, stops, for a more even screen by the same lamp."""
GOOD = 0.15
"""Nothing is gained by going on below this spread, stops."""


@dataclass(frozen=True)
class Freedoms:
    """What may be changed. Dimmers always may."""

    heights: bool = True
    positions: bool = False
    aims: bool = True


@dataclass(frozen=True)
class Even:
    """Changes that even the screen (empty: none was better), the spread and mean level before and after,
    what to do in words, and what is in the way."""

    changes: tuple[Change, ...]
    words: tuple[Sentence, ...]
    spread_before: OpenStops
    spread_after: OpenStops
    lux_before: Lux
    lux_after: Lux
    limits: tuple[Sentence, ...]


@dataclass(frozen=True)
class LampPlace:
    """A lamp's place and aim."""

    position: tuple[float, float, float]
    aim: tuple[float, float, float]


@dataclass
class _Search:
    """The coarse problem: what every lamp that may not change gives, and the maps of those that may."""

    plan: Plan
    cells: Cells
    indices: list[int]
    returned: Floats
    fixed: Floats
    target: float
    wanted: float
    serves_both: bool = False
    left: int = MOST_TRIALS

    def direct(self, index: int, trial: LampPlace) -> Floats:
        lamp = self.plan.lights[index].model_copy(update={"position": trial.position, "aim": trial.aim})
        emission = emission_of(lamp, self.plan)
        return np.concatenate([_direct(self.plan, emission, grid, cells) for grid, cells in self.cells])

    def cost(self, trials: list[LampPlace], maps: list[Floats]) -> tuple[Floats, float]:
        """Dimmers, and how uneven that is; by a lamp of the figures also what the face that it changes most loses or
        gains of its light."""
        dimmers, uneven = self.solve(maps)
        if not self.serves_both or self.plan.subject is None:
            return dimmers, uneven
        after = sum(by * self._on_faces(i, one) for i, one, by in zip(self.indices, trials, dimmers, strict=True))
        before, after = (np.maximum(lux, 1e-9) for lux in (self._faces_before, after))
        changed = float(np.abs(np.log2(before / after)).max())
        return dimmers, uneven + FACE_WEIGHS * max(0.0, changed - FACE_FREE)

    @cached_property
    def _faces_before(self) -> Floats:
        lamps = [self.plan.lights[i] for i in self.indices]
        each = [lamp.dimmer * self._on_faces(i, lamp) for i, lamp in zip(self.indices, lamps, strict=True)]
        return np.asarray(np.sum(each, axis=0))

    def _on_faces(self, index: int, at: LampPlace | Light) -> Floats:
        """Lux (P,) at full power on a card before each person's face that looks at the lamp."""
        lamp = self.plan.lights[index].model_copy(update={"position": at.position, "aim": at.aim})
        emission, eyes = emission_of(lamp, self.plan), np.array([one.skin_at for one in people_of(self.plan)])
        toward = [unit(at.position - own) for own in eyes]
        lux = [direct_lux(emission, own[None], way, NONE, most=3)[0] for own, way in zip(eyes, toward, strict=True)]
        return np.array(lux)

    def solve(self, maps: list[Floats]) -> tuple[Floats, float]:
        """Dimmers, and the cost: spread in stops plus a little for missing the target."""
        columns = np.stack(maps, axis=1) + self.returned
        wanted = self.target
        dimmers = _bounded(columns, wanted - self.fixed)
        mean = float((columns @ dimmers + self.fixed).mean())
        if mean < 0.97 * wanted and dimmers.max() > 0.99:
            # Not enough light for the target: as even as can be at what there is.
            wanted = mean
            dimmers = _bounded(columns, wanted - self.fixed)
        light = np.maximum(columns @ dimmers + self.fixed, 1e-9)
        miss = abs(stops(float(light.mean()) / self.target))
        return dimmers, stops(float(light.max() / light.min())) + 0.08 * miss


def _direct(plan: Plan, emission: Emission, grid: Grid, cells: Bools) -> Floats:
    """A lamp's own light in lux on the cells that count of one surface."""
    chosen, facing = cells.ravel(), grid.facing()
    occluders = before_wall(plan) if grid.sheet.name == "wall" else set_triangles(plan)
    toward = facing if facing.ndim == 1 else facing[chosen]
    return direct_lux_facing(emission, grid.points()[chosen], toward, occluders, most=3)


def _bounded(columns: Floats, wanted: Floats) -> Floats:
    """Weights 0..1 with the least largest deviation: least squares, sharpened where it misses most."""
    scale = max(float(np.abs(wanted).max()), 1e-9)
    emphasis = np.ones(len(columns))
    # Imported where it is used: it brings half of SciPy along, and most judgements do without.
    from scipy.optimize import lsq_linear

    found = np.zeros(columns.shape[1])
    for _ in range(3):
        root = np.sqrt(emphasis)[:, None]
        found = lsq_linear(root * columns / scale, root[:, 0] * wanted / scale, bounds=(0.0, 1.0)).x
        miss = np.abs(columns @ found - wanted)
        emphasis = 0.3 + (miss / max(float(miss.max()), 1e-9)) ** 2 * 3.0
    return np.asarray(found)


def even_screen(plan: Plan, store: BasisStore, freedoms: Freedoms) -> Even:
    """The best even screen found with the given freedoms; never worse than the plan."""
    before = evaluate(plan, store)
    indices = _may_move(plan)
    if before.screen is None or not indices:
        why = tell("even/no-screen") if before.screen is None else tell("even/no-lamps")
        return Even((), (), math.inf, math.inf, 0.0, 0.0, (why,))
    search = _search(before, indices, store)
    if search is None:
        return Even(
            (), (), before.screen.spread_stops, before.screen.spread_stops, 0.0, 0.0, (tell("even/no-light"),)
        )
    best = min((_descend(search, start, freedoms) for start in _starts(before, search, freedoms)), key=lambda r: r[0])
    found = _judged(before, search, best[1], best[2], store)
    if not found.changes and freedoms.positions:
        # More freedom leads a search astray sometimes, never to less than with less of it.
        return even_screen(plan, store, replace(freedoms, positions=False))
    return found


def _may_move(plan: Plan) -> list[int]:
    """The screen's lamps; where there is none, what lights the figure lights the screen too."""
    burning = [(i, lamp) for i, lamp in enumerate(plan.lights) if lamp.on and not lamp.is_daylight]
    own = [i for i, lamp in burning if lamp.role in ("screen", "other")]
    return own or [i for i, lamp in burning if lamp.role in ("key", "fill")]


def _serves_both(plan: Plan, indices: list[int]) -> bool:
    return all(plan.lights[i].role in ("key", "fill") for i in indices)


def _search(before: Evaluation, indices: list[int], store: BasisStore) -> _Search | None:
    plan = before.plan
    cells = _cells(before)
    total = np.concatenate([total_maps(plan, grid, store)[:, some] for grid, some in cells], axis=1)
    own = np.concatenate([lamp_maps(plan, grid, store)[:, some] for grid, some in cells], axis=1)
    dark = np.concatenate([light_without_lamps(plan, grid, store)[some] for grid, some in cells])
    others = [i for i in range(len(plan.lights)) if i not in indices]
    fixed = dark + dimmed(plan, total)[others].sum(axis=0)
    # What the room returns of a lamp hardly changes as it moves a little; the figure's shadow is left to the judge.
    kept = np.maximum(total - own, 0.0)[indices].T
    wanted = wanted_lux(before)
    both = _serves_both(plan, indices)
    if both and before.screen is not None:
        # The face has its level by these lamps: the screen is evened at the light that it gets.
        wanted = before.screen.lux_mean
    target = wanted
    if fixed.mean() > MOSTLY_OTHERS * wanted and before.screen is not None:
        # The other lamps alone give nearly that much: level and evenness can't both be had, so even it as it is.
        target = max(before.screen.lux_mean, float(fixed.mean()) / MOSTLY_OTHERS)
    return _Search(plan, cells, indices, kept, fixed, target, wanted, both) if target > 0.0 else None


def _cells(before: Evaluation) -> Cells:
    """The needed cells of every surface on coarse grids; the whole wall where next to nothing is needed."""
    plan, coverage, view = before.plan, before.coverage, before.view
    grids = [sheet.grid(*(GRID if sheet.name == "wall" else SIDE_GRID)) for sheet in sheets_of(plan.screen)]
    found = [(grid, seen_cells(grid, coverage, view, plan.screen)) for grid in grids]
    found = [(grid, cells) for grid, cells in found if cells.any()]
    if sum(int(cells.sum()) for _, cells in found) < 4:
        return [(grids[0], np.ones(grids[0].shape, dtype=bool))]
    return found


def _starts(before: Evaluation, search: _Search, freedoms: Freedoms) -> Iterator[list[LampPlace]]:
    """Where the lamps stand; and, when they may move, a pair left and right alike."""
    lights = before.plan.lights
    yield [LampPlace(lights[i].position, lights[i].aim) for i in search.indices]
    needed, screen = before.coverage.needed, before.plan.screen
    if not freedoms.positions or needed is None or len(search.indices) < 2:
        return
    middle = max(0.3, (max(needed[1], screen.bottom) + needed[3]) / 2.0)
    order = sorted(search.indices, key=lambda i: lights[i].position[0])
    for away in (0.6 * screen.width, 0.9 * screen.width):
        found = {}
        for rank, index in enumerate(order):
            side = -1.0 if rank < len(order) / 2 else 1.0
            beside = screen.x_centre + side * (screen.width / 2 + 0.4), middle, away
            place = stand_inside(before.plan, beside, lights[index].position)
            found[index] = LampPlace(tuple(place), (screen.x_centre - side * screen.width / 6, middle, 0.0))  # type: ignore[arg-type]
        yield [found[i] for i in search.indices]


def _descend(search: _Search, start: list[LampPlace], freedoms: Freedoms) -> tuple[float, list[LampPlace], Floats]:
    """Coordinate search in shrinking steps from a start; a step is kept when the cost falls."""
    trials = list(start)
    maps = [search.direct(i, trial) for i, trial in zip(search.indices, trials, strict=True)]
    dimmers, cost = search.cost(trials, maps)
    for step in STEPS:
        better = True
        while better and search.left > 0 and cost > GOOD:
            better = False
            for k, index in enumerate(search.indices):
                for trial in _neighbours(trials[k], step, freedoms):
                    if search.left <= 0 or not _allowed(search.plan, index, trial):
                        continue
                    search.left -= 1
                    changed = [*maps[:k], search.direct(index, trial), *maps[k + 1 :]]
                    solved, found = search.cost([*trials[:k], trial, *trials[k + 1 :]], changed)
                    if found < cost - 0.005:
                        trials[k], maps, dimmers, cost, better = trial, changed, solved, found, True
    search.left = max(search.left, MOST_TRIALS // 3)
    return cost, trials, dimmers


def _neighbours(trial: LampPlace, step: float, freedoms: Freedoms) -> Iterator[LampPlace]:
    def moved(point: tuple[float, float, float], axis: int, by: float) -> tuple[float, float, float]:
        found = list(point)
        found[axis] = round(found[axis] + by, 3)
        return found[0], found[1], found[2]

    for by in (step, -step):
        if freedoms.heights:
            yield replace(trial, position=moved(trial.position, 1, by), aim=moved(trial.aim, 1, by))
            yield replace(trial, position=moved(trial.position, 1, by))
        if freedoms.aims:
            yield replace(trial, aim=moved(trial.aim, 0, by))
            yield replace(trial, aim=moved(trial.aim, 1, by))
        if freedoms.positions:
            yield replace(trial, position=moved(trial.position, 0, by))
            yield replace(trial, position=moved(trial.position, 2, by))


def _allowed(plan: Plan, index: int, trial: LampPlace) -> bool:
    """Inside the room, off the cloth, out of the action, and not seen by the camera, in the pane neither; a key not
    sunk below the face."""
    x, y, z = trial.position
    now = plan.lights[index].position
    if stand_inside(plan, trial.position, now) != (round(x, 2), round(y, 2), round(z, 2)) or z < CLOTH:
        return False
    if math.dist(trial.position, trial.aim) < 0.3 or _sinks(plan, plan.lights[index], y):
        return False
    # An aim is a place that somebody can point at.
    if not (plan.room.x_min <= trial.aim[0] <= plan.room.x_max and 0.0 <= trial.aim[1] <= plan.room.height):
        return False
    for person in people_of(plan):
        box = action_box(person)
        low, high = box.min(axis=0) - ACTION, box.max(axis=0) + ACTION
        if low[0] < x < high[0] and low[2] < z < high[2]:
            return False
    lamp = plan.lights[index].model_copy(update={"position": trial.position, "aim": trial.aim})
    view = view_of(plan.camera, plan.subject)
    outline = emission_of(lamp, plan).face.outline
    frame, depth = view.project(np.vstack([np.array(trial.position), *outline]))
    if bool(((depth > 0.05) & (frame > -0.01).all(axis=1) & (frame < 1.01).all(axis=1)).any()):
        return False
    return plan.window is None or not in_pane(plan, plan.window, lamp, view).visible


def _sinks(plan: Plan, lamp: Light, y: float) -> bool:
    return plan.subject is not None and lamp.role == "key" and y < min(lamp.position[1], plan.subject.skin_at[1])


def _judged(before: Evaluation, search: _Search, trials: list[LampPlace], dimmers: Floats, store: BasisStore) -> Even:
    """The whole evaluation decides; its own dimmers are solved once more on the true maps."""
    assert before.screen is not None
    changes = _changes(search, trials, dimmers)
    after = evaluate(apply_changes(before.plan, changes), store)
    old, new = before.screen, after.screen
    if search.serves_both and _face_off(after) > _face_off(before) + FACE_KEPT:
        return Even((), (), old.spread_stops, old.spread_stops, old.lux_mean, old.lux_mean, (tell("even/face"),))
    if new is None or new.spread_stops >= old.spread_stops - 0.005:
        why = tell("even/no-better" if old.spread_stops > GOOD else "even/already")
        return Even((), (), old.spread_stops, old.spread_stops, old.lux_mean, old.lux_mean, (why,))
    return Even(
        changes,
        tuple(_words(search, trials, dimmers)),
        old.spread_stops,
        new.spread_stops,
        old.lux_mean,
        new.lux_mean,
        tuple(_limits(after, search)),
    )


def _face_off(evaluation: Evaluation) -> float:
    """Stops that the worst of all faces is from what is wanted of it."""
    return max(_one_face_off(one) for one in (evaluation, *evaluation.others))


def _one_face_off(evaluation: Evaluation) -> float:
    over = evaluation.exposure.stops_over
    if over is None or not math.isfinite(over):
        return 0.0
    low, high = wanted_stops(evaluation)
    return max(low - over, over - high, 0.0)


def _changes(search: _Search, trials: list[LampPlace], dimmers: Floats) -> tuple[Change, ...]:
    found = []
    for index, trial, dimmer in zip(search.indices, trials, dimmers, strict=True):
        lamp = search.plan.lights[index]
        if trial.position != lamp.position:
            found.append(edit.lamp(index).position([round(v, 2) for v in trial.position]))
        if trial.aim != lamp.aim:
            found.append(edit.lamp(index).aim([round(v, 2) for v in trial.aim]))
        found.append(edit.lamp(index).dimmer(round(float(dimmer), 3)))
    return tuple(found)


def _words(search: _Search, trials: list[LampPlace], dimmers: Floats) -> Iterator[Sentence]:
    """One line a lamp, in the order in which a person with sandbags does it."""
    for index, trial, dimmer in zip(search.indices, trials, dimmers, strict=True):
        lamp = search.plan.lights[index]
        dx, dy, dz = (a - b for a, b in zip(trial.position, lamp.position, strict=True))
        ways = ((dz, "even/back", "even/nearer"), (dx, "even/right", "even/left"), (dy, "even/up", "even/down"))
        parts = [tell(more if by > 0 else less, by=abs(by)) for by, more, less in ways if abs(by) > 0.01]
        if max(abs(a - b) for a, b in zip(trial.aim, lamp.aim, strict=True)) >= 0.015:
            parts.append(tell("even/aimed", across=trial.aim[0], high=trial.aim[1]))
        parts.append(tell("even/dimmer", percent=100.0 * float(dimmer)))
        yield tell("even/lamp", lamp=lamp.name, parts=tuple(parts))


def _limits(after: Evaluation, search: _Search) -> Iterator[Sentence]:
    assert after.screen is not None
    if search.target != search.wanted:
        share = 100.0 * float(search.fixed.mean()) / search.wanted
        yield tell("even/others", share=share)
    short = stops(search.target / max(after.screen.lux_mean, 1e-9))
    if short > 0.15:
        yield tell("even/short", short=short)
    if after.screen.spread_stops > 0.3:
        share = float(search.fixed.max() - search.fixed.min()) / max(after.screen.lux_mean, 1e-9)
        if share > 0.1:
            yield tell("even/foreign")
        elif len(search.indices) == 1:
            yield tell("even/one-lamp")
        else:
            yield tell("even/as-far")
    if after.shadow is not None and after.shadow.area_visible_percent > 0.0:
        yield tell("even/shadow")
