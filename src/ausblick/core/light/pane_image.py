"""What a lamp mirrored in the window pane looks like to the lens: its outline on the glass, and how bright it is.

The mirror image has the lamp's luminance times what the glass sends back: both faces of the sheet by Fresnel's
equations, with what goes to and fro between them, 2r / (1 + r) (Hecht, Optics, 5th ed., 4.6).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..camera.view import View
from ..geometry.vectors import Floats, cross, unit
from ..plan import Light, Plan, Window
from .basis import weight
from .emission import Emission, emission_of
from .mirror import Reflection, cut_to_pane, mirrored_outline, on_plane, sun_way
from .mix import lamp_rgb

INDEX = 1.52
"""Refractive index of window glass."""
BULB = 0.03
"""Radius in m of what stands for a lamp without a size."""
SUN = math.radians(0.2665)
"""Half the sun's angular diameter."""
TURNS = np.linspace(0.0, 2.0 * math.pi, 16, endpoint=False)


@dataclass(frozen=True, eq=False)
class PaneImage:
    """`outline` (K, 3) m on the glass; `lux` (3,): pi times the luminance there, in the lamp's colour, so that it
    compares with the light that a matt surface sends back (reflectance times lux)."""

    light: str
    outline: Floats
    lux: Floats


def pane_images(plan: Plan, view: View, reflections: Sequence[Reflection]) -> list[PaneImage]:
    """The lamps that the camera sees in the pane; `reflections` of the same plan and view, lamp by lamp."""
    if plan.window is None:
        return []
    seen = [lamp for lamp, found in zip(plan.lights, reflections, strict=True) if found.visible]
    return [image for lamp in seen if (image := _image_of(plan, plan.window, lamp, view)) is not None]


def _image_of(plan: Plan, pane: Window, lamp: Light, view: View) -> PaneImage | None:
    emission = emission_of(lamp, plan)
    whole = _outline(emission, pane, view)
    outline = cut_to_pane(whole, pane) if len(whole) >= 3 else whole
    if len(outline) < 3:
        return None
    way = unit(outline.mean(axis=0) - view.lens)
    back = sheet_reflectance(abs(float(way[2])))
    luminance = _luminance(emission, outline.mean(axis=0))
    return PaneImage(lamp.id, outline, math.pi * luminance * back * weight(lamp, plan.camera) * lamp_rgb(plan, lamp))


def _outline(emission: Emission, pane: Window, view: View) -> Floats:
    """The lamp's outline (K, 3) on the pane's plane; one without a size is drawn as a bulb, the sun as its disc."""
    if emission.normal_lux is not None:
        ways = _round(unit(sun_way(emission)), math.tan(SUN))
        hits = [on_plane(view.lens, way, pane.z) for way in ways]
        return np.array([hit for hit in hits if hit is not None])
    if emission.face.area > 0.0:
        return mirrored_outline(emission, emission.face.outline, pane, view)[1]
    centre = emission.face.centre
    toward = np.array([*view.lens[:2], 2.0 * pane.z - view.lens[2]]) - centre
    ball = centre + BULB * (_round(unit(toward), 1.0) - unit(toward))
    return mirrored_outline(emission, ball, pane, view)[1]


def _round(way: Floats, radius: float) -> Floats:
    """A circle (K, 3) of a radius round the end of a unit vector (3,), square to it."""
    level = unit(cross(way, np.array([0.0, 1.0, 0.0]) if abs(way[1]) < 0.9 else np.array([1.0, 0.0, 0.0])))
    upright = cross(way, level)
    return np.asarray(way + radius * (np.cos(TURNS)[:, None] * level + np.sin(TURNS)[:, None] * upright))


def _luminance(emission: Emission, at: Floats) -> float:
    """cd/m2 of a lamp as seen from a place (3,) of the glass."""
    if emission.normal_lux is not None:
        return emission.normal_lux / (math.pi * math.tan(SUN) ** 2)
    away = at - emission.face.centre
    distance = float(np.linalg.norm(away))
    candela = float(emission.candela(away, np.array(distance)))
    if emission.face.area <= 0.0:
        return candela / (math.pi * BULB**2)
    # A face seen on edge still has the thickness of its housing.
    facing = max(0.02, abs(float(away @ emission.face.axis)) / distance)
    return candela / (emission.face.area * facing)


def sheet_reflectance(cosine: float) -> float:
    """Share 0..1 of the light that a clear sheet sends back at an angle of incidence."""
    inside = math.sqrt(1.0 - (1.0 - cosine * cosine) / INDEX**2)
    across = (cosine - INDEX * inside) / (cosine + INDEX * inside)
    along = (inside - INDEX * cosine) / (inside + INDEX * cosine)
    face = 0.5 * (across**2 + along**2)
    return 2.0 * face / (1.0 + face)
