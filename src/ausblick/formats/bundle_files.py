"""The files of a hand-over that no other export writes: outline, masks, the curve's table, a text to begin with."""

from __future__ import annotations

import json
import math
from collections.abc import Sequence
from dataclasses import asdict
from typing import Any

import cv2
import numpy as np

from ausblick.core.colour.curves import decode
from ausblick.core.geometry.vectors import Bools
from ausblick.core.handover.action_outline import ActionOutline
from ausblick.core.handover.key_facts import KeyFacts
from ausblick.core.plan import Camera

from .images import png_bytes

STEPS = 1024


def outline_svg(outline: ActionOutline, width: int, height: int) -> bytes:
    """The polygons in pixels of the full frame."""
    paths = "".join(
        '<path d="M' + "L".join(f"{u * width:.1f} {v * height:.1f}" for u, v in polygon) + 'Z"/>'
        for polygon in outline.polygons
    )
    head = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}" height="{height}" viewBox="0 0 {width} {height}">'
    )
    return f'{head}<title>Outline of the action</title><g fill="white">{paths}</g></svg>\n'.encode()


def mask_png(mask: Bools, width: int, height: int) -> bytes:
    """White is kept, at the full frame's size."""
    full = cv2.resize(mask.astype(np.uint8) * 255, (width, height), interpolation=cv2.INTER_LINEAR)
    return png_bytes(np.where(full >= 128, 255, 0).astype(np.uint8))


def polygons_png(polygons: Sequence[Sequence[tuple[float, float]]], width: int, height: int) -> bytes:
    """White inside of polygons in parts of the frame, at its full size."""
    mask = np.zeros((height, width), np.uint8)
    for polygon in polygons:
        corners = np.round(np.array(polygon) * (width, height) - 0.5).astype(np.int32)
        cv2.fillPoly(mask, [corners], 255)
    return png_bytes(mask)


def curve_cube(camera: Camera) -> bytes:
    """From the recorded signal to linear light, one dimension: the way to linear before the key, and back after."""
    signal = np.linspace(0.0, 1.0, STEPS)
    rgb = np.repeat(signal[:, None], 3, axis=1)
    linear = np.asarray(decode(rgb, camera.curve, camera.curve_table or ""))
    rows = "\n".join(" ".join(f"{value:.7f}" for value in row) for row in linear)
    return f'TITLE "{camera.curve} to linear"\nLUT_1D_SIZE {STEPS}\n{rows}\n'.encode()


def facts_json(facts: KeyFacts) -> bytes:
    """Masks are files of their own."""
    data: dict[str, Any] = asdict(facts)
    if data["outline"] is not None:
        del data["outline"]["mask"]
    return (json.dumps(_finite(data), indent=1, allow_nan=False) + "\n").encode()


def _finite(value: Any) -> Any:
    """What is without bound is null in JSON."""
    if isinstance(value, dict):
        return {key: _finite(one) for key, one in value.items()}
    if isinstance(value, (list, tuple)):
        return [_finite(one) for one in value]
    if isinstance(value, (float, np.floating)):
        return float(value) if math.isfinite(value) else None
    return value


def _things(what: str, names: Sequence[str]) -> list[str]:
    return [f"{what}: {', '.join(names)}."] if names else []


def begin_here(facts: KeyFacts, names: list[str]) -> bytes:
    lines = [facts.title, "", f"Recorded in {facts.curve}. Go to linear with to-linear.cube, and back at the end.",
             "1  Crop or outline first: outline.png keeps, outline.svg is the same to be edited.",
             "2  Sample the screen where keying.json says (samples.beside_face).",
             f"3  Clean plate: {facts.clean_plate}.",
             "4  Clip as little as possible; walk through the whole clip after each change, fingers and ears first.",
             *_things("Hold out, they must stay", facts.planned_hold_outs),
             *_things("In the screen's colour on purpose, to be keyed away", facts.keyed_away),
             "", "Known problems:", *(f"- {one}" for one in facts.problems or ("none that was looked at",)),
             "", "Files:", *(f"- {name}" for name in names)]  # fmt: skip
    return ("\n".join(lines) + "\n").encode()
