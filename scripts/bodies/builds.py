"""What man, woman and child differ in, in hundredths of stature: usual proportions of adults, and of a child of
seven."""

from __future__ import annotations

from dataclasses import dataclass

from ausblick.core.figure.body_file import HEADS


@dataclass(frozen=True)
class Build:
    """Half widths of chest, waist and hips; `head`: size of the head beside an adult's; `jaw`, `brow`, `nose`: how
    strong they are; `neck`: half width; `shoulder`: half width of the joints; `limb`: thickness of arms and legs."""

    name: str
    chest: float
    waist: float
    hip: float
    bust: float
    head: float
    jaw: float
    brow: float
    nose: float
    neck: float
    shoulder: float
    limb: float


BUILDS = (
    Build("man", 10.4, 9.0, 9.9, 0.0, HEADS["man"], 1.0, 1.0, 1.0, 2.95, 10.6, 1.0),
    Build("woman", 9.0, 7.6, 10.2, 1.0, HEADS["woman"], 0.72, 0.3, 0.82, 2.35, 9.7, 0.9),
    Build("child", 9.2, 8.9, 9.3, 0.0, HEADS["child"], 0.6, 0.1, 0.72, 2.6, 9.4, 0.98),
)
