"""The set sheet as PDF of one or two pages, A4 or Letter: the drawing and what the camera needs first, then stands,
cautions and lists. What does not fit gets smaller letters, never a third page of somebody's set."""

from __future__ import annotations

import io
from collections.abc import Sequence
from typing import Literal
from xml.sax.saxutils import escape

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.styles import ParagraphStyle
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import (
    BaseDocTemplate,
    Flowable,
    Frame,
    PageBreak,
    PageTemplate,
    Paragraph,
    Spacer,
    Table,
    TableStyle,
)
from reportlab.platypus.doctemplate import LayoutError

from ausblick.core.paper.set_sheet import SetSheet
from ausblick.core.paper.set_sheet import Table as SheetTable

from .inks import BOLD, HAIR, INK, PLAIN, QUIET, WASH, load_fonts
from .to_scale import drawn_to_scale

Paper = Literal["a4", "letter"]
SIZES = {"a4": A4, "letter": LETTER}
EDGE, FOOT = 34.0, 22.0
LETTERS = (8.0, 7.2, 6.4, 5.6, 4.8, 4.0)
"""Sizes in points that are tried, until two pages hold it."""
STAND_SHARES = (0.03, 0.16, 0.075, 0.1, 0.1, 0.075, 0.19, 0.06, 0.075, 0.09, 0.045)
NAME_SHARE, DRAWN = 0.4, 0.68
"""Of a table's width for what a row is called; of the first page's height for the drawing at the most."""


def sheet_pdf(sheet: SetSheet, paper: Paper = "a4") -> bytes:
    """Dark on white; text can be searched and copied."""
    load_fonts()
    made = b""
    for letters in LETTERS:
        try:
            pages, made = _made(sheet, paper, letters)
        except LayoutError:
            continue
        if pages <= 2:
            break
    return made


def _made(sheet: SetSheet, paper: Paper, letters: float) -> tuple[int, bytes]:
    out = io.BytesIO()
    page = SIZES[paper]
    width, height = page[0] - 2 * EDGE, page[1] - 2 * EDGE - FOOT
    words = _Words(letters)
    document = BaseDocTemplate(
        out, pagesize=page, title=sheet.title, author="", subject="Set sheet", creator="Ausblick", invariant=1
    )
    frame = Frame(EDGE, EDGE + FOOT, width, height, leftPadding=0, rightPadding=0, topPadding=0, bottomPadding=0)
    drawing = drawn_to_scale(sheet.views, width, height * DRAWN)
    foot = f"Drawn 1:{drawing.scale} on {paper.upper() if paper == 'a4' else 'Letter'}; print at 100 %"
    document.addPageTemplates(PageTemplate("set", [frame], onPage=lambda c, d: _foot(c, d.page, page, foot, sheet)))
    story: list[Flowable] = [
        Paragraph(escape(sheet.title), words.title),
        Paragraph(escape(sheet.verdict), words.body),
        drawing.drawing,
        Spacer(1, 4),
        _facts(sheet.facts, width, words),
        PageBreak(),
        *_second(sheet, width, words),
    ]
    document.build(story)
    return document.page, out.getvalue()


def _second(sheet: SetSheet, width: float, words: _Words) -> list[Flowable]:
    parts: list[Flowable] = [_heading(sheet.stands.name, words), _stands(sheet.stands, width, words), Spacer(1, 6)]
    if sheet.told:
        parts += [
            _heading("Open in the plan", words),
            *(_item("–", text, words) for text in sheet.told),
            Spacer(1, 4),
        ]
    cautions = [_item("!", text, words) for text in sheet.cautions]
    parts += [_heading("Cautions", words), *cautions, Paragraph(escape(sheet.note), words.quiet), Spacer(1, 6)]
    lists = Table([[_ticks("Before the take", sheet.before, words), _ticks("After the take", sheet.after, words)]],
                  colWidths=[width * 0.6, width * 0.4], style=TableStyle(_NO_PADDING))  # fmt: skip
    return [*parts, lists]


