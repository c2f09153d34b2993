"""The set cut into patches for interreflection: screen, floor run, wings, room, flags and boards.

Lines of the cut follow the screen's edges and its plane, so that no patch is half in front of the
screen and half behind it. Surfaces that reflect nothing need no patches.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise

import numpy as np

from ..camera.screen_grid import curve_radius
from ..geometry.vectors import Bools, Floats, cross, unit
from ..plan import Flag, Plan, Room, Screen
from ..plan.fields import Rgb
from .occlusion import ON_WALL

SCREEN_SIZE, SCREEN_MOST = 0.25, 260
OWN_SIZE, OWN_MOST = 0.3, 130
BACK_SIZE, BACK_MOST = 0.9, 24
ROOM_SIZE, ROOM_MOST = 0.5, 320
FLAG_SIZE, FLAG_MOST = 0.3, 240
BENT = 4
"""Flat strips that stand for a curve."""
OUTDOORS = (1.0, 2.2, 4.0, 7.0, 12.0, 25.0, 60.0, 200.0)
"""Outdoors the floor has no end: lines this far beyond the screen's edges, m."""


@dataclass(frozen=True, eq=False)
class Patches:
    """corners (N, 4, 3) counter-clockwise from the front, outward (N, 3), areas (N,) m2,
    reflectance (N, 3), group (N,) index into `names`."""

    corners: Floats
    outward: Floats
    areas: Floats
    reflectance: Floats
    group: np.ndarray[tuple[int], np.dtype[np.int64]]
    names: tuple[str, ...]

    def of(self, *names: str) -> Bools:
        """Mask (N,) of the patches that belong to any of these surfaces."""
        found = np.zeros(len(self.areas), dtype=bool)
        for name in names:
            if name in self._masks:
                found |= self._masks[name]
        return found

    @cached_property
    def _masks(self) -> dict[str, Bools]:
        return {name: self.group == i for i, name in enumerate(self.names)}

    @cached_property
    def samples(self) -> tuple[Floats, Floats]:
        """Two by two places (4N, 3) on every patch, at the nodes of Gauss's rule, and what they face (4N, 3)."""
        centres = self.corners.mean(axis=1)[:, None, :]
        places = centres + (self.corners - centres) / np.sqrt(3.0)
        return places.reshape(-1, 3), np.repeat(self.outward, 4, axis=0)

    @cached_property
    def membership(self) -> Floats:
        """1 where a patch belongs to a surface (N, len(names)), else 0."""
        return np.eye(len(self.names))[self.group]


SCREEN_NAMES = ("screen", "curve", "floor run", "left wing", "right wing")


@dataclass(frozen=True)
class Surface:
    """A rectangle from `origin` along unit vectors u and v; its front looks along u x v.

    `u_lines`, `v_lines` are distances at which it must be cut; `holes` (u0, u1, v0, v1) are left out.
    """

    name: str
    origin: tuple[float, float, float]
    u: tuple[float, float, float]
    v: tuple[float, float, float]
    u_lines: Sequence[float]
    v_lines: Sequence[float]
    reflectance: Rgb
    size: float
    holes: tuple[tuple[float, float, float, float], ...] = ()


def patches_of(plan: Plan) -> Patches:
    """All reflecting patches of a plan: some 600 in an ordinary room, never more than about 1,500."""
    surfaces = [*_screen_surfaces(plan.screen), *_backs(plan), *_room_surfaces(plan.room, plan.screen)]
    parts = [(s.name, _cells(s), s.reflectance) for s in surfaces if max(s.reflectance) > 0.0]
    parts += [(f"flag {flag.id}", quads, flag.reflectance) for flag, quads in _flag_cells(plan.flags)]
    parts = [part for part in parts if len(part[1])]
    if not parts:
        none = np.zeros((0, 3))
        return Patches(np.zeros((0, 4, 3)), none, np.zeros(0), none, np.zeros(0, dtype=np.int64), ())
    names = tuple(dict.fromkeys(name for name, _, _ in parts))
    corners = np.concatenate([quads for _, quads, _ in parts])
    across = cross(corners[:, 2] - corners[:, 0], corners[:, 3] - corners[:, 1])
    counts = [len(quads) for _, quads, _ in parts]
    return Patches(
        corners=corners,
        outward=unit(across),
        areas=0.5 * np.linalg.norm(across, axis=1),
        reflectance=np.concatenate([np.tile(rgb, (n, 1)) for (_, _, rgb), n in zip(parts, counts, strict=True)]),
        group=np.repeat([names.index(name) for name, _, _ in parts], counts),
        names=names,
    )


