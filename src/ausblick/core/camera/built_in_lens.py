"""Lenses that nobody changes or stops down: a phone's, and of others as small."""

from __future__ import annotations

from ..plan import Camera

SENSOR_MM, FOCAL_MM = 13.0, 10.0
"""Behind a sensor that is narrower a lens that is shorter is built in, and its opening is what it is. Ours: a phone's
main camera has 9.8 and 6.9 mm; small lenses that can be changed are longer, or before a larger sensor."""


def lens_is_built_in(camera: Camera) -> bool:
    """As far as a plan tells; a kit knows better."""
    return camera.sensor.width_mm < SENSOR_MM and camera.focal_mm < FOCAL_MM
