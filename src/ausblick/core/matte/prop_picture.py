"""Things held or worn as the camera sees them: what they mirror, what is seen through them, their own light.

A shiny thing mirrors what its mirrored rays meet: the lit screen and room, lamps' faces, the figure. Glass mirrors by
Schlick's formula at both faces of its wall; what lies behind it stays background.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..figure.body_ink import GREY
from ..figure.held_props import Shown
from ..figure.prop_shapes import Jar, Spectacles, bounds
from ..figure.solid_body import PARTS
from ..geometry.harmonics import harmonics
from ..geometry.vectors import Bools, Floats, Floats32, unit
from ..light.basis import weight
from ..light.emission import Emission, emission_of
from ..light.figure_shadow import figure_of, hidden_by
from ..light.mix import lamp_rgb
from ..plan import Plan, Subject
from .background import surfaces_seen
from .capture import Capture
from .drawn_place import DrawnPlace
from .met_surfaces import met_surfaces

SMOKE = 0.35
WALL = 0.06
"""What a wall of glass keeps back when looked through straight (ours: usual jars)."""
THICK, THICK_PASSES = 0.06, 0.6
LIQUID = 0.55
METAL = 1.6
"""A metal mirrors so much more than what it reflects when dull, never all of it."""
FAR = 20.0
GLINT = 0.9995
"""A lamp without a face is mirrored as a spot so narrow, as a cosine."""


@dataclass(frozen=True, eq=False)
class PropLayer:
    """Premultiplied linear light (H, W, 3) and cover (H, W); `inside` (H, W): within its outline, of what one looks
    through; 0 of others."""

    colour: Floats32
    cover: Floats32
    inside: Floats32


def prop_layer(capture: Capture, subject: Subject, place: DrawnPlace, thing: Shown) -> PropLayer | None:
    """A thing held or worn; None where it is not in the window."""
    box = place.box(*bounds(thing.shape), margin=2.0)
    if box is None or capture.body is None:
        return None
    x, y = place.shares(box)
    cover = np.clip(0.5 - thing.shape.distance(x, y) * place.px_per_height, 0.0, 1.0)
    alpha, seen = _looks(capture, subject, thing, x, y)
    if isinstance(thing.shape, Spectacles):
        rim = np.clip(0.5 + thing.shape.within(x, y) * place.px_per_height, 0.0, 1.0)
        dull = np.array(thing.prop.reflectance) * _light_on(capture, thing, thing.shape.normals(x, y))
        alpha, seen = alpha + (1.0 - alpha) * rim, (1.0 - rim)[..., None] * seen + rim[..., None] * dull
    whole, inside = np.zeros((2, *place.shape), dtype=np.float32)
    paint = np.zeros((*place.shape, 3), dtype=np.float32)
    whole[box], paint[box] = cover * alpha, cover[..., None] * seen
    if thing.prop.kind not in ("matt", "metal"):
        inside[box] = cover
    return PropLayer(paint, whole, inside)


def _looks(capture: Capture, subject: Subject, thing: Shown, x: Floats, y: Floats) -> tuple[Floats, Floats]:
    """How much of what is behind it a thing covers (...), and its own light (..., 3), at places x, y (...)."""
    assert capture.body is not None
    mark, prop = capture.body.body.mark, thing.prop
    at = mark.at(np.array([*thing.shape.middle, thing.before]))
    view = unit(mark.at(np.stack([x, y, np.full(x.shape, thing.before)], axis=-1)) - capture.view.lens)
    own = thing.shape.normals(x, y)
    normal = own @ mark.turn.T
    facing = np.clip(-(normal * view).sum(axis=-1), 0.0, 1.0)
    ink = np.array(prop.reflectance)
    dull = ink * _light_on(capture, thing, own)
    if prop.kind == "matt":
        return np.ones(x.shape), dull
    if prop.kind == "smoke":
        return SMOKE * facing, (SMOKE * facing)[..., None] * dull
    mirrored, of_screen = _mirrored(capture, subject, at, view + 2.0 * facing[..., None] * normal)
    if prop.kind == "metal":
        return np.ones(x.shape), np.minimum(METAL * ink, 0.95) * mirrored
    once = 0.04 + 0.96 * (1.0 - facing) ** 5
    twice = 2.0 * once / (1.0 + once)
    through = (1.0 - twice) * (1.0 - WALL) * (1.0 - 0.5 * (1.0 - facing) ** 4)
    if type(thing.shape) is Jar:
        # Base and lip are thick.
        ends = np.abs(y - thing.shape.y) > (1.0 - THICK) * thing.shape.tall
        through = through * np.where(ends, THICK_PASSES, 1.0)
    shown = twice
    if not thing.worn:
        # Of the screen that glass mirrors a key makes what stands behind: it is no part of the thing.
        shown, through = twice * ~of_screen, through + twice * of_screen
    if prop.kind == "glass":
        return 1.0 - through, shown[..., None] * mirrored
    kept = LIQUID + (1.0 - LIQUID) * (1.0 - facing) ** 4
    return 1.0 - through * (1.0 - kept), shown[..., None] * mirrored + (through * kept)[..., None] * dull


def _light_on(capture: Capture, thing: Shown, own: Floats) -> Floats:
    """Light (..., 3) on a dull thing by what it faces: as on the still hand beside it, or on the head, by least
    squares."""
    assert capture.body is not None
    shape, lux = capture.body.body.shape, capture.body.lux
    beside = "head" if thing.worn else "hand"
    here = (shape.part == PARTS.index(beside)) & (lux.max(axis=1) > 0.0)
    if here.sum() < 50:
        return np.broadcast_to(capture.light["chest"], own.shape)
    fit, *_ = np.linalg.lstsq(harmonics(shape.facing[here].astype(np.float64)), lux[here].astype(np.float64))
    return np.asarray(np.clip(harmonics(own) @ fit, 0.0, None))


def _mirrored(capture: Capture, subject: Subject, at: Floats, rays: Floats) -> tuple[Floats32, Bools]:
    """Linear light (..., 3) that comes to `at` (3,) m along rays (..., 3) of unit length from there, and where it is
    the screen's (...)."""
    assert capture.body is not None
    seen = surfaces_seen(capture, at, met_surfaces(capture, at, rays))
    found = seen.image
    # Of the room only what the frame shows is known by place; the rest as it surrounds the figure.
    around = harmonics(rays @ capture.body.body.mark.turn) @ capture.body.around
    found[seen.nothing] = np.clip(around, 0.0, None)[seen.nothing]
    flat = rays.reshape(-1, 3)
    blocked = np.zeros(rays.shape[:-1], dtype=bool)
    if subject.framing != "hands":
        starts = np.broadcast_to(at, flat.shape)
        blocked = hidden_by(figure_of(subject), starts, starts + FAR * flat).reshape(blocked.shape)
    above = subject.worn_above
    worn = GREY if above is None else above.reflectance
    found[blocked] = np.array(worn) * capture.light["chest"]
    for face_seen, radiance in _lamps(capture.plan, at, flat, capture.linear_of_lux):
        shown = face_seen.reshape(blocked.shape) & ~blocked
        found[shown] = radiance
        blocked = blocked | shown
    return found, (seen.on_screen > 0.5) & ~blocked


