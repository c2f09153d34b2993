"""How the camera stood at a take: against the plan, and against the clean plate."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated

from ..plan import Camera
from ..plan.fields import Kelvin, Part, number
from ..sentences import tell
from .take_rules import TakeFinding, graded

ALIKE = {"iso": 0.06, "shutter_s": 0.06, "f_number": 0.06, "white_balance_k": 0.02, "fps": 0.005}
"""By what share settings are still the same: nominal ones differ from true ones (1/50 is 1/48, f/5.6 is f/5.66), and
a third of a stop is 12 % of an f-number."""


class CameraRecord(Part):
    """What somebody read off the camera, or a file said; None is not known."""

    iso: Annotated[float, number(1.0, 10_000_000.0, "ISO")] | None = None
    shutter_s: Annotated[float, number(0.000001, 60.0, "seconds")] | None = None
    f_number: Annotated[float, number(0.5, 128.0, "f-number")] | None = None
    white_balance_k: Kelvin | None = None
    fps: Annotated[float, number(0.1, 10_000.0, "frames per second")] | None = None


SETTINGS = tuple(CameraRecord.model_fields)


def record_of(camera: Camera) -> CameraRecord:
    return CameraRecord(**{name: getattr(camera, name) for name in SETTINGS})


def differing(one: CameraRecord, other: CameraRecord) -> Iterator[str]:
    """Settings that both know and that are not alike."""
    for name in SETTINGS:
        a, b = getattr(one, name), getattr(other, name)
        if a is not None and b is not None and abs(a - b) > ALIKE[name] * max(a, b):
            yield name


def other_than_planned(record: CameraRecord, camera: Camera) -> list[TakeFinding]:
    """A finding for each setting that is not the plan's."""
    planned = record_of(camera)
    return [
        graded(
            "take.settings",
            getattr(record, name),
            tell(f"take.settings/{name}", now=_told(name, record), planned=_told(name, planned)),
            1.0,
        )
        for name in differing(record, planned)
    ]


def _told(name: str, record: CameraRecord) -> float:
    """The shutter is told as parts of a second."""
    value = float(getattr(record, name))
    return 1.0 / value if name == "shutter_s" else value
