"""Where the sun stands for a place and a time, seen from a camera that looks somewhere."""

from __future__ import annotations

from datetime import datetime

from astral import Observer
from astral.sun import azimuth, elevation

from .plate_camera import PlateLight


def sun_for(latitude: float, longitude: float, when: datetime, heading: float) -> PlateLight:
    """Direction of the sun. Degrees; `heading` is the compass direction the camera looks (0 north, 90 east).

    `when` must carry its time zone. Azimuth as in the plan's plate: 0 from the camera, negative from the left.
    """
    if when.tzinfo is None:
        raise ValueError("the time must carry its time zone")
    observer = Observer(latitude, longitude)
    bearing = azimuth(observer, when)
    # A sun right behind the camera shines from the direction opposite to its heading.
    relative = (heading + 180.0 - bearing + 180.0) % 360.0 - 180.0
    return PlateLight(azimuth=relative, elevation=elevation(observer, when))