_NO_PADDING = [
    ("LEFTPADDING", (0, 0), (-1, -1), 0),
    ("RIGHTPADDING", (0, 0), (-1, -1), 6),
    ("TOPPADDING", (0, 0), (-1, -1), 0),
    ("BOTTOMPADDING", (0, 0), (-1, -1), 0),
    ("VALIGN", (0, 0), (-1, -1), "TOP"),
]


class _Words:
    """Styles at one size of letters."""

    def __init__(self, letters: float) -> None:
        self.letters = letters
        lead = letters * 1.25
        self.body = ParagraphStyle("body", fontName=PLAIN, fontSize=letters, leading=lead, textColor=INK)
        self.cell = ParagraphStyle("cell", self.body, fontSize=letters - 0.6, leading=lead - 0.8)
        self.head = ParagraphStyle("head", self.cell, textColor=QUIET)
        self.quiet = ParagraphStyle("quiet", self.body, textColor=QUIET)
        self.title = ParagraphStyle(
            "title", self.body, fontName=BOLD, fontSize=letters + 6, leading=(letters + 6) * 1.2, spaceAfter=2
        )
        self.heading = ParagraphStyle("heading", self.body, fontName=BOLD, spaceBefore=4, spaceAfter=2)
        self.item = ParagraphStyle(
            "item", self.body, leftIndent=letters * 1.4, bulletIndent=0, bulletFontName=PLAIN, bulletFontSize=letters
        )


def _heading(text: str, words: _Words) -> Paragraph:
    return Paragraph(escape(text), words.heading)


def _item(bullet: str, text: str, words: _Words) -> Paragraph:
    return Paragraph(escape(text), words.item, bulletText=bullet)


def _ticks(name: str, items: Sequence[str], words: _Words) -> list[Flowable]:
    return [_heading(name, words), *(_item("□", text, words) for text in items)]


def _stands(table: SheetTable, width: float, words: _Words) -> Table:
    rows = [[Paragraph(escape(head), words.head) for head in table.heads]]
    rows += [[Paragraph(escape(cell), words.cell) for cell in row] for row in table.rows]
    style = [
        ("VALIGN", (0, 0), (-1, -1), "TOP"),
        ("LINEBELOW", (0, 0), (-1, -1), 0.4, HAIR),
        ("ROWBACKGROUNDS", (0, 1), (-1, -1), [None, WASH]),
        ("LEFTPADDING", (0, 0), (-1, -1), 2),
        ("RIGHTPADDING", (0, 0), (-1, -1), 2),
        ("TOPPADDING", (0, 0), (-1, -1), 1.5),
        ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5),
    ]
    return Table(rows, colWidths=[share * width for share in STAND_SHARES], style=TableStyle(style), repeatRows=1)


def _facts(tables: Sequence[SheetTable], width: float, words: _Words) -> Table:
    """Side by side, in as many columns as there are tables, three at the most."""
    columns: list[list[Flowable]] = [[], [], []]
    wide = width / 3
    for n, table in enumerate(tables):
        rows = [[Paragraph(escape(cell), style) for cell, style in zip(row, (words.head, words.cell), strict=True)]
                for row in table.rows]  # fmt: skip
        body = Table(rows, colWidths=[(wide - 8) * NAME_SHARE, (wide - 8) * (1 - NAME_SHARE)],
                     style=TableStyle([*_NO_PADDING, ("BOTTOMPADDING", (0, 0), (-1, -1), 1)]))  # fmt: skip
        columns[min(n, 2)] += [_heading(table.name, words), body]
    return Table([columns], colWidths=[wide] * 3, style=TableStyle(_NO_PADDING))


def _foot(canvas: Canvas, number: int, page: tuple[float, float], text: str, sheet: SetSheet) -> None:
    canvas.saveState()
    canvas.setFont(PLAIN, 6.5)
    canvas.setFillColor(QUIET)
    canvas.drawString(EDGE, EDGE + 4, text if number == 1 else sheet.title[:90])
    canvas.drawRightString(page[0] - EDGE, EDGE + 4, f"page {number}")
    canvas.restoreState()