def divided(lines: Sequence[float], size: float) -> Floats:
    """Cut lines with every stretch between neighbours divided into parts no longer than `size`."""
    wanted = sorted({round(line, 9) for line in lines})
    found = [wanted[0]]
    for a, b in pairwise(wanted):
        if b - a > 1e-6:
            found += np.linspace(a, b, max(1, math.ceil((b - a) / size - 1e-9)) + 1)[1:].tolist()
    return np.array(found)


def _cells(surface: Surface) -> Floats:
    """Corners (N, 4, 3) of the parts of a surface that are not in a hole."""
    us, vs = divided(surface.u_lines, surface.size), divided(surface.v_lines, surface.size)
    u0, v0 = (g.ravel() for g in np.meshgrid(us[:-1], vs[:-1], indexing="ij"))
    u1, v1 = (g.ravel() for g in np.meshgrid(us[1:], vs[1:], indexing="ij"))
    keep = np.ones(len(u0), dtype=bool)
    for a0, a1, b0, b1 in surface.holes:
        mid_u, mid_v = (u0 + u1) / 2.0, (v0 + v1) / 2.0
        keep &= ~((mid_u > a0) & (mid_u < a1) & (mid_v > b0) & (mid_v < b1))
    flat = np.stack([np.stack(pair, axis=-1) for pair in ((u0, v0), (u1, v0), (u1, v1), (u0, v1))], axis=1)[keep]
    u, v = np.array(surface.u), np.array(surface.v)
    return np.asarray(np.array(surface.origin) + flat[..., :1] * u + flat[..., 1:] * v)


def _sized(smallest: float, area: float, most: int) -> float:
    return max(smallest, math.sqrt(area / most))


def _screen_surfaces(screen: Screen) -> Iterator[Surface]:
    left, right = screen.x_centre - screen.width / 2.0, screen.x_centre + screen.width / 2.0
    w, h, low, run, bend = screen.width, screen.height, screen.bottom, screen.floor_run, curve_radius(screen)
    rgb = screen.reflectance
    size = _sized(SCREEN_SIZE, w * h, SCREEN_MOST)
    if h > bend:
        yield Surface("screen", (left, low, 0.0), (1, 0, 0), (0, 1, 0), (0.0, w), (bend, h), rgb, size)
    if bend > 0.0:
        yield from _bent(screen, bend, size)
    if run > bend:
        size = _sized(OWN_SIZE, w * run, OWN_MOST)
        yield Surface("floor run", (left, 0.0, run), (1, 0, 0), (0, 0, -1), (0.0, w), (0.0, run - bend), rgb, size)
    for name, x, along, length in (
        ("left wing", left, -1, screen.wing_left),
        ("right wing", right, 1, screen.wing_right),
    ):
        if length > 0.0:
            size = _sized(OWN_SIZE, h * length, OWN_MOST)
            z = length if along < 0 else 0.0
            yield Surface(name, (x, low, z), (0, 0, along), (0, 1, 0), (0.0, length), (0.0, h), rgb, size)


def _backs(plan: Plan) -> Iterator[Surface]:
    """The backs of wall and wings, coarse: what light falls into the gap behind comes out of it again."""
    room = plan.room
    behind = {"screen": (2, room.z_min), "left wing": (0, room.x_min), "right wing": (0, room.x_max)}
    for one in _screen_surfaces(plan.screen):
        if one.name in behind:
            axis, wall = behind[one.name]
            if room.kind == "exterior" or abs(one.origin[axis] - wall) > ON_WALL:
                yield _turned_round(one)


def _turned_round(one: Surface) -> Surface:
    u, ends = np.array(one.u), sorted(-line for line in one.u_lines)
    size = _sized(BACK_SIZE, (one.u_lines[-1] - one.u_lines[0]) * (one.v_lines[-1] - one.v_lines[0]), BACK_MOST)
    return replace(one, name="back of the screen", u=tuple(-u), u_lines=ends, size=size)


def _bent(screen: Screen, radius: float, size: float) -> Iterator[Surface]:
    """The curve as flat strips between places on its arc."""
    left = screen.x_centre - screen.width / 2.0
    turns = np.linspace(0.0, math.pi / 2.0, BENT + 1)
    for upper, lower in pairwise(turns):
        y, z = radius * (1.0 - math.sin(lower)), radius * (1.0 - math.cos(lower))
        up, back = radius * (math.sin(lower) - math.sin(upper)), radius * (math.cos(upper) - math.cos(lower))
        long = math.hypot(up, back)
        along = (0.0, up / long, -back / long)
        yield Surface(
            "curve", (left, y, z), (1, 0, 0), along, (0.0, screen.width), (0.0, long), screen.reflectance, size
        )


