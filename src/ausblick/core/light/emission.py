"""What really leaves a lamp: fixture, photometry file and modifier together, at full power.

Modifiers are simple stated models. A soft box, an umbrella and a diffusion frame become a new
Lambertian face that passes `transmission` of the light which reaches it. A grid is a bundle of cells
seen under an angle: 1 - tan(a) / tan(half its angle) of the light passes. Doors are opaque leaves.
Several are met in their order: each takes what the one before it lets out.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field, replace
from functools import lru_cache

import numpy as np

from ..camera.pane_film import PaneFilm, film_of
from ..geometry.vectors import Floats, Reals, unit, ways_between
from ..plan import Light, Modifier, Photometry, Plan, read_ies
from ..plan.lamps import MODIFIERS, DiscEmitter, RectEmitter
from .blocked import blocked_grid
from .emitters import Face, face_at, lobe, lobe_exponent, peak_candela
from .keys import Noted
from .occlusion import NONE, quad
from .quadrature import polygon_points

GRID_ON_AXIS = 0.9
"""What a grid lets through along its axis: a tenth is lost at the edges of its cells (ours, from usual grids)."""
LEAF_LEAST = 0.15
"""A door leaf is at least as long as that, m."""


@dataclass(frozen=True, eq=False)
class Emission:
    """The emitting face; `peak` cd on its axis (whole face); the lobe's exponent, or a table instead.

    `scale` multiplies a table; `grids` are the tangents of half the angles of grids; `leaves` (T, 3, 3)
    block this lamp only; `normal_lux` for a sun; `film`: what dims it on its way through a window.
    """

    face: Face
    peak: float
    exponent: float
    table: Photometry | None
    scale: float = 1.0
    grids: tuple[float, ...] = ()
    leaves: Floats = field(default_factory=lambda: NONE)
    normal_lux: float | None = None
    film: PaneFilm | None = None

    @property
    def lambertian(self) -> bool:
        """A face of uniform luminance, for which there is a closed form."""
        return self.face.area > 0.0 and self.exponent == 1.0 and self.table is None and not self.grids

    @property
    def exitance(self) -> float:
        """Of a Lambertian face, lm/m2."""
        return math.pi * self.peak / self.face.area

    def filmed(self, lux: Floats, z: Floats) -> Floats:
        """Light (..., P) at places of depths z (P,) m less what a film on a window's pane takes on its way."""
        if self.film is None:
            return lux
        # A sun stands where its light comes from, however far.
        at = self.face.centre[2] if self.normal_lux is None else self.film.z - self.face.axis[2]
        return np.asarray(lux * self.film.through(np.array(at), z))

    def exitance_toward(self, place: Floats) -> float:
        """Of its face as it looks from a place (3,) m: pi times the luminance there, lm/m2; of a point as of a face
        of a square centimetre."""
        away = place - self.face.centre
        distance = float(np.linalg.norm(away))
        cosine = max(float(self.face.axis @ away) / distance, 1e-3)
        strength = float(self.candela(away, np.array(distance)))
        return math.pi * strength / (self.face.area * cosine if self.face.area > 0.0 else 1e-4)

    def candela(self, away: Reals, distance: Reals) -> Floats:
        """Intensity (...) in cd of the whole face toward `away` (3, ...) m of length `distance` (...)."""
        cosine = np.tensordot(self.face.axis.astype(away.dtype), away, 1) / distance
        if self.table is None:
            strength = self.peak * lobe(cosine, self.exponent)
        else:
            vertical = np.degrees(np.arccos(np.clip(cosine, -1.0, 1.0)))
            across, upward = (np.tensordot(axis, away, 1) for axis in (self.face.right, self.face.up))
            horizontal = np.degrees(np.arctan2(across, upward))
            strength = self.scale * self.table.intensity(vertical, horizontal)
        if self.grids:
            c = np.clip(cosine, 1e-6, 1.0)
            tangent = np.sqrt(np.maximum(0.0, 1.0 - c * c)) / c
            for edge in self.grids:
                strength = strength * GRID_ON_AXIS * np.clip(1.0 - tangent / edge, 0.0, None)
            strength = np.where(cosine > 0.0, strength, 0.0)
        return np.asarray(strength)


def emission_of(light: Light, plan: Plan | None = None) -> Emission:
    """The emission of a lamp; `plan` is needed where its beam comes from a photometry file."""
    beam = light.fixture.beam
    if beam.kind == "ies" and plan is not None:
        found = _emission(light.fixture, light.position, light.aim, light.modifiers, plan.photometry[beam.ref])
    else:
        found = _alone(light)
    film = None if plan is None else film_of(plan)
    return found if film is None else replace(found, film=film)


@Noted
def _alone(light: Light) -> Emission:
    """Of a lamp that no file tells of."""
    return _emission(light.fixture, light.position, light.aim, light.modifiers, None)


@lru_cache(maxsize=1024)
def _emission(fixture, position, aim, modifiers, text) -> Emission:  # type: ignore[no-untyped-def]
    centre = np.array(position)
    axis = unit(np.array(aim) - centre)
    face = face_at(centre, axis, fixture.emitter)
    if fixture.emitter.shape == "sun":
        return Emission(face, 0.0, 1.0, None, normal_lux=fixture.normal_lux)
    if fixture.emitter.shape == "window":
        return Emission(face, fixture.luminance * face.area, 1.0, None)
    if text is None:
        found = Emission(face, peak_candela(fixture), lobe_exponent(fixture), None)
    else:
        found = _from_table(face, fixture.luminous, fixture.peak_cd, read_ies(text))
    for modifier in modifiers:
        found = _modified(found, modifier)
    return found


