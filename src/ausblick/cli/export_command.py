"""`ausblick export`: a plan, or a production's day, in an open format."""

from __future__ import annotations

import json
from pathlib import Path

import click

from .commands import FILE, BadInput, app, load_plan
from .production_command import load_production


@app.command()
@click.argument("source", metavar="PLAN.json|PRODUCTION.json", type=FILE)
@click.option(
    "--to",
    required=True,
    metavar="sheet|svg|gltf|csv|day|ics|packing",
    help="Of a plan: sheet, the set sheet to print (PDF); svg, floor and section; gltf, room, screen, lights and "
    "camera in 3-D; csv, the lights, one row each. Of a production: day, the day sheet to print (PDF); csv, its "
    "entries; ics, the same for a calendar; packing, what has to come along.",
)
@click.option("--units", type=click.Choice(["m", "ft"]), default="m", help="Lengths on sheet and drawing.")
@click.option("--paper", type=click.Choice(["a4", "letter"]), default="a4", help="Size of the sheet.")
@click.option("-o", "--output", required=True, type=FILE, metavar="FILE")
def export(source: Path, to: str, units: str, paper: str, output: Path) -> int:
    """Write a plan or a production in an open format."""
    data = _of_production(source, to, paper) if _is_production(source) else _of_plan(source, to, units, paper)
    try:
        output.write_bytes(data)
    except OSError as err:
        raise BadInput(f"{output}: {(err.strerror or 'cannot be written').lower()}") from None
    return 0


def _is_production(source: Path) -> bool:
    """By its own word; whatever can't be read is told as a plan that can't."""
    from ausblick.core.plan.document import MAX_BYTES

    try:
        with source.open("rb") as file:
            data = json.loads(file.read(MAX_BYTES + 1))
    except (OSError, ValueError, RecursionError):
        return False
    return isinstance(data, dict) and data.get("format") == "ausblick-production"


def _of_plan(source: Path, to: str, units: str, paper: str) -> bytes:
    from ausblick.app.plan_exports import PLAN_FORMATS, export_plan

    known = next((one for one in PLAN_FORMATS if one == to and one != "plan"), None)
    if known is None:
        raise BadInput(f"--to: of a plan this version writes sheet, svg, gltf and csv (got {to[:20]!r})")
    plan = load_plan(source)
    return export_plan(plan, known, "ft" if units == "ft" else "m", "letter" if paper == "letter" else "a4").data


def _of_production(source: Path, to: str, paper: str) -> bytes:
    from ausblick.app.production_exports import DAY_FORMATS, export_day
    from ausblick.core.plan import PlanError

    known = next((one for one in DAY_FORMATS if one == to and one != "json"), None)
    if known is None:
        raise BadInput(f"--to: of a production this version writes day, csv, ics and packing (got {to[:20]!r})")
    production = load_production(source)
    try:
        return export_day(production, known, "letter" if paper == "letter" else "a4")
    except PlanError as err:
        raise BadInput(f"{source}: {err}") from None
