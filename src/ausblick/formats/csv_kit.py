"""The kit as CSV, one row a thing: out for a spreadsheet, and in again."""

from __future__ import annotations

import csv
import io
from typing import Any

from ausblick.core.kit import Kit, KitError, kit_from

COLUMNS = (
    "kind", "name", "count", "width_m", "height_m", "floor_run_m", "hue", "material", "focal_mm", "f_number",
    "flux_lm", "cct_k", "watts", "load_kg", "px_w", "px_h", "sensor_width_mm", "sensor_height_mm", "base_iso",
)  # fmt: skip
MOST_ROWS = 1000


def kit_csv(kit: Kit) -> str:
    """CSV text (RFC 4180). Lamps that are no rectangle keep only their power in this form."""
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS)
    writer.writeheader()
    for row in _rows(kit):
        name = str(row["name"])
        row["name"] = "'" + name if name[:1] in ("=", "+", "-", "@", "\t") else name
        writer.writerow(row)
    return out.getvalue()


def _rows(kit: Kit) -> list[dict[str, Any]]:
    rows: list[dict[str, Any]] = [
        {"kind": "screen", "name": s.name, "count": s.count, "width_m": s.width, "height_m": s.height,
         "floor_run_m": s.floor_run, "hue": s.hue, "material": s.material}
        for s in kit.screens
    ]  # fmt: skip
    rows += [
        {"kind": "lens", "name": n.name, "count": n.count, "focal_mm": n.focal_mm, "f_number": n.f_number}
        for n in kit.lenses
    ]
    rows += [
        {"kind": "camera", "name": c.name, "count": c.count, "px_w": c.sensor.px_w, "px_h": c.sensor.px_h,
         "sensor_width_mm": c.sensor.width_mm, "sensor_height_mm": c.sensor.height_mm, "base_iso": c.sensor.base_iso}
        for c in kit.cameras
    ]  # fmt: skip
    for lamp in kit.lamps:
        face = lamp.fixture.emitter
        size = (face.width, face.height) if face.shape == "rect" else (None, None)
        rows.append(
            {"kind": "lamp", "name": lamp.name, "count": lamp.count, "width_m": size[0], "height_m": size[1],
             "flux_lm": lamp.fixture.flux_lm, "cct_k": lamp.fixture.cct, "watts": lamp.fixture.watts}
        )  # fmt: skip
    rows += [
        {"kind": "stand", "name": s.name, "count": s.count, "height_m": s.height, "load_kg": s.load_kg}
        for s in kit.stands
    ]
    rows.append({"kind": "sandbag", "name": "sandbag", "count": kit.sandbags, "load_kg": kit.sandbag_kg})
    rows.append({"kind": "clamp", "name": "clamp", "count": kit.clamps})
    return rows


def read_kit_csv(text: str) -> Kit:
    """The kit in a CSV text with these columns. Raises KitError naming row and column."""
    reader = csv.DictReader(io.StringIO(text.lstrip("\ufeff"), newline=None))
    if not reader.fieldnames or not {"kind", "name"} <= set(reader.fieldnames):
        raise KitError("row 1", "must name the columns, with at least kind and name")
    data: dict[str, Any] = {}
    try:
        for number, row in enumerate(reader, start=2):
            if number > MOST_ROWS:
                raise KitError(f"row {number}", f"is one too many; {MOST_ROWS} are read")
            _take(data, {k: v.strip() for k, v in row.items() if k and v and v.strip()}, f"row {number}")
    except csv.Error as err:
        raise KitError("csv", f"is damaged: {err}") from None
    return kit_from(data)


def _take(data: dict[str, Any], row: dict[str, str], where: str) -> None:
    kind = row.get("kind", "")
    count = int(_number(row, "count", where, 1.0))
    base = {"name": row.get("name", kind).removeprefix("'"), "count": count}

    def some(**names: str) -> dict[str, float]:
        return {field: _number(row, column, where) for field, column in names.items() if column in row}

    if kind == "screen":
        words = {k: row[k] for k in ("hue", "material") if k in row}
        dyed = {"reflectance": [0.05, 0.10, 0.40]} if words.get("hue") == "blue" else {}
        item = base | words | dyed | some(width="width_m", height="height_m", floor_run="floor_run_m")
        data.setdefault("screens", []).append(item)
    elif kind == "lens":
        data.setdefault("lenses", []).append(base | some(focal_mm="focal_mm", f_number="f_number"))
    elif kind == "camera":
        sensor: dict[str, Any] = some(width_mm="sensor_width_mm", height_mm="sensor_height_mm", base_iso="base_iso")
        sensor |= {k: int(v) for k, v in some(px_w="px_w", px_h="px_h").items()}
        data.setdefault("cameras", []).append(base | {"sensor": sensor})
    elif kind == "lamp":
        face = {"shape": "rect"} | some(width="width_m", height="height_m")
        fixture = some(flux_lm="flux_lm", cct="cct_k", watts="watts") | {"emitter": face}
        data.setdefault("lamps", []).append(base | {"fixture": fixture})
    elif kind == "stand":
        data.setdefault("stands", []).append(base | some(height="height_m", load_kg="load_kg"))
    elif kind == "sandbag":
        data["sandbags"] = count
        data |= some(sandbag_kg="load_kg")
    elif kind == "clamp":
        data["clamps"] = count
    else:
        raise KitError(
            f"{where}, kind", "must be screen, lens, camera, lamp, stand, sandbag or clamp", repr(kind[:40])
        )


def _number(row: dict[str, str], column: str, where: str, default: float | None = None) -> float:
    text = row.get(column)
    if text is None and default is not None:
        return default
    try:
        value = float((text or "").replace(",", "."))
    except ValueError:
        raise KitError(f"{where}, {column}", "must be a number", repr((text or "")[:40])) from None
    if not abs(value) < 1e12:
        raise KitError(f"{where}, {column}", "must be a finite number", text)
    return value