def _from_table(face: Face, flux_lm: float | None, peak_cd: float | None, table: Photometry) -> Emission:
    """A file's own candela, or scaled to a flux or a peak that is given."""
    scale = table.tilt_factor(math.degrees(math.acos(max(-1.0, min(1.0, -float(face.axis[1]))))))
    if flux_lm is not None:
        scale *= flux_lm / table.flux
    elif peak_cd is not None:
        scale *= peak_cd / float(table.candela.max())
    return Emission(face, scale * float(table.candela.max()), 1.0, table, scale)


ROUND, ASIDE = 72, 400
"""Directions round the axis and away from it in which the light through a grid is summed up."""


def flux_of(lamp: Emission) -> float:
    """Lumens that leave a lamp; door leaves let all of it out, they only turn it."""
    if lamp.grids:
        return _through_grids(lamp)
    if lamp.table is not None:
        return lamp.scale * lamp.table.flux
    if lamp.exponent == 0.0:
        return 4.0 * math.pi * lamp.peak
    return 2.0 * math.pi * lamp.peak / (lamp.exponent + 1.0)


def _through_grids(lamp: Emission) -> float:
    """Its intensity over the half sphere ahead, in bands of equal solid angle."""
    cosine = (np.arange(ASIDE) + 0.5) / ASIDE
    turn = 2.0 * math.pi * (np.arange(ROUND) + 0.5) / ROUND
    c, t = (v.ravel() for v in np.meshgrid(cosine, turn))
    sine, face = np.sqrt(1.0 - c * c), lamp.face
    ways = face.axis[:, None] * c + face.right[:, None] * (sine * np.cos(t)) + face.up[:, None] * (sine * np.sin(t))
    return 2.0 * math.pi * float(lamp.candela(ways, np.ones(len(c))).mean())


def usual(m: Modifier, field: str) -> float:
    """The field as it is given, else what such a modifier usually is."""
    given = getattr(m, field)
    return float(MODIFIERS[m.kind][field] if given is None else given)


def _modified(lamp: Emission, m: Modifier) -> Emission:
    face = lamp.face
    if m.kind == "softbox":
        size = RectEmitter(width=usual(m, "width"), height=usual(m, "height"))
        return _soft(face_at(face.centre, face.axis, size), flux_of(lamp) * usual(m, "transmission"))
    if m.kind == "umbrella":
        disc = DiscEmitter(diameter=usual(m, "width"))
        return _soft(face_at(face.centre, face.axis, disc), flux_of(lamp) * usual(m, "transmission"))
    if m.kind == "diffusion":
        frame = RectEmitter(width=usual(m, "width"), height=usual(m, "height"))
        sheet = face_at(face.centre + usual(m, "distance") * face.axis, face.axis, frame)
        return _soft(sheet, _caught(lamp, sheet) * usual(m, "transmission"))
    if m.kind == "grid":
        return replace(lamp, grids=(*lamp.grids, math.tan(math.radians(usual(m, "deg") / 2.0))))
    if m.kind == "doors":
        return replace(lamp, leaves=np.concatenate([lamp.leaves, _leaves(face, m)]))
    return lamp


def _soft(face: Face, flux: float) -> Emission:
    return Emission(face, flux / math.pi, 1.0, None)


def _caught(lamp: Emission, sheet: Face) -> float:
    """Lumens of a lamp that reach a sheet before it, each place of its face taken as a point."""
    places, areas = polygon_points(sheet.outline, 12)
    if lamp.face.area > 0.0:
        sources, shares = polygon_points(lamp.face.outline, 4)
        shares = shares / lamp.face.area
    else:
        sources, shares = lamp.face.centre[None, :], np.ones(1)
    away = ways_between(sources, places)
    distance = np.maximum(np.linalg.norm(away, axis=0), 1e-4)
    facing = np.clip(np.tensordot(sheet.axis, away, 1) / distance, 0.0, None)
    given = lamp.candela(away, distance) * facing / distance**2
    if len(lamp.leaves):
        given[blocked_grid(places, sources, lamp.leaves)] = 0.0
    lux = given @ shares
    return min(float(lux @ areas), flux_of(lamp))


def _leaves(face: Face, m: Modifier) -> Floats:
    """Four door leaves hinged on the edges of the face, as triangles."""
    opened = usual(m, "deg")
    size = (
        np.ptp((face.outline - face.centre) @ np.stack([face.right, face.up]).T, axis=0) / 2.0
        if face.area > 0.0
        else np.array([0.075, 0.075])
    )
    w, h = np.maximum(size, 0.05)
    found = []
    for out, half, along, side, angle in (
        (face.up, h, face.right, w, m.top),
        (-face.up, h, face.right, w, m.bottom),
        (face.right, w, face.up, h, m.left),
        (-face.right, w, face.up, h, m.right),
    ):
        turn = math.radians(opened if angle is None else angle)
        long = max(LEAF_LEAST, 2.0 * min(float(w), float(h)))
        hinge = face.centre + half * out + 1e-4 * face.axis
        reach = long * (math.cos(turn) * face.axis + math.sin(turn) * out)
        ends = (hinge - side * along, hinge + side * along)
        found.append(quad([ends[0], ends[1], ends[1] + reach, ends[0] + reach]))
    return np.concatenate(found)
