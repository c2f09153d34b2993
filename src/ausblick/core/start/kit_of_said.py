"""The things that were said, as a kit: what proposals are made from."""

from __future__ import annotations

from typing import Any

from ..kit import Kit, KitError, kit_from
from ..kit.kit_document import KitLamp, dump_kit
from ..rig.materials import facts_of
from .answers_given import CameraSaid, ClothSaid, LampSaid, Said
from .presets import CAMERAS, CLOTHS, INK, LAMPS, CameraKind, ClothKind

USUAL_CLOTH: ClothKind = "cloth"
USUAL_CAMERA: CameraKind = "large"


def kit_of_said(said: Said, own: Kit) -> Kit:
    """Of each kind what was said; where nothing was, what is owned; else what is usual. Lamps have no usual.

    Raises KitError for a lamp that the kit does not have.
    """
    owned = dump_kit(own)
    cloth, camera = said.cloth, said.camera
    data: dict[str, Any] = {"stands": owned["stands"], "sandbags": own.sandbags, "clamps": own.clamps}
    data["screens"] = owned["screens"] if cloth == ClothSaid() and own.screens else [_screen(cloth)]
    usual = camera == CameraSaid() and own.cameras and own.lenses
    data["cameras"] = owned["cameras"] if usual else [_camera(camera)]
    data["lenses"] = owned["lenses"] if usual else _lenses(camera)
    data["lamps"] = [_lamp(lamp, own) for lamp in said.lamps if lamp.kind != "window"]
    return kit_from(data)


def _screen(said: ClothSaid) -> dict[str, Any]:
    preset, hue = CLOTHS[said.kind or USUAL_CLOTH], said.hue or "green"
    facts = facts_of(preset.material)
    screen: dict[str, Any] = {
        "name": f"{hue} {preset.name}",
        "hue": hue,
        "reflectance": INK[hue],
        "material": preset.material,
        "width": said.width or preset.width,
        "height": said.height or preset.height,
    }
    if facts is not None:
        screen |= {
            "gloss": facts.gloss,
            "transmittance": facts.transmittance,
            "wrinkle_slope": facts.wrinkle_slope,
        }
    return screen


def _camera(said: CameraSaid) -> dict[str, Any]:
    preset = CAMERAS[said.kind or USUAL_CAMERA]
    return {"name": preset.name, "sensor": preset.sensor, "recording": preset.recording}


def _lenses(said: CameraSaid) -> list[dict[str, Any]]:
    preset = CAMERAS[said.kind or USUAL_CAMERA]
    widest = min(f for _, f in preset.lenses)
    lenses = [(mm, widest) for mm in said.lenses] or list(preset.lenses)
    return [{"name": f"{mm:g} mm", "focal_mm": mm, "f_number": f, "fixed": preset.fixed} for mm, f in lenses]


def lamp_of_said(said: LampSaid, own: Kit) -> KitLamp:
    """Raises KitError for a lamp that the kit does not have."""
    return kit_from({"lamps": [_lamp(said, own)]}).lamps[0]


def _lamp(said: LampSaid, own: Kit) -> dict[str, Any]:
    if said.kind is None:
        found = next((lamp for lamp in own.lamps if lamp.name == said.name), None)
        if found is None:
            raise KitError("lamps", "the kit has no lamp of this name", repr(said.name))
        return found.model_dump(mode="json") | {"count": said.count}
    preset = LAMPS[said.kind]
    watts = said.watts or preset.watts
    lumen = said.lumens or (said.watts * preset.lumen_per_watt if said.watts else preset.lumen)
    fixture = {"emitter": preset.face, "flux_lm": lumen, "watts": watts}
    return {"name": said.name or preset.name, "count": said.count, "fixture": fixture}
