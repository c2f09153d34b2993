"""What stands in the light's way: flags, and the screen's own surfaces, as triangles."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np

from ..geometry.vectors import Bools, Floats, Floats32, Ints, cross, over
from ..plan import Flag, Plan, Screen

NONE: Floats = np.zeros((0, 3, 3))
ON_WALL = 0.02
"""A surface this near to a wall or the floor replaces it and blocks nothing, m."""


def quad(corners: Sequence[Sequence[float]]) -> Floats:
    """Two triangles (2, 3, 3) for a four-cornered surface (4, 3), in m."""
    a, b, c, d = (np.array(p, dtype=float) for p in corners)
    return np.array([[a, b, c], [a, c, d]])


def flag_triangles(flags: Sequence[Flag]) -> Floats:
    return np.concatenate([NONE, *(quad(flag.corners) for flag in flags)])


def wing_triangles(screen: Screen) -> Floats:
    """The screen's returns: upright, along z from its side edges, as high as the screen."""
    low, high = screen.bottom, screen.bottom + screen.height
    sides = []
    for edge, length in (
        (screen.x_centre - screen.width / 2.0, screen.wing_left),
        (screen.x_centre + screen.width / 2.0, screen.wing_right),
    ):
        if length > 0.0:
            sides.append(quad([(edge, low, 0.0), (edge, low, length), (edge, high, length), (edge, high, 0.0)]))
    return np.concatenate([NONE, *sides])


def screen_triangles(screen: Screen) -> Floats:
    """The screen itself, for light on its way between front and back."""
    left, right = screen.x_centre - screen.width / 2.0, screen.x_centre + screen.width / 2.0
    low, high = screen.bottom, screen.bottom + screen.height
    return quad([(left, low, 0.0), (right, low, 0.0), (right, high, 0.0), (left, high, 0.0)])


def window_wall_triangles(plan: Plan) -> Floats:
    """The wall round a window (T, 3, 3), as wide and high as the room: light of one side reaches the other through
    the opening only."""
    window, room = plan.window, plan.room
    if window is None or not window.in_wall:
        return NONE
    (left, low, z), _, (right, high, _), _ = window.corners

    def piece(x0: float, y0: float, x1: float, y1: float) -> Floats:
        return quad([(x0, y0, z), (x1, y0, z), (x1, y1, z), (x0, y1, z)]) if x1 > x0 and y1 > y0 else NONE

    return np.concatenate(
        [
            piece(room.x_min, 0.0, left, room.height),
            piece(right, 0.0, room.x_max, room.height),
            piece(left, 0.0, right, low),
            piece(left, high, right, room.height),
        ]
    )


def before_wall(plan: Plan) -> Floats:
    """What stands between lamps and the screen's wall: flags, wings, the wall round a window (T, 3, 3)."""
    own = (flag_triangles(plan.flags), wing_triangles(plan.screen), window_wall_triangles(plan))
    return np.concatenate(own)


def set_triangles(plan: Plan) -> Floats:
    """Everything that blocks light between two places in the set: flags, screen, wings, the wall round a window
    (T, 3, 3).

    What lies on a wall or on the floor (as a floor run does) replaces that part of it, and walls and
    floor never block a lamp.
    """
    on_wall = plan.room.kind == "interior" and abs(plan.room.z_min) <= ON_WALL
    own = NONE if on_wall else screen_triangles(plan.screen)
    own = np.concatenate([own, window_wall_triangles(plan)])
    return np.concatenate([flag_triangles(plan.flags), own, wing_triangles(plan.screen)])


ON_PLANE = 1e-7
"""A place this near to a surface's plane lies in it, and the surface does not shade it, m."""


BOX = np.array([[i, j, k] for i in (0, 1) for j in (0, 1) for k in (0, 1)], dtype=bool)


