"""The room, figure and picture that were said, as a plan without lamps. What nobody said stays as it is usual."""

from __future__ import annotations

from typing import Any

from ..kit import Kit
from ..plan import FORMAT, VERSION, Plan, Room, plan_from
from .answers_given import RoomSaid, Said
from .presets import LEVELS, MOVES, WINDOW_CCT, WINDOW_LUX
from .surface_words import REFLECTS, SURFACES

BEHIND_SCREEN = 0.3
"""From the wall to a screen that stands or hangs, m."""
TITLES = {"full": "Full length", "knees": "To the knees", "waist": "Waist-up", "chest": "To the chest",
                 "face": "Face", "hands": "Hands"}  # fmt: skip


def plan_of_said(said: Said, kit: Kit) -> Plan:
    """Screen and camera are the kit's first."""
    plan = plan_from({"format": FORMAT, "version": VERSION})
    screen, camera, lens = kit.screens[0], kit.cameras[0], kit.lenses[0]
    framing = said.framing or "waist"
    subject: dict[str, Any] = {"framing": framing, "feet_seen": framing == "full"}
    if said.movement is not None:
        speed, reach = MOVES[said.movement]
        subject |= {"speed": speed, "envelope": reach}
    room = room_of_said(said.room, plan.room)
    if windows := sum(lamp.count for lamp in said.lamps if lamp.kind == "window"):
        room |= {"ambient_lux": WINDOW_LUX * windows, "ambient_cct": WINDOW_CCT}
    height = min(screen.height, room["height"] - 0.05) if room["kind"] == "interior" else screen.height
    return plan_from(
        {
            "format": FORMAT,
            "version": VERSION,
            "title": said.title.strip() or TITLES[framing],
            "room": room,
            "screen": {
                "hue": screen.hue,
                "reflectance": screen.reflectance,
                "material": screen.material,
                "width": screen.width,
                "height": max(0.1, height),
                "gloss": screen.gloss,
                "transmittance": screen.transmittance,
                "wrinkle_slope": screen.wrinkle_slope,
            },
            "subject": subject,
            "camera": {
                "sensor": camera.sensor.model_dump(mode="json"),
                "recording": camera.recording.model_dump(mode="json"),
                "focal_mm": lens.focal_mm,
                "f_number": max(lens.f_number, 1.0 if lens.fixed else 4.0),
                "widest": lens.f_number,
                "z": min(6.4, room["z_max"] - 0.5),
                "iso": camera.sensor.base_iso,
            },
            "plate": _plate(said),
        }
    )


def room_of_said(said: RoomSaid, was: Room) -> dict[str, Any]:
    """A room of the plan document: the screen's wall behind the screen, the rest before it; sides alike."""
    deep = said.length or was.z_max - was.z_min
    across = said.width or was.x_max - was.x_min
    behind = min(BEHIND_SCREEN, was.z_min * -1.0) if said.length is None else BEHIND_SCREEN
    reflects = was.reflectance.model_dump(mode="json")
    reflects |= {name: REFLECTS[tone] for name in SURFACES if (tone := getattr(said, name)) is not None}
    return was.model_dump(mode="json") | {
        "kind": "exterior" if said.outdoors else "interior",
        "x_min": -across / 2.0,
        "x_max": across / 2.0,
        "z_min": -behind,
        "z_max": deep - behind,
        "height": said.height or was.height,
        "reflectance": reflects,
    }


def _plate(said: Said) -> dict[str, Any]:
    """A picture that somebody has is read later; until then nothing is known of it."""
    level = None if said.behind is None else LEVELS.get(said.behind)
    return {"known": False} if level is None else {"mean_level": level}