def _room_surfaces(room: Room, screen: Screen) -> Iterator[Surface]:
    left, right = screen.x_centre - screen.width / 2.0, screen.x_centre + screen.width / 2.0
    run, ink = screen.floor_run, room.reflectance
    if room.kind == "exterior":
        xs = [left, right, *(left - d for d in OUTDOORS), *(right + d for d in OUTDOORS)]
        zs = [0.0, run, *(-d for d in OUTDOORS), *(run + d for d in OUTDOORS)]
        hole = ((left, right, -run, 0.0),) if run > 0.0 else ()
        yield Surface("floor", (0, 0, 0), (1, 0, 0), (0, 0, -1), xs, [-z for z in zs], ink.floor, 1e9, hole)
        return
    x0, x1, z0, z1, top = room.x_min, room.x_max, room.z_min, room.z_max, room.height
    area = 2.0 * ((x1 - x0) * (z1 - z0) + (x1 - x0) * top + (z1 - z0) * top)
    size = _sized(ROOM_SIZE, area, ROOM_MOST)
    xs = [x0, *(x for x in (left, right) if x0 < x < x1), x1]
    zs = [z0, *(z for z in (0.0, run) if z0 < z < z1), z1]
    ys = [0.0, *(y for y in (screen.bottom, screen.bottom + screen.height) if 0.0 < y < top), top]
    low, high = screen.bottom, screen.bottom + screen.height
    back_hole = ((left, right, low, high),) if abs(z0) <= ON_WALL else ()
    left_hole = ((-screen.wing_left, 0.0, low, high),) if abs(left - x0) <= ON_WALL else ()
    right_hole = ((0.0, screen.wing_right, low, high),) if abs(right - x1) <= ON_WALL else ()
    run_hole = ((left, right, -run, 0.0),) if run > 0.0 else ()
    down = [-z for z in zs]
    yield Surface("back wall", (0, 0, z0), (1, 0, 0), (0, 1, 0), xs, ys, ink.walls, size, back_hole)
    yield Surface("wall behind the camera", (0, 0, z1), (-1, 0, 0), (0, 1, 0), [-x for x in xs], ys, ink.walls, size)
    yield Surface("left wall", (x0, 0, 0), (0, 0, -1), (0, 1, 0), down, ys, ink.walls, size, left_hole)
    yield Surface("right wall", (x1, 0, 0), (0, 0, 1), (0, 1, 0), zs, ys, ink.walls, size, right_hole)
    yield Surface("floor", (0, 0, 0), (1, 0, 0), (0, 0, -1), xs, down, ink.floor, size, run_hole)
    yield Surface("ceiling", (0, top, 0), (1, 0, 0), (0, 0, 1), xs, zs, ink.ceiling, size)


def _flag_cells(flags: Sequence[Flag]) -> Iterator[tuple[Flag, Floats]]:
    """Both sides of every flag that reflects: bilinear cells over its four corners."""
    shining = [flag for flag in flags if max(flag.reflectance) > 0.0]
    most = max(1, FLAG_MOST // max(1, 2 * len(shining)))
    for flag in shining:
        a, b, c, d = (np.array(p, dtype=float) for p in flag.corners)
        wide, high = float(np.linalg.norm(b - a)), float(np.linalg.norm(d - a))
        size = _sized(FLAG_SIZE, max(wide * high, 1e-6), most)
        us, vs = (np.linspace(0.0, 1.0, max(1, math.ceil(side / size)) + 1) for side in (wide, high))
        u, v = np.meshgrid(us, vs, indexing="ij")
        grid = (1 - u)[..., None] * ((1 - v)[..., None] * a + v[..., None] * d) + u[..., None] * (
            (1 - v)[..., None] * b + v[..., None] * c
        )
        front = np.stack([grid[:-1, :-1], grid[1:, :-1], grid[1:, 1:], grid[:-1, 1:]], axis=2).reshape(-1, 4, 3)
        if float(np.linalg.norm(cross(front[0, 2] - front[0, 0], front[0, 3] - front[0, 1]))) > 1e-9:
            yield flag, front
            yield flag, front[:, ::-1]