@dataclass(frozen=True, eq=False)
class Piece:
    """A triangle or a parallelogram that blocks light: a corner, its two edges from there, its unit normal, and what
    tells how far along the edges a place lies (3,) each."""

    corner: Floats
    edges: tuple[Floats, Floats]
    normal: Floats
    along_u: Floats
    along_v: Floats
    whole: bool

    @property
    def corners(self) -> Floats:
        """In order round it (4 or 3, 3)."""
        u, v = self.edges
        return np.asarray(self.corner + np.array([0.0 * u, u, u + v, v] if self.whole else [0.0 * u, u, v]))

    def height(self, points: Floats) -> Floats:
        """Signed distance (...) in m of points (..., 3) from its plane."""
        return np.asarray((points - self.corner) @ self.normal)

    def within(self, points: Floats) -> tuple[Floats, Floats]:
        """Place (...) of points (..., 3) along the two edges: 0 to 1 each in a parallelogram."""
        to = points - self.corner
        return np.asarray(to @ self.along_u), np.asarray(to @ self.along_v)

    @cached_property
    def _axes(self) -> Floats32:
        return np.array([self.along_u, self.along_v], dtype=np.float32)

    def along(self, points: Floats) -> Floats32:
        """The same (2, P) of points (P, 3), in single precision."""
        return np.asarray(self._axes @ (points - self.corner).astype(np.float32).T)

    @property
    def every_edge(self) -> tuple[int, ...]:
        return (0, 1, 2, 3) if self.whole else (0, 1, 2)

    def cut(self, edge: int, points: Floats) -> Floats:
        """Normals (3, K), toward the piece, of planes through points (K, 3) and one of its edges: of a
        parallelogram where u is 0, where it is 1, where v is 0, 1; of a triangle where u, where v is 0, the third."""
        u, v = self.edges
        if self.whole:
            begin, along, inward = (
                (self.corner, v, u), (self.corner + u, v, -u), (self.corner, u, v), (self.corner + v, u, -v)
            )[edge]  # fmt: skip
        else:
            begin, along, inward = ((self.corner, v, u), (self.corner, u, v), (self.corner + u, v - u, -u))[edge]
        normals = cross(begin, along)[:, None] - cross(np.eye(3), along).T @ points.T
        return np.asarray(np.sign(inward @ normals) * normals)


def pieces(occluders: Floats) -> tuple[Piece, ...]:
    """The triangles (T, 3, 3), two of a parallelogram taken together: one test instead of two."""
    return _pieces(occluders.tobytes())


@dataclass(frozen=True, eq=False)
class Stacked:
    """Every piece's axes (T, 3), and how far along each its corner lies (T,): places against all pieces at once."""

    normal: tuple[Floats, Floats]
    along_u: tuple[Floats, Floats]
    along_v: tuple[Floats, Floats]


@lru_cache(maxsize=256)
def _stacked(data: bytes) -> Stacked:
    every = _pieces(data)
    corner = np.array([piece.corner for piece in every]).reshape(-1, 3)

    def axis(name: str) -> tuple[Floats, Floats]:
        axes = np.array([getattr(piece, name) for piece in every]).reshape(-1, 3)
        return axes, np.asarray((corner * axes).sum(axis=1))

    return Stacked(axis("normal"), axis("along_u"), axis("along_v"))


def _along(places: Floats, axis: tuple[Floats, Floats]) -> Floats:
    """Places (P, 3) along an axis of every piece (P, T)."""
    return np.asarray(places @ axis[0].T - axis[1])


@lru_cache(maxsize=256)
def _pieces(data: bytes) -> tuple[Piece, ...]:
    occluders = np.frombuffer(data).reshape(-1, 3, 3)
    found, i = [], 0
    while i < len(occluders):
        a, b, c = occluders[i]
        whole = i + 1 < len(occluders) and bool(np.abs(occluders[i + 1] - [a, c, a + c - b]).max() < 1e-9)
        u, v = b - a, (c - b if whole else c - a)
        normal = cross(u, v)
        length = float(np.linalg.norm(normal))
        if length > 1e-12:
            uu, vv, uv = u @ u, v @ v, u @ v
            det = uu * vv - uv * uv
            found.append(Piece(a, (u, v), normal / length, (vv * u - uv * v) / det, (uu * v - uv * u) / det, whole))
        i += 2 if whole else 1
    return tuple(found)


