"""A set-up taken along: the open formats it can be written in."""

from __future__ import annotations

import json
import re
from dataclasses import dataclass
from typing import Literal, get_args

from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Finding
from ausblick.core.evaluation.results import Evaluation
from ausblick.core.light.basis import BasisStore
from ausblick.core.paper.set_drawing import set_views
from ausblick.core.paper.set_sheet import set_sheet
from ausblick.core.plan import Plan, dump_plan
from ausblick.core.sentences import Units
from ausblick.formats.csv_lights import lights_csv
from ausblick.formats.paper.drawing_svg import drawing_svg
from ausblick.formats.paper.sheet_pdf import Paper, sheet_pdf
from ausblick.formats.scene_gltf import scene_gltf

PlanFormat = Literal["plan", "sheet", "svg", "gltf", "csv"]
PLAN_FORMATS: tuple[PlanFormat, ...] = get_args(PlanFormat)
ENDING: dict[PlanFormat, tuple[str, str]] = {
    "plan": (".json", "application/json"),
    "sheet": (".pdf", "application/pdf"),
    "svg": (".svg", "image/svg+xml"),
    "gltf": (".gltf", "model/gltf+json"),
    "csv": (".csv", "text/csv; charset=utf-8"),
}


@dataclass(frozen=True)
class Exported:
    """A file: what it is called, its media type, its bytes."""

    name: str
    media_type: str
    data: bytes


def export_plan(
    plan: Plan, to: PlanFormat, units: Units = "m", paper: Paper = "a4",
    judged: tuple[Evaluation, list[Finding]] | None = None,
) -> Exported:  # fmt: skip
    """`judged`: evaluation and findings where they are at hand; without, the craft's own rules judge."""
    ending, media_type = ENDING[to]
    return Exported(file_name(plan.title) + ending, media_type, _written(plan, to, units, paper, judged))


def file_name(title: str) -> str:
    """A title as a name that every file system takes."""
    return re.sub(r"[^\w\-]+", "-", title.strip()).strip("-_")[:80] or "set-up"


def _written(
    plan: Plan, to: PlanFormat, units: Units, paper: Paper, judged: tuple[Evaluation, list[Finding]] | None
) -> bytes:
    if to == "plan":
        return (json.dumps(dump_plan(plan), allow_nan=False, indent=1, ensure_ascii=False) + "\n").encode()
    if to == "csv":
        return lights_csv(plan).encode()
    if to == "gltf":
        return scene_gltf(plan).encode()
    evaluation, findings = judged or find(plan, BasisStore(), with_remedies=False)
    if to == "svg":
        return drawing_svg(set_views(evaluation, units), plan.title).encode()
    return sheet_pdf(set_sheet(evaluation, findings, units), paper)
