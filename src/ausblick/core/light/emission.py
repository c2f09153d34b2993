"""What really leaves a lamp: fixture, photometry file and modifier together, at full power.

Modifiers are simple stated models. A soft box, an umbrella and a diffusion frame become a new
Lambertian face that passes `transmission` of the light which reaches it. A grid is a bundle of cells
seen under an angle: 1 - tan(a) / tan(half its angle) of the light passes. Doors are opaque leaves.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from ..geometry.vectors import Floats, unit
from ..plan import Light, Modifier, Photometry, Plan, read_ies
from ..plan.lamps import MODIFIERS, DiscEmitter, RectEmitter
from .emitters import Face, face_at, lobe, lobe_exponent, peak_candela
from .occlusion import NONE, quad
from .quadrature import polygon_points

GRID_ON_AXIS = 0.9
"""What a grid lets through along its axis: a tenth is lost at the edges of its cells (ours, from usual grids)."""
LEAF_LEAST = 0.15
"""A door leaf is at least as long as that, m."""


@dataclass(frozen=True, eq=False)
class Emission:
    """The emitting face; `peak` cd on its axis (whole face); the lobe's exponent, or a table instead.

    `scale` multiplies a table; `grid_tan` is the tangent of a grid's half angle; `leaves` (T, 3, 3)
    block this lamp only; `normal_lux` for a sun.
    """

    face: Face
    peak: float
    exponent: float
    table: Photometry | None
    scale: float
    grid_tan: float | None
    leaves: Floats
    normal_lux: float | None

    @property
    def lambertian(self) -> bool:
        """A face of uniform luminance, for which there is a closed form."""
        return self.face.area > 0.0 and self.exponent == 1.0 and self.table is None and self.grid_tan is None

    def candela(self, away: Floats, distance: Floats) -> Floats:
        """Intensity (...) in cd of the whole face toward `away` (3, ...) m of length `distance` (...)."""
        cosine = np.tensordot(self.face.axis, away, 1) / distance
        if self.table is None:
            strength = self.peak * lobe(cosine, self.exponent)
        else:
            vertical = np.degrees(np.arccos(np.clip(cosine, -1.0, 1.0)))
            across, upward = (np.tensordot(axis, away, 1) for axis in (self.face.right, self.face.up))
            horizontal = np.degrees(np.arctan2(across, upward))
            strength = self.scale * self.table.intensity(vertical, horizontal)
        if self.grid_tan is not None:
            c = np.clip(cosine, 1e-6, 1.0)
            tangent = np.sqrt(np.maximum(0.0, 1.0 - c * c)) / c
            strength = strength * GRID_ON_AXIS * np.clip(1.0 - tangent / self.grid_tan, 0.0, None)
            strength = np.where(cosine > 0.0, strength, 0.0)
        return np.asarray(strength)


def emission_of(light: Light, plan: Plan | None = None) -> Emission:
    """The emission of a lamp; `plan` is needed where its beam comes from a photometry file."""
    beam = light.fixture.beam
    text = plan.photometry[beam.ref] if beam.kind == "ies" and plan is not None else None
    return _emission(light.fixture, light.position, light.aim, light.modifier, text)


@lru_cache(maxsize=1024)
def _emission(fixture, position, aim, modifier, text) -> Emission:  # type: ignore[no-untyped-def]
    centre = np.array(position)
    axis = unit(np.array(aim) - centre)
    face = face_at(centre, axis, fixture.emitter)
    if fixture.emitter.shape == "sun":
        return Emission(face, 0.0, 1.0, None, 1.0, None, NONE, fixture.normal_lux)
    if text is None:
        bare = Emission(face, peak_candela(fixture), lobe_exponent(fixture), None, 1.0, None, NONE, None)
    else:
        bare = _from_table(face, fixture.luminous, fixture.peak_cd, read_ies(text))
    return _modified(bare, modifier)


def _from_table(face: Face, flux_lm: float | None, peak_cd: float | None, table: Photometry) -> Emission:
    """A file's own candela, or scaled to a flux or a peak that is given."""
    scale = table.tilt_factor(math.degrees(math.acos(max(-1.0, min(1.0, -float(face.axis[1]))))))
    if flux_lm is not None:
        scale *= flux_lm / table.flux
    elif peak_cd is not None:
        scale *= peak_cd / float(table.candela.max())
    return Emission(face, scale * float(table.candela.max()), 1.0, table, scale, None, NONE, None)


