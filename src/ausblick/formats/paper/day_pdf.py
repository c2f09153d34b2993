"""The day sheet to print: the entries with their times, what stands against the day, what has to come along."""

from __future__ import annotations

import io
from collections.abc import Sequence
from xml.sax.saxutils import escape

from reportlab.lib.styles import ParagraphStyle
from reportlab.platypus import BaseDocTemplate, Flowable, Frame, PageTemplate, Paragraph, Spacer, Table, TableStyle

from ausblick.core.production.day_plan import DayPlan
from ausblick.core.production.packing import PackingItem
from ausblick.core.production.production_document import Production

from .inks import BOLD, HAIR, INK, PLAIN, QUIET, WASH, load_fonts
from .sheet_pdf import EDGE, SIZES, Paper

BODY = ParagraphStyle("body", fontName=PLAIN, fontSize=8.5, leading=10.8, textColor=INK)
QUIETLY = ParagraphStyle("quiet", BODY, textColor=QUIET)
STRONG = ParagraphStyle("strong", BODY, fontName=BOLD)
HEADING = ParagraphStyle("heading", STRONG, spaceBefore=8, spaceAfter=3)
TITLE = ParagraphStyle("title", STRONG, fontSize=15, leading=18)
SHARES = (0.09, 0.09, 0.3, 0.52)


def day_pdf(production: Production, day: DayPlan, packing: Sequence[PackingItem], paper: Paper = "a4") -> bytes:
    """As many pages as the day needs; its head stands on each."""
    load_fonts()
    page, out = SIZES[paper], io.BytesIO()
    width = page[0] - 2 * EDGE
    document = BaseDocTemplate(out, pagesize=page, title=production.title, author="", creator="Ausblick", invariant=1)
    frame = Frame(EDGE, EDGE, width, page[1] - 2 * EDGE, leftPadding=0, rightPadding=0, topPadding=0, bottomPadding=0)
    document.addPageTemplates(PageTemplate("day", [frame]))
    saved = f", {day.saved_minutes:g} less than as typed in" if day.saved_minutes > 0 else ""
    head = f"Call {production.call}, wrap {day.end}. {day.change_minutes:g} min of change{saved}."
    story: list[Flowable] = [
        Paragraph(escape(production.title or "A day"), TITLE),
        Paragraph(escape(head), BODY),
        Spacer(1, 6),
        _entries(production, day, width),
    ]
    if day.findings:
        story.append(Paragraph("To settle before the day", HEADING))
        story += [Paragraph(escape(f"{one.severity}: {one.says}"), BODY) for one in day.findings]
    story.append(Paragraph("To bring", HEADING))
    story += [Paragraph(escape(_to_bring(one)), BODY) for one in packing]
    document.build(story)
    return out.getvalue()


def _to_bring(item: PackingItem) -> str:
    lacks = f", {item.missing} of them not in the kit" if item.missing else ""
    return f"□ {item.count} × {item.what} ({item.kind}){lacks}"


def _entries(production: Production, day: DayPlan, width: float) -> Table:
    shots = {shot.id: shot for shot in production.shots}
    people = {person.id: person.name or person.id for person in production.people}
    rows = [[Paragraph(head, QUIETLY) for head in ("At", "Minutes", "What", "Why, and who")]]
    for entry in day.entries:
        shot = shots.get(entry.shot or "") if entry.kind == "shot" else None
        what = entry.kind if shot is None else shot.title or shot.id
        who = people.get(shot.person or "", "") if shot is not None else ""
        told = "; ".join(part for part in (entry.why, who) if part)
        style = BODY if shot is None else STRONG
        rows.append([Paragraph(escape(text), how) for text, how in (
            (entry.at, style), (f"{entry.minutes:g}", BODY), (what, style), (told, BODY))])  # fmt: skip
    lines = [("VALIGN", (0, 0), (-1, -1), "TOP"), ("LINEBELOW", (0, 0), (-1, -1), 0.4, HAIR),
             ("ROWBACKGROUNDS", (0, 1), (-1, -1), [None, WASH]), ("LEFTPADDING", (0, 0), (-1, -1), 3)]  # fmt: skip
    return Table(rows, colWidths=[share * width for share in SHARES], style=TableStyle(lines), repeatRows=1)
