"""`ausblick export`: a plan, or a production's day, in an open format."""

from __future__ import annotations

import json
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from .commands import FILE, BadInput, app, load_plan
from .production_command import load_production

if TYPE_CHECKING:
    from ausblick.app.bundle import Seen
    from ausblick.core.plan import Plan


@app.command()
@click.argument("source", metavar="PLAN.json|PRODUCTION.json", type=FILE)
@click.option(
    "--to",
    required=True,
    metavar="sheet|svg|gltf|csv|bundle|day|ics|packing",
    help="Of a plan: sheet, the set sheet to print (PDF); svg, floor and section; gltf, room, screen, lights and "
    "camera in 3-D; csv, the lights, one row each; bundle, all of it for the person who keys (zip), with "
    "what is read of --frame. Of a production: day, the day sheet to print (PDF); csv, its "
    "entries; ics, the same for a calendar; packing, what has to come along; bundle, a "
    "folder for each shot.",
)
@click.option("--units", type=click.Choice(["m", "ft"]), default="m", help="Lengths on sheet and drawing.")
@click.option("--paper", type=click.Choice(["a4", "letter"]), default="a4", help="Size of the sheet.")
@click.option("--frame", type=FILE, metavar="FILE", help="For a bundle: a picture or a clip of the take.")
@click.option("--clean-plate", type=FILE, metavar="FILE", help="For a bundle: the empty screen, filmed.")
@click.option("-o", "--output", required=True, type=FILE, metavar="FILE")
def export(
    source: Path, to: str, units: str, paper: str, frame: Path | None, clean_plate: Path | None, output: Path
) -> int:
    """Write a plan or a production in an open format."""
    if to != "bundle" and (frame or clean_plate):
        raise BadInput("--frame and --clean-plate belong to --to bundle")
    if to == "bundle":
        data = _bundle(source, units, paper, frame, clean_plate)
    else:
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


def _bundle(source: Path, units: str, paper: str, frame: Path | None, clean: Path | None) -> bytes:
    from ausblick.app.bundle import HandedOver, bundle_zip
    from ausblick.core.production.production_document import plans_of

    how: dict[str, Any] = {"units": "ft" if units == "ft" else "m", "paper": "letter" if paper == "letter" else "a4"}
    if not _is_production(source):
        plan = load_plan(source)
        return bundle_zip([HandedOver(plan, _seen(frame, clean, plan))], **how)
    if frame or clean:
        raise BadInput("--frame belongs to one plan; the takes of a production are in the application")
    production = load_production(source)
    pairs = zip(production.shots, plans_of(production), strict=True)
    return bundle_zip([HandedOver(plan, title=shot.title or shot.id) for shot, plan in pairs], **how)


def _seen(frame: Path | None, clean: Path | None, plan: Plan) -> Seen | None:
    from dataclasses import replace

    from ausblick.app.bundle import Seen
    from ausblick.app.frame_import import looks_like_clip
    from ausblick.core.camera.turned import side_turns, turns_to_upright, upright
    from ausblick.core.frames.frame_report import clip_report, frame_report
    from ausblick.core.frames.reading import read_frame
    from ausblick.formats.clips import clip_pictures, open_clip
    from ausblick.formats.images import ImageError, read_image

    if frame is None:
        return None
    try:
        filmed = None if clean is None else read_image(clean)
        if looks_like_clip(frame):
            turns = side_turns(plan.camera)
            clip = open_clip(frame, plan.targets.level_trace, turns=turns, camera=plan.camera)
            still, timed = clip_report(clip.facts, clip.reading)
            return Seen(clip.middle, list(clip_pictures(frame, turns)), still, filmed, timed)
        picture = read_image(frame)
        turns = turns_to_upright(plan.camera, picture.width, picture.height)
        picture = replace(picture, pixels=upright(picture.pixels, turns))
        reading = read_frame(picture, plan.targets.level_trace, (), plan.screen.hue)
        return Seen(picture, None, frame_report(reading, colour=picture.colour), filmed)
    except ImageError as err:
        raise BadInput(f"{frame}: {err}") from None
    except OSError as err:
        raise BadInput(f"{frame}: {(err.strerror or 'cannot be opened').lower()}") from None