def flux_of(bare: Emission) -> float:
    """Lumens of an unmodified lamp."""
    if bare.table is not None:
        return bare.scale * bare.table.flux
    if bare.exponent == 0.0:
        return 4.0 * math.pi * bare.peak
    return 2.0 * math.pi * bare.peak / (bare.exponent + 1.0)


def _usual(m: Modifier, field: str) -> float:
    """The field as it is given, else what such a modifier usually is."""
    given = getattr(m, field)
    return float(MODIFIERS[m.kind][field] if given is None else given)


def _modified(bare: Emission, m: Modifier) -> Emission:
    face = bare.face
    if m.kind == "softbox":
        size = RectEmitter(width=_usual(m, "width"), height=_usual(m, "height"))
        return _soft(face_at(face.centre, face.axis, size), flux_of(bare) * _usual(m, "transmission"))
    if m.kind == "umbrella":
        disc = DiscEmitter(diameter=_usual(m, "width"))
        return _soft(face_at(face.centre, face.axis, disc), flux_of(bare) * _usual(m, "transmission"))
    if m.kind == "diffusion":
        frame = RectEmitter(width=_usual(m, "width"), height=_usual(m, "height"))
        sheet = face_at(face.centre + _usual(m, "distance") * face.axis, face.axis, frame)
        return _soft(sheet, _caught(bare, sheet) * _usual(m, "transmission"))
    if m.kind == "grid":
        tangent = math.tan(math.radians(_usual(m, "deg") / 2.0))
        return Emission(face, bare.peak, bare.exponent, bare.table, bare.scale, tangent, NONE, None)
    if m.kind == "doors":
        leaves = _leaves(face, m)
        return Emission(face, bare.peak, bare.exponent, bare.table, bare.scale, None, leaves, None)
    return bare


def _soft(face: Face, flux: float) -> Emission:
    return Emission(face, flux / math.pi, 1.0, None, 1.0, None, NONE, None)


def _caught(bare: Emission, sheet: Face) -> float:
    """Lumens of the bare lamp that reach a sheet before it, each place of its face taken as a point."""
    places, areas = polygon_points(sheet.outline, 12)
    if bare.face.area > 0.0:
        sources, shares = polygon_points(bare.face.outline, 4)
        shares = shares / bare.face.area
    else:
        sources, shares = bare.face.centre[None, :], np.ones(1)
    away = places.T[:, :, None] - sources.T[:, None, :]
    distance = np.maximum(np.linalg.norm(away, axis=0), 1e-4)
    facing = np.clip(np.tensordot(sheet.axis, away, 1) / distance, 0.0, None)
    lux = (bare.candela(away, distance) * facing / distance**2) @ shares
    return min(float(lux @ areas), flux_of(bare))


def _leaves(face: Face, m: Modifier) -> Floats:
    """Four door leaves hinged on the edges of the face, as triangles."""
    usual = _usual(m, "deg")
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
        turn = math.radians(usual if angle is None else angle)
        long = max(LEAF_LEAST, 2.0 * min(float(w), float(h)))
        hinge = face.centre + half * out + 1e-4 * face.axis
        reach = long * (math.cos(turn) * face.axis + math.sin(turn) * out)
        ends = (hinge - side * along, hinge + side * along)
        found.append(quad([ends[0], ends[1], ends[1] + reach, ends[0] + reach]))
    return np.concatenate(found)
