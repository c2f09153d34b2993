"""`ausblick production`: the running order of a day."""

from __future__ import annotations

import json
from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING

import click

from .commands import FILE, BadInput, app, as_json_option

if TYPE_CHECKING:
    from ausblick.core.production.production_document import Production


def load_production(path: Path) -> Production:
    """The production in a file, with the file's name in front of whatever is wrong with it."""
    from ausblick.core.plan import PlanError
    from ausblick.core.plan.document import MAX_BYTES
    from ausblick.core.production.production_document import read_production

    try:
        with path.open("rb") as file:
            return read_production(file.read(MAX_BYTES + 1))
    except OSError as err:
        raise BadInput(f"{path}: {(err.strerror or 'cannot be opened').lower()}") from None
    except PlanError as err:
        raise BadInput(f"{path}: {err}") from None


@app.command()
@click.argument("production_file", metavar="PRODUCTION.json", type=FILE)
@click.option(
    "--order", is_flag=True, help="The order with the least change between shots, and the day that follows."
)
@as_json_option
def production(production_file: Path, order: bool, as_json: bool) -> int:
    """Read a production document and put its shots in order."""
    from ausblick.core.production.day_plan import plan_day
    from ausblick.core.production.production_document import days_of, dump_production

    read = load_production(production_file)
    if not order:
        print(json.dumps(dump_production(read), allow_nan=False, indent=1))
        return 0
    day = plan_day(read)
    if as_json:
        print(json.dumps(asdict(day), allow_nan=False, indent=1))
    else:
        titles = {shot.id: shot.title or shot.id for shot in read.shots}
        dates, shown = days_of(read), -1
        for entry in day.entries:
            if len(dates) > 1 and entry.day != shown:
                shown = entry.day
                print(f"Day {shown + 1}  {dates[shown].date or ''}".rstrip())
            what = titles[entry.shot] if entry.kind == "shot" and entry.shot else entry.kind
            print(f"{entry.at}  {entry.minutes:5.0f} min  {what:32.32}  {entry.why}")
        print(f"{day.end}  end. {day.change_minutes:g} min of change, {day.saved_minutes:g} less than as typed in")
        for finding in day.findings:
            where = f" ({titles[finding.shot]})" if finding.shot else ""
            print(f"{finding.severity:9} {finding.says}{where}")
    return 1 if any(finding.severity == "stop" for finding in day.findings) else 0
