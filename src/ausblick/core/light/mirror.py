"""Mirrors: lamps seen in a window pane, and screen colour seen in shiny props.

lamp L           The pane shows a lamp where the line from the lens to the lamp's mirror image
  .    lens C    L' passes through the glass.
   \\   /
====\\=/=====pane
     L'
"""

from __future__ import annotations

import math
from collections.abc import Hashable
from dataclasses import dataclass

import numpy as np

from ..camera.screen_grid import sheets_of
from ..camera.view import View
from ..figure.held_props import BEFORE_EYES
from ..geometry.polygon import clip_half_plane
from ..geometry.vectors import Floats, unit
from ..plan import Light, Plan, Screen, Subject, Window
from ..plan.people import MirrorShape
from ..standards.quantities import Percent
from .basis import BasisStore, weight
from .emission import Emission, emission_of
from .figure_shadow import figure_of, hidden_by
from .keys import framing_key, lamp_keys
from .occlusion import blocked_pairs, set_triangles

SHINY_GARMENT = 0.15
TURNS = np.radians(np.arange(-60.0, 61.0, 2.0))


@dataclass(frozen=True)
class Reflection:
    """A lamp and the pane: does the camera see it there, and at which (x, y) in m of the pane's plane?

    `at` is where the middle of the lamp appears (outside the glass too); None when it can't be mirrored.
    """

    light: str
    visible: bool
    at: tuple[float, float] | None


@dataclass(frozen=True)
class Mirrored:
    """A shiny thing: share in % of what the camera sees of it that mirrors screen colour."""

    name: str
    shape: MirrorShape
    share: Percent


def pane_reflections(plan: Plan, view: View, store: BasisStore) -> list[Reflection]:
    """Every lamp of the plan against its window pane; empty without a pane."""
    pane = plan.window
    if pane is None:
        return []

    def of(lamp: Light, key: Hashable) -> Reflection:
        on = weight(lamp, plan.camera) > 0.0
        every = "in pane", framing_key(plan), key, lamp.id, on
        return store.record(every, lambda: in_pane(plan, pane, lamp, view))

    return [of(lamp, key) for lamp, key in zip(plan.lights, lamp_keys(plan), strict=True)]


def in_pane(plan: Plan, pane: Window, lamp: Light, view: View) -> Reflection:
    """One lamp of the plan against a pane."""
    emission = emission_of(lamp, plan)
    centre, outline = mirrored_outline(emission, _outline(emission), pane, view)
    return _judged(plan, pane, lamp, view, centre, outline, emission)


def mirrored_outline(emission: Emission, face: Floats, pane: Window, view: View) -> tuple[Floats | None, Floats]:
    """Where the middle of a lamp and the outline (K, 3) of its face appear in the pane's plane; None and no outline
    where the plane can't mirror it to the lens."""
    nothing = None, np.zeros((0, 3))
    side = 1.0 if view.lens[2] > pane.z else -1.0
    if emission.normal_lux is not None:
        hit = on_plane(view.lens, sun_way(emission), pane.z)
        return nothing if hit is None else (hit, hit[None, :])
    front = clip_half_plane(face, np.array([0.0, 0.0, side]), side * pane.z + 1e-9)
    if side * (emission.face.centre[2] - pane.z) <= 1e-9 or not len(front):
        return nothing
    hits = [on_plane(view.lens, _image(p, pane.z) - view.lens, pane.z) for p in [emission.face.centre, *front]]
    return hits[0], np.array([h for h in hits[1:] if h is not None])


def sun_way(emission: Emission) -> Floats:
    """From the lens to where the pane shows a lamp that is endlessly far."""
    return np.asarray(-emission.face.axis * np.array([1.0, 1.0, -1.0]))


def _outline(emission: Emission) -> Floats:
    return emission.face.outline if emission.face.area > 0.0 else np.repeat(emission.face.centre[None, :], 3, axis=0)


def _image(place: Floats, z: float) -> Floats:
    return np.array([place[0], place[1], 2.0 * z - place[2]])


def on_plane(lens: Floats, way: Floats, z: float) -> Floats | None:
    if abs(way[2]) < 1e-12:
        return None
    reach = (z - lens[2]) / way[2]
    return lens + reach * way if reach > 0.0 else None


def _judged(
    plan: Plan, pane: Window, lamp: Light, view: View, hit: Floats | None, outline: Floats, emission: Emission
) -> Reflection:
    at = None if hit is None else (float(hit[0]), float(hit[1]))
    if hit is None or weight(lamp, plan.camera) <= 0.0:
        return Reflection(lamp.id, False, at)
    inside = cut_to_pane(outline, pane)
    if not len(inside):
        return Reflection(lamp.id, False, at)
    seen = inside.mean(axis=0)
    frame, depth = view.project(seen)
    framed = bool(depth > 0.0 and np.all((frame >= 0.0) & (frame <= 1.0)))
    return Reflection(lamp.id, framed and _shines(plan, emission, view, seen), at)


def cut_to_pane(outline: Floats, pane: Window) -> Floats:
    """What of the mirrored outline lies on the glass; a single point is kept when it does."""
    left, low = pane.x - pane.width / 2.0, pane.y - pane.height / 2.0
    right, high = left + pane.width, low + pane.height
    if len(outline) < 3 or float(np.ptp(outline, axis=0).max()) < 1e-9:
        p = outline[0]
        return outline[:1] if left <= p[0] <= right and low <= p[1] <= high else outline[:0]
    cut = outline
    for normal, offset in (((1, 0, 0), left), ((-1, 0, 0), -right), ((0, 1, 0), low), ((0, -1, 0), -high)):
        cut = clip_half_plane(cut, np.array(normal, dtype=float), offset)
    return cut