def _lamps(plan: Plan, at: Floats, rays: Floats, linear_of_lux: float) -> list[tuple[Bools, Floats]]:
    """Which rays (K, 3) from `at` meet a burning face (K,), and its linear light (3,)."""
    found = []
    for lamp in plan.lights:
        strength = weight(lamp, plan.camera)
        if strength <= 0.0 or lamp.is_daylight:
            continue
        emission = emission_of(lamp, plan)
        met = _face_met(emission, at, rays)
        if met.any():
            bright = strength * emission.exitance_toward(at) * linear_of_lux
            found.append((met, bright * lamp_rgb(plan, lamp)))
    return found


def _face_met(emission: Emission, at: Floats, rays: Floats) -> Bools:
    face = emission.face
    way = face.centre - at
    if face.area == 0.0:
        return np.asarray(rays @ unit(way) > GLINT)
    if float(way @ face.axis) >= 0.0:
        return np.zeros(len(rays), dtype=bool)
    slope = rays @ face.axis
    reach = float(way @ face.axis) / np.where(slope < -1e-9, slope, -1e-9)
    place = at + reach[:, None] * rays - face.centre
    outline = face.outline - face.centre
    right, up = np.abs(outline @ face.right).max(), np.abs(outline @ face.up).max()
    across, along = np.abs(place @ face.right) / right, np.abs(place @ face.up) / up
    inside = (across < 1.0) & (along < 1.0) if len(outline) == 4 else np.hypot(across, along) < 1.0
    return np.asarray(inside & (slope < -1e-9))
