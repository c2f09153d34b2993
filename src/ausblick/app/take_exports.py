"""The log of a production taken along: every take with what has changed since its reference, what is missing."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Literal, get_args

from ausblick.core.production.production_document import Production
from ausblick.core.takes.shot_progress import shot_progress
from ausblick.core.takes.take_document import Take, dump_take
from ausblick.core.takes.take_rules import TakeFinding
from ausblick.formats.day_tables import takes_csv

from .services import Services
from .take_log import take_findings, with_pictures

LogFormat = Literal["log", "log-csv"]
LOG_FORMATS: tuple[LogFormat, ...] = get_args(LogFormat)
LOG_MEDIA: dict[LogFormat, tuple[str, str]] = {
    "log": (" takes.json", "application/json"),
    "log-csv": (" takes.csv", "text/csv"),
}
"""Ending of the file and what it is."""


def export_log(services: Services, production: Production, takes: Sequence[Take], to: LogFormat) -> bytes:
    """Raises what the store raises; pictures that were not compared yet are compared."""
    logged = with_pictures(services, list(takes))
    found = {take.key: take_findings(services, production, logged, take.key) for take in logged}
    if to == "log-csv":
        return takes_csv(logged, {key: [one.says for one in said] for key, said in found.items()}).encode()
    progress = [shot_progress(shot, logged) for shot in production.shots]
    told = {
        "production": production.title,
        "takes": [{**dump_take(take), "findings": [_told(one) for one in found[take.key]]} for take in logged],
        "shots": [{"shot": one.shot, "takes": one.takes, "done": one.done, "share": one.share} for one in progress],
    }
    return (json.dumps(told, allow_nan=False, indent=1) + "\n").encode()


def _told(finding: TakeFinding) -> dict[str, str | float]:
    return {
        "id": finding.id,
        "severity": finding.severity,
        "says": finding.says,
        "value": finding.value,
        "limit": finding.limit,
        "unit": finding.unit,
    }
