"""A day taken along: to print, as a table, as a list of what has to come."""

from __future__ import annotations

import json
from typing import Literal, get_args

from ausblick.core.kit import Kit
from ausblick.core.production.day_plan import plan_day
from ausblick.core.production.packing import packing_list
from ausblick.core.production.production_document import Production, dump_production, plans_of
from ausblick.formats.day_calendar import day_calendar
from ausblick.formats.day_tables import day_csv, packing_csv
from ausblick.formats.paper.day_pdf import day_pdf
from ausblick.formats.paper.sheet_pdf import Paper

DayFormat = Literal["day", "csv", "packing", "ics", "json"]
DAY_FORMATS: tuple[DayFormat, ...] = get_args(DayFormat)


MEDIA: dict[DayFormat, tuple[str, str]] = {
    "day": (".pdf", "application/pdf"),
    "csv": (".csv", "text/csv"),
    "packing": (" packing.csv", "text/csv"),
    "ics": (".ics", "text/calendar"),
    "json": (".json", "application/json"),
}
"""Ending of the file and what it is."""


def export_day(production: Production, to: DayFormat, paper: Paper = "a4", kit: Kit | None = None) -> bytes:
    """`kit`: what there is where the production names none, so that the packing list says what is missing."""
    if to == "json":
        return json.dumps(dump_production(production), allow_nan=False, indent=1).encode()
    packing = packing_list(plans_of(production), production.kit or kit)
    if to == "packing":
        return packing_csv(packing).encode()
    day = plan_day(production)
    if to == "ics":
        return day_calendar(production, day).encode()
    return day_csv(production, day).encode() if to == "csv" else day_pdf(production, day, packing, paper)
