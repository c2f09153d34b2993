"""The recorders of the kit beside each other on one plan: what each keeps of the colour, and what it fills."""

from __future__ import annotations

from dataclasses import dataclass

from ...kit.kit_document import Kit
from ...plan import Change, Plan, Recording, apply_changes, edit
from ..rules.recording_rules import bits_a_pixel

CARD_GB = 256.0


@dataclass(frozen=True)
class Recorder:
    """`gb_minute` and minutes on a card of CARD_GB; `chosen`: the plan records this already."""

    name: str
    recording: Recording
    bits_a_pixel: float
    gb_minute: float
    card_minutes: float
    chosen: bool
    changes: tuple[Change, ...]


def recorders_of(plan: Plan, kit: Kit) -> list[Recorder]:
    """Best first: chroma, then bits, then the rate a pixel gets."""
    found = []
    for camera in kit.cameras:
        change = edit.camera.recording(camera.recording.model_dump(mode="json"))
        rate = camera.recording.mbit_s
        found.append(
            Recorder(
                camera.name,
                camera.recording,
                bits_a_pixel(apply_changes(plan, [change]).camera),
                60.0 * rate / 8000.0,
                CARD_GB * 8000.0 / (60.0 * rate),
                camera.recording == plan.camera.recording,
                (change,),
            )
        )
    order = ("4:2:0", "4:2:2", "4:4:4", "raw")
    return sorted(found, key=lambda r: (-order.index(r.recording.chroma), -r.recording.bits, -r.bits_a_pixel))