def blocked_by_piece(piece: Piece, points: Floats, sources: Floats) -> Bools:
    """Which (P, S) of the stretches cross a piece."""
    a, b = piece.height(points)[:, None], piece.height(sources)[None, :]
    apart = _apart(a, b)
    (u0, v0), (u1, v1) = piece.within(points), piece.within(sources)
    share = a / np.where(apart, a - b, np.inf)
    return np.asarray(apart & _inside(share, (u0[:, None], v0[:, None]), (u1, v1), piece.whole))


def covered_by_piece(piece: Piece, points: Floats, cells: Floats, half: Floats) -> Floats:
    """Share (P, S) of each cell of a face that a parallelogram hides from points (P, 3): middles (S, 3) of the cells,
    half their sides (2, 3). As the piece is seen from each point, a cell is as wide along an edge as its sides are
    together: exact where both lie along each other."""
    a, b = piece.height(points)[:, None], piece.height(cells)[None, :]
    apart = _apart(a, b)
    share = a / np.where(apart, a - b, np.inf)
    covered = apart.astype(float)
    ends = zip(piece.within(points), piece.within(cells), (piece.along_u, piece.along_v), strict=True)
    for begin, end, along in ends:
        middle = begin[:, None] + share * (end - begin[:, None])
        reach = np.maximum(share * np.abs(half @ along).sum(), 1e-9)
        within = np.minimum(middle + reach, 1.0) - np.maximum(middle - reach, 0.0)
        covered *= np.clip(within / (2.0 * reach), 0.0, 1.0)
    return covered


def visible_share(points: Floats, sources: Floats, weights: Floats, occluders: Floats) -> Floats:
    """Share (P,) of the weighted source points that each point sees.

    points (P, 3); sources (S, 3); weights (1 or P, S); occluders (T, 3, 3). Metres.
    """
    return seen_share(points, sources, weights, touching(points, sources, occluders))


def seen_share(points: Floats, sources: Floats, weights: Floats, in_the_way: Sequence[Touched]) -> Floats:
    """The same where what is in the way is known."""
    blocked = blocked_by(in_the_way, points, sources)
    if not blocked.any():
        return np.ones(len(points))
    total = np.broadcast_to(weights, blocked.shape).sum(axis=1)
    seen = np.where(blocked, 0.0, weights).sum(axis=1)
    return np.where(total > 0.0, seen / np.where(total > 0.0, total, 1.0), 1.0)


def blocked_by(in_the_way: Sequence[Touched], points: Floats, sources: Floats) -> Bools:
    """Which (P, S) of the stretches from points (P, 3) to sources (S, 3) are, by what is in the way."""
    blocked = np.zeros((len(points), len(sources)), dtype=bool)
    for one in in_the_way:
        blocked[one.rows] |= blocked_by_piece(one.piece, points[one.rows], sources)
    return blocked


@dataclass(frozen=True, eq=False)
class Touched:
    """A piece that some stretches may cross: the points (rows) they begin at, never too few; from which (K,) of them
    it surely hides every source; which of its edges lie across the sources from any of them; and whether some of the
    sources lie before it."""

    piece: Piece
    rows: Ints
    wholly: Bools
    edges: tuple[int, ...]
    astride: bool

    def among(self, place: Ints) -> Touched:
        """Of fewer points: `place` tells where each of all points is among them, -1 where it is not."""
        rows = place[self.rows]
        return replace(self, rows=rows[rows >= 0], wholly=self.wholly[rows >= 0])

    @property
    def sides(self) -> int:
        """Of the part that is hidden: an edge each, and the piece's plane where sources lie before it."""
        return len(self.edges) + self.astride

    def depth(self, side: int, points: Floats, to: Floats) -> Floats:
        """How far (N, K) from a side places `to` (N, 3, K) seen from points (K, 3) lie in what the piece hides: not
        to scale, and what is negative is seen."""
        if side < len(self.edges):
            return over(to, self.piece.cut(self.edges[side], points))
        here = self.piece.height(points)
        return np.asarray(-np.sign(here) * (here + over(to, self.piece.normal)))


