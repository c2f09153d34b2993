"""The day as CSV (RFC 4180): its entries, and what has to come along."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Mapping, Sequence

from ausblick.core.production.day_plan import DayPlan
from ausblick.core.production.packing import PackingItem
from ausblick.core.production.production_document import Production
from ausblick.core.takes.take_document import Take


def day_csv(production: Production, day: DayPlan) -> str:
    titles = {shot.id: shot.title for shot in production.shots}
    rows = [(e.at, f"{e.minutes:g}", e.kind, e.shot or "", titles.get(e.shot or "", ""), e.why) for e in day.entries]
    return _csv(("at", "minutes", "kind", "shot", "title", "why"), rows)


def packing_csv(items: Iterable[PackingItem]) -> str:
    rows = [(one.kind, one.what, str(one.count), "" if one.missing is None else str(one.missing)) for one in items]
    return _csv(("kind", "what", "count", "missing"), rows)


def takes_csv(takes: Iterable[Take], said: Mapping[str, Sequence[str]] | None = None) -> str:
    """`said`: of takes by their keys, what was found in them."""
    rows = [
        (one.at, one.shot, one.kind, str(one.number), one.status, " ".join(one.reasons), one.variant, one.clip,
         "" if one.seconds is None else f"{one.seconds:g}", one.remark, "; ".join((said or {}).get(one.key, ())))
        for one in takes
    ]  # fmt: skip
    heads = ("at", "shot", "kind", "number", "status", "reasons", "variant", "clip", "seconds", "remark", "findings")
    return _csv(heads, rows)


def _csv(head: tuple[str, ...], rows: Iterable[tuple[str, ...]]) -> str:
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(head)
    writer.writerows([[as_text(cell) for cell in row] for row in rows])
    return out.getvalue()


def as_text(cell: str) -> str:
    """What a spreadsheet would run as a formula is text."""
    return f"'{cell}" if cell[:1] in ("=", "+", "-", "@", "\t") else cell
