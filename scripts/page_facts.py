"""What the page needs of the core's facts: ranges of fields by path, defaults of modifiers, where eyes are."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import Any

from ausblick.core.kit import Kit
from ausblick.core.plan import EYE_HEIGHT, Plan, Room
from ausblick.core.plan.lamps import MODIFIERS, MOST_BEYOND
from ausblick.core.plan.people import HIPS, SEAT
from ausblick.core.start.presets import CAMERAS
from ausblick.core.start.surface_words import REFLECTS

Schema = dict[str, Any]


def _walk(schema: Schema, node: Schema, path: str) -> Iterator[tuple[str, float, float]]:
    """(path, lowest, highest) of every number field below a node; lists as `[]`, unions one after the other."""
    if "$ref" in node:
        node = schema["$defs"][node["$ref"].rsplit("/", 1)[1]]
    if "minimum" in node and "maximum" in node:
        yield path, float(node["minimum"]), float(node["maximum"])
    for option in (*node.get("anyOf", ()), *node.get("oneOf", ())):
        yield from _walk(schema, option, path)
    for name, field in node.get("properties", {}).items():
        yield from _walk(schema, field, f"{path}.{name}" if path else name)
    items = node.get("items") or (node.get("prefixItems") or [None])[0]
    if isinstance(items, dict):
        yield from _walk(schema, items, f"{path}[]")


def ranges() -> dict[str, list[float]]:
    found: dict[str, list[float]] = {}
    for prefix, model in (("", Plan), ("kit", Kit)):
        schema = model.model_json_schema()
        for path, low, high in _walk(schema, schema, prefix):
            found.setdefault(path, [low, high])
    return found


def usual_room() -> dict[str, float]:
    room = Room()
    return {
        "length": round(room.z_max - room.z_min, 2),
        "width": round(room.x_max - room.x_min, 2),
        "height": room.height,
    }


def sensors() -> dict[str, list[float]]:
    return {
        word: [float(camera.sensor[side]) for side in ("width_mm", "height_mm")] for word, camera in CAMERAS.items()
    }


def page_facts() -> str:
    """The TypeScript module `web/src/lib/facts.generated.ts`."""
    rows = "\n".join(f"  {json.dumps(path)}: [{low:g}, {high:g}]," for path, (low, high) in sorted(ranges().items()))
    return (
        "/** Written by scripts/write_docs.py from the models of the core: do not change by hand. */\n\n"
        "/** The allowed range of every number field, by its path; places in lists as []. */\n"
        f"export const RANGES: Record<string, [number, number]> = {{\n{rows}\n}}\n\n"
        "/** What a modifier is where its fields are left out. */\n"
        f"export const MODIFIERS: Record<string, Record<string, number>> = {json.dumps(MODIFIERS)}\n\n"
        "/** Further modifiers that a lamp takes. */\n"
        f"export const MOST_BEYOND = {MOST_BEYOND}\n\n"
        "/** Height of the eyes as a share of stature. */\n"
        f"export const EYE_HEIGHT = {EYE_HEIGHT}\n\n"
        "/** Height of the hips as a share of stature, and of a chair's seat, m. */\n"
        f"export const HIPS = {HIPS}\nexport const SEAT = {SEAT}\n\n"
        "/** How large a room is where nobody says it, m. */\n"
        f"export const USUAL_ROOM = {json.dumps(usual_room())}\n\n"
        "/** Sensors by the word for them, mm. */\n"
        f"export const SENSORS: Record<string, [number, number]> = {json.dumps(sensors())}\n\n"
        "/** What walls, ceiling and floor reflect, by the word for them. */\n"
        f"export const TONES = {json.dumps(REFLECTS)} as unknown as Record<string, [number, number, number]>\n"
    )