def touching(points: Floats, sources: Floats, occluders: Floats) -> list[Touched]:
    """What may stand between points (P, 3) and sources (S, 3), or any place among the sources.

    Where the sources, or the box round them, lie all on one side of a piece's plane, the stretches from a point meet
    the plane inside the hull of where those to its corners meet it: a hull beside the piece means that none crosses,
    a hull within it that all do.
    """
    if not len(occluders) or not len(sources):
        return []
    box, stacked = sources if len(sources) <= len(BOX) else _box(sources), _stacked(occluders.tobytes())
    a, b = _along(points, stacked.normal), _along(box, stacked.normal)
    low, high = b.min(axis=0), b.max(axis=0)
    apart = ((a > ON_PLANE) & (low < -ON_PLANE)) | ((a < -ON_PLANE) & (high > ON_PLANE))
    every, found = pieces(occluders), []
    for t in np.flatnonzero(apart.any(axis=0)):
        rows = np.flatnonzero(apart[:, t])
        if low[t] > ON_PLANE or high[t] < -ON_PLANE:
            one = _met(every[t], rows, points[rows], box, a[rows, t], b[:, t])
        else:
            one = Touched(every[t], rows, np.zeros(len(rows), dtype=bool), every[t].every_edge, astride=True)
        if len(one.rows):
            found.append(one)
    return found


def _met(piece: Piece, rows: Ints, points: Floats, box: Floats, a: Floats, b: Floats) -> Touched:
    """Points (rows) from which the hull of a box's corners, seen on a piece's plane, is not beside it. Heights of
    the points a (R,) and the corners b (C,)."""
    # In single precision: a hull is beside the piece or not to some micrometres.
    share = a.astype(np.float32) / (a - b[:, None]).astype(np.float32)
    begin, end = piece.along(points), piece.along(box)
    place = begin[:, None, :] + share * (end[:, :, None] - begin[:, None, :])
    low, high = place.min(axis=1), place.max(axis=1)
    met = ((high >= 0.0) & (low <= 1.0)).all(axis=0)
    (u_low, v_low), (u_high, v_high) = low[:, met], high[:, met]
    if piece.whole:
        across = np.array([u_low < 0.0, u_high > 1.0, v_low < 0.0, v_high > 1.0])
    else:
        across = np.array([u_low < 0.0, v_low < 0.0, place.sum(axis=0).max(axis=0)[met] > 1.0])
    edges = tuple(np.flatnonzero(across.any(axis=1)).tolist())
    return Touched(piece, rows[met], np.asarray(~across.any(axis=0)), edges, astride=False)


def _box(sources: Floats) -> Floats:
    """Corners (8, 3) of the box round sources (S, 3)."""
    low, high = sources.min(axis=0), sources.max(axis=0)
    return np.asarray(np.where(BOX, high, low))


def blocked_pairs(starts: Floats, ends: Floats, occluders: Floats) -> Bools:
    """Which (K,) of the stretches from starts (K, 3) to ends (K, 3) cross any of the triangles."""
    blocked = np.zeros(len(starts), dtype=bool)
    for piece in pieces(occluders):
        a, b = piece.height(starts), piece.height(ends)
        (k,) = np.nonzero(_apart(a, b) & ~blocked)
        if len(k):
            blocked[k] = _crosses(a[k], b[k], piece.within(starts[k]), piece.within(ends[k]), piece.whole)
    return blocked


def _apart(a: Floats, b: Floats) -> Bools:
    return np.asarray(((a > ON_PLANE) & (b < -ON_PLANE)) | ((a < -ON_PLANE) & (b > ON_PLANE)))


def _crosses(a: Floats, b: Floats, start: tuple[Floats, Floats], end: tuple[Floats, Floats], whole: bool) -> Bools:
    """Does each stretch (K,), whose ends lie apart by their heights a and b, cross the piece?

    `start`, `end`: places of its ends along the piece's two edges; where it meets the plane lies between them.
    """
    return _inside(a / (a - b), start, end, whole)


def _inside(share: Floats, start: tuple[Floats, Floats], end: tuple[Floats, Floats], whole: bool) -> Bools:
    """Is the place at a share of each stretch within the piece's edges?"""
    s = start[0] + share * (end[0] - start[0])
    t = start[1] + share * (end[1] - start[1])
    inside = (s >= 0.0) & (t >= 0.0)
    return np.asarray(inside & ((s <= 1.0) & (t <= 1.0) if whole else s + t <= 1.0))