def _shines(plan: Plan, emission: Emission, view: View, at: Floats) -> bool:
    """Does the lamp send light to that place of the glass, and is neither way blocked?"""
    occluders = set_triangles(plan)
    if emission.normal_lux is not None:
        return not bool(
            blocked_pairs(np.stack([at, view.lens]), np.stack([at - 1e3 * emission.face.axis, at]), occluders).any()
        )
    away = at - emission.face.centre
    if float(emission.candela(away, np.array(np.linalg.norm(away)))) <= 0.0:
        return False
    ways = np.stack([emission.face.centre, at]), np.stack([at, view.lens])
    return not bool(blocked_pairs(*ways, np.concatenate([occluders, emission.leaves])).any())


@dataclass(frozen=True)
class ShinyThing:
    """`on_face`: glasses are; all else is held out to the side, a little before the body."""

    name: str
    shape: MirrorShape
    on_face: bool = False

    def place(self, subject: Subject) -> Floats:
        """Where it is (3,), m."""
        if self.on_face:
            x, y, z = subject.eyes
            return np.array([x, y, z + BEFORE_EYES * subject.height])
        return np.array([subject.x + 0.4, subject.up(0.58), subject.z + 0.2])


def shiny_things(plan: Plan) -> list[ShinyThing]:
    """Everything worn or held that mirrors."""
    if plan.subject is None:
        return []
    shiny = [prop for prop in plan.subject.props if prop.kind in ("glass", "metal", "liquid")]
    props = [ShinyThing(prop.name, prop.mirrors_as, prop.formed == "glasses") for prop in shiny]
    gloss = [ShinyThing(g.name, "cylinder") for g in plan.subject.seen_wardrobe if g.gloss >= SHINY_GARMENT]
    return [*props, *gloss]


def mirrored_screen(plan: Plan, view: View) -> list[Mirrored]:
    """How much screen colour the camera sees in each shiny thing."""
    subject = plan.subject
    if subject is None:
        return []
    found, known = [], dict[tuple[MirrorShape, bool], float]()
    for thing in shiny_things(plan):
        key = thing.shape, thing.on_face
        if key not in known:
            known[key] = mirror_share(plan.screen, subject, thing.shape, thing.place(subject), view.lens)
        found.append(Mirrored(thing.name, thing.shape, 100.0 * known[key]))
    return found


def mirror_share(screen: Screen, subject: Subject | None, shape: MirrorShape, at: Floats, lens: Floats) -> float:
    """Share 0..1 of the visible surface of a mirror at `at` (3,) m in which a lens sees screen colour.

    Sphere and cylinder: of their outline as seen. Pane: of its turns up to 60 degrees from facing the lens.
    """
    view = unit(at - lens)
    normals = _normals(shape, view)
    rays = view - 2.0 * (normals @ view)[:, None] * normals
    hits = np.zeros(len(rays), dtype=bool)
    # Behind a curve lie the wall's foot and the run's beginning: a ray that meets it meets one of them.
    for sheet in sheets_of(screen.model_copy(update={"curve_radius": 0.0})):
        hits |= _hits(at, rays, sheet.outline(), subject)
    return float(hits.mean())


def _normals(shape: MirrorShape, view: Floats) -> Floats:
    """Normals (K, 3) that turn toward the lens, evenly over what it sees."""
    level = unit(np.array([view[2], 0.0, -view[0]])) if abs(view[1]) < 0.999 else np.array([1.0, 0.0, 0.0])
    if shape == "sphere":
        i = np.arange(600)
        radius, turn = np.sqrt((i + 0.5) / 600), i * math.pi * (3.0 - math.sqrt(5.0))
        upright = np.cross(level, view)
        out = (radius * np.cos(turn))[:, None] * level + (radius * np.sin(turn))[:, None] * upright
        return np.asarray(out - np.sqrt(1.0 - radius**2)[:, None] * view)
    ahead = -unit(np.array([view[0], 0.0, view[2]]))
    if shape == "cylinder":
        across = np.linspace(-0.999, 0.999, 400)
        return np.asarray(across[:, None] * level + np.sqrt(1.0 - across**2)[:, None] * ahead)
    return np.asarray(np.cos(TURNS)[:, None] * ahead + np.sin(TURNS)[:, None] * level)


def _hits(
    at: Floats, rays: Floats, corners: Floats, subject: Subject | None
) -> np.ndarray[tuple[int], np.dtype[np.bool_]]:
    """Which rays (K, 3) from `at` meet the front of a rectangle (4, 3) without meeting the figure first."""
    u, v = corners[1] - corners[0], corners[3] - corners[0]
    normal = np.cross(u, v)
    normal = normal * np.sign(float((at - corners[0]) @ normal) or 1.0)
    slope = rays @ normal
    with np.errstate(divide="ignore", invalid="ignore"):
        reach = ((corners[0] - at) @ normal) / slope
        place = at + reach[:, None] * rays - corners[0]
    s, t = place @ u / (u @ u), place @ v / (v @ v)
    met = (slope < -1e-12) & (s >= 0.0) & (s <= 1.0) & (t >= 0.0) & (t <= 1.0)
    if subject is not None and met.any():
        k = np.nonzero(met)[0]
        ends = at + reach[k, None] * rays[k]
        met[k] = ~hidden_by(figure_of(subject), np.repeat(at[None, :], len(k), axis=0), ends)
    return np.asarray(met)
