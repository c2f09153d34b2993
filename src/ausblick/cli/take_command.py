"""`ausblick take`: log a take of a production in the data folder, or list what is logged."""

from __future__ import annotations

import json
from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING, get_args
from uuid import uuid4

import click

from .commands import BadInput, app, as_json_option
from .serving_commands import data_option

if TYPE_CHECKING:
    from ausblick.app.services import Services
    from ausblick.store.productions import StoredProduction

production_option = click.option(
    "--production", "number", type=click.IntRange(1), help="Its number; may be left out where there is only one."
)


@app.group()
def take() -> None:
    """Log takes, and list them."""


@take.command("list")
@data_option
@production_option
@click.option("--csv", "as_csv", is_flag=True, help="Answer with CSV (RFC 4180).")
@click.option("--measured", is_flag=True, help="With what has changed since each reference take; compares pictures.")
@as_json_option
def list_takes(data: Path | None, number: int | None, as_csv: bool, measured: bool, as_json: bool) -> int:
    """Every logged take, and what is missing of each shot."""
    from ausblick.app.take_exports import export_log
    from ausblick.app.take_log import take_findings
    from ausblick.core.takes.shot_progress import shot_progress
    from ausblick.core.takes.take_document import dump_take
    from ausblick.formats.day_tables import takes_csv

    services, stored = _production(data, number)
    takes = services.takes.of_production(stored.id)
    progress = [shot_progress(shot, takes) for shot in stored.production.shots]
    if measured and (as_json or as_csv):
        print(export_log(services, stored.production, takes, "log" if as_json else "log-csv").decode(), end="")
        return 0
    if as_json:
        shots = [{"shot": one.shot, "takes": one.takes, "done": one.done, "share": one.share} for one in progress]
        print(json.dumps({"takes": [dump_take(one) for one in takes], "shots": shots}, allow_nan=False, indent=1))
        return 0
    titles = {shot.id: shot.title or shot.id for shot in stored.production.shots}
    if as_csv:
        print(takes_csv(takes), end="")
        return 0
    for one in takes:
        words = " ".join((*one.reasons, one.remark))
        title = titles.get(one.shot, one.shot)
        print(f"{one.at[11:16]}  {title:32.32} {one.kind:11} {one.number:>4} {one.status:11} {words}".rstrip())
        for found in take_findings(services, stored.production, takes, one.key) if measured else ():
            print(f"       {found.severity}: {found.says}")
    for shot in progress:
        print(f"{'done' if shot.done else 'open':5} {titles[shot.shot]:32.32} {shot.takes} takes")
    return 0


@take.command("add")
@data_option
@production_option
@click.option("--shot", required=True, help="Its id in the production.")
@click.option("--status", type=click.Choice(["good", "keep", "no", "incomplete"]), default="good", show_default=True)
@click.option("--kind", type=click.Choice(["take", "clean-plate", "chart"]), default="take", show_default=True)
@click.option("--reason", "reasons", multiple=True, help="Why it was not good; may be given several times.")
@click.option("--variant", default="", help="Which of the shot's variants it is.")
@click.option("--clip", default="", help="The clip's name.")
@click.option("--remark", default="")
@click.option("--camera", default="", help="As it stood: iso=800,shutter=1/50,f=5.6,wb=5600,fps=25, any of them.")
@click.option("--key", default=None, help="Of its own; the same key again changes that take and makes no second one.")
@as_json_option
def add_take(
    data: Path | None, number: int | None, shot: str, status: str, kind: str, reasons: tuple[str, ...], variant: str,
    clip: str, remark: str, camera: str, key: str | None, as_json: bool,
) -> int:  # fmt: skip
    """Log a take; its slate counts itself."""
    from ausblick.app.take_log import log_take
    from ausblick.core.takes.take_document import Reason, dump_take, next_number, take_from

    services, stored = _production(data, number)
    planned = next((one for one in stored.production.shots if one.id == shot), None)
    if planned is None:
        known = ", ".join(one.id for one in stored.production.shots) or "none"
        raise BadInput(f"--shot: {shot!r} is none of this production's ({known})")
    wrong = next((one for one in reasons if one not in get_args(Reason)), None)
    if wrong is not None:
        raise BadInput(f"--reason: {wrong!r} is none of {', '.join(get_args(Reason))}")
    before = services.takes.known(key) if key else None
    slate = next_number(services.takes.of_production(stored.id), shot) if kind == "take" else 1
    made = take_from(
        {
            "key": key or uuid4().hex,
            "shot": shot,
            "number": before.number if before else slate,
            "at": before.at if before else datetime.now(UTC).strftime("%Y-%m-%dT%H:%M:%SZ"),
            "kind": kind,
            "status": status,
            "reasons": list(reasons),
            "variant": variant,
            "clip": clip,
            "remark": remark,
            "outfit": planned.outfit,
            "setup": planned.setup,
            "camera": _camera(camera),
        }
    )
    log_take(services, stored.id, made)
    kept = services.takes.known(made.key) or made
    print(
        json.dumps(dump_take(kept), indent=1)
        if as_json
        else f"{planned.title or shot}, {kind} {kept.number}: {status}"
    )
    return 0


SETTINGS = {"iso": "iso", "shutter": "shutter_s", "f": "f_number", "wb": "white_balance_k", "fps": "fps"}


def _camera(text: str) -> dict[str, float] | None:
    """What stands behind --camera, by the names of the document. A shutter may be written 1/50."""
    record = {}
    for part in filter(None, (one.strip() for one in text.split(","))):
        name, _, value = part.partition("=")
        try:
            over, _, under = value.partition("/")
            record[SETTINGS[name.strip()]] = float(over) / float(under or 1.0)
        except (KeyError, ValueError, ZeroDivisionError):
            raise BadInput(f"--camera: {part!r} is none of {', '.join(f'{one}=…' for one in SETTINGS)}") from None
    return record or None


def _production(data: Path | None, number: int | None) -> tuple[Services, StoredProduction]:
    from ausblick.app.services import open_services
    from ausblick.store.data_folder import data_dir
    from ausblick.store.setups import NotFound
    from ausblick.store.trouble import StoreTrouble

    place = data or data_dir()
    try:
        services = open_services(place)
        if number is not None:
            return services, services.productions.get(number)
        found = services.productions.all()
    except (NotFound, StoreTrouble) as err:
        raise BadInput(str(err)) from None
    except OSError as err:
        raise BadInput(f"{place}: {(err.strerror or 'cannot be used').lower()}") from None
    if len(found) != 1:
        which = ", ".join(f"{one.id} {one.production.title}" for one in found) or "none"
        raise BadInput(f"--production: say which one ({which})")
    return services, found[0]
