"""A day taken along: to print, as a table, as a list of what has to come."""

from __future__ import annotations

from typing import Literal, get_args

from ausblick.core.production.day_plan import plan_day
from ausblick.core.production.packing import packing_list
from ausblick.core.production.production_document import Production, plans_of
from ausblick.formats.day_tables import day_csv, packing_csv
from ausblick.formats.paper.day_pdf import day_pdf
from ausblick.formats.paper.sheet_pdf import Paper

DayFormat = Literal["day", "csv", "packing"]
DAY_FORMATS: tuple[DayFormat, ...] = get_args(DayFormat)


def export_day(production: Production, to: DayFormat, paper: Paper = "a4") -> bytes:
    packing = packing_list(plans_of(production))
    if to == "packing":
        return packing_csv(packing).encode()
    day = plan_day(production)
    return day_csv(production, day).encode() if to == "csv" else day_pdf(production, day, packing, paper)
