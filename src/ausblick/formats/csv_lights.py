"""The lights of a plan as CSV: one row a lamp, for a spreadsheet or a pull list."""

from __future__ import annotations

import csv
import io

from ausblick.core.plan import Plan

COLUMNS = (
    "id",
    "name",
    "role",
    "shape",
    "width_m",
    "height_m",
    "flux_lm",
    "peak_cd",
    "normal_lux",
    "beam",
    "cct_k",
    "watts",
    "x_m",
    "y_m",
    "z_m",
    "aim_x_m",
    "aim_y_m",
    "aim_z_m",
    "dimmer_percent",
    "on",
    "modifier",
    "circuit",
)


def lights_csv(plan: Plan) -> str:
    """CSV text (RFC 4180) with a header row; metres, lumen, candela, lux, kelvin, watt."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    for lamp in plan.lights:
        fixture, emitter = lamp.fixture, lamp.fixture.emitter
        if emitter.shape == "rect":
            size: tuple[float | None, float | None] = (emitter.width, emitter.height)
        elif emitter.shape == "disc":
            size = (emitter.diameter, emitter.diameter)
        else:
            size = (None, None)
        writer.writerow(
            [
                _safe(lamp.id),
                _safe(lamp.name),
                lamp.role,
                emitter.shape,
                *size,
                fixture.flux_lm,
                fixture.peak_cd,
                fixture.normal_lux,
                fixture.beam.kind,
                fixture.cct,
                fixture.watts,
                *lamp.position,
                *lamp.aim,
                round(100.0 * lamp.dimmer, 3),
                "yes" if lamp.on else "no",
                " + ".join(one.kind for one in lamp.modifiers) or "none",
                _safe(lamp.circuit),
            ]
        )
    return out.getvalue()


def _safe(text: str) -> str:
    """Text that a spreadsheet would run as a formula is marked as text."""
    return "'" + text if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text
