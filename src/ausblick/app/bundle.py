"""The hand-over: a set-up, its picture or clip, its clean plate and its takes in one archive of open formats."""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Finding
from ausblick.core.camera.ground_shade import contact_shade
from ausblick.core.evaluation.results import Evaluation
from ausblick.core.frames.contact import contact_of
from ausblick.core.frames.find_screen import find_screen
from ausblick.core.frames.frame import Frame, luma_of
from ausblick.core.frames.frame_report import ClipReport, FrameReport
from ausblick.core.frames.marks import Mark, find_marks
from ausblick.core.geometry.vectors import Bools, Bytes, Floats32
from ausblick.core.handover.action_outline import Action, ActionOutline, action_of, outline_of
from ausblick.core.handover.hold_outs import HoldOut, MarkBox, hold_outs_of
from ausblick.core.handover.key_facts import (
    KeyFacts,
    camera_facts,
    grain_of,
    horizon_v,
    level_match,
    metres_per_px,
    named,
    planned_facts,
    plate_blur,
    problems_of,
)
from ausblick.core.handover.sample_area import Samples, samples_of
from ausblick.core.handover.set_in_picture import place_on_screen, standing_inside
from ausblick.core.handover.synthetic_plate import SyntheticPlate, synthetic_plate
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Plan
from ausblick.core.plate.plate_picture import read_plate
from ausblick.core.sentences import Units
from ausblick.core.takes.take_document import Take, dump_take
from ausblick.formats.bundle_files import begin_here, curve_cube, facts_json, mask_png, outline_svg, polygons_png
from ausblick.formats.day_tables import takes_csv
from ausblick.formats.images import png_bytes
from ausblick.formats.paper.sheet_pdf import Paper

from .plan_exports import PlanFormat, export_plan, file_name

LONGEST = 960
"""Of the picture that outline, samples and the synthetic plate are worked out on."""
STAMP = (1980, 1, 1, 0, 0, 0)
"""Of every file in the archive: the same things make the same archive."""
PLAN_FILES: tuple[tuple[PlanFormat, str], ...] = (
    ("sheet", "sheet.pdf"), ("plan", "plan.json"), ("svg", "drawing.svg"), ("gltf", "scene.gltf"),
    ("csv", "lights.csv"),
)  # fmt: skip


@dataclass(frozen=True)
class Seen:
    """A picture of the take: the frame that was read, all frames small where it is a clip, what was measured, the
    clean plate that was filmed, and of a clip what only time shows."""

    frame: Frame
    clip: Iterable[Floats32] | None
    report: FrameReport | None
    clean: Frame | None
    timed: ClipReport | None = None


@dataclass(frozen=True)
class PictureFacts:
    """What is worked out on the picture; without one, or without a screen in it, nothing."""

    outline: ActionOutline | None = None
    inside: tuple[str, ...] = ()
    samples: Samples | None = None
    hold_outs: tuple[HoldOut, ...] = ()
    marks: tuple[MarkBox, ...] = ()
    ends: tuple[float, float] | None = None
    synthetic: SyntheticPlate | None = None


@dataclass(frozen=True)
class HandedOver:
    """What one folder of the archive is made of. `plate`: the picture that goes behind."""

    plan: Plan
    seen: Seen | None = None
    plate: Frame | None = None
    takes: tuple[Take, ...] = ()
    title: str = ""


def bundle_zip(
    parts: list[HandedOver], units: Units = "m", paper: Paper = "a4", basis: BasisStore | None = None
) -> bytes:
    """One part is the archive itself; of several each has a folder."""
    out = io.BytesIO()
    store = basis or BasisStore()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for number, part in enumerate(parts, 1):
            name = part.title or part.plan.title
            folder = "" if len(parts) == 1 else f"{number:02d}-{file_name(name)}/"
            for path, data in _files(part, units, paper, store).items():
                archive.writestr(zipfile.ZipInfo(folder + path, STAMP), data, zipfile.ZIP_DEFLATED)
    return out.getvalue()


def _files(part: HandedOver, units: Units, paper: Paper, store: BasisStore) -> dict[str, bytes]:
    judged = find(part.plan, store, with_remedies=False)
    files = {name: export_plan(part.plan, to, units, paper, judged).data for to, name in PLAN_FILES}
    files["to-linear.cube"] = curve_cube(part.plan.camera)
    if part.takes:
        files["takes.json"] = (json.dumps([dump_take(take) for take in part.takes], indent=1) + "\n").encode()
        files["takes.csv"] = takes_csv(part.takes).encode()
    facts = _facts(part, judged, _pictures(part, files), units)
    files["keying.json"] = facts_json(facts)
    files["begin-here.txt"] = begin_here(facts, sorted(files))
    return files


def _pictures(part: HandedOver, files: dict[str, bytes]) -> PictureFacts:
    """Masks and the clean plate go into `files` on the way."""
    seen = part.seen
    if seen is None:
        return PictureFacts()
    picture = seen.frame.reduced(LONGEST)
    found = find_screen(picture, wanted=part.plan.screen.hue)
    if found is None:
        return PictureFacts()
    figure = contact_of(found).figure
    width, height = seen.frame.width, seen.frame.height
    action = action_of([picture] if seen.clip is None else seen.clip, part.plan.screen.hue)
    action = action or Action(figure, found.mask, 1)
    outline = outline_of(action)
    files["outline.svg"] = outline_svg(outline, width, height)
    files["outline.png"] = mask_png(outline.mask, width, height)
    samples = samples_of(picture, figure, found.core, found.channel)
    kept = hold_outs_of(picture, figure, found.channel, _difference(samples, found.channel))
    if kept:
        files["hold-outs.png"] = polygons_png([one.polygon for one in kept], width, height)
    made = None
    if seen.clean is not None:
        files["clean-plate.png"] = png_bytes(_eight(seen.clean.reduced(max(width, height))))
    else:
        made = synthetic_plate(picture, figure, found.core)
        files["clean-plate-synthetic.png"] = png_bytes(_eight(made.signal))
    inside = standing_inside(part.plan, outline.mask, action.figure)
    percent = np.asarray(100.0 * luma_of(picture), dtype=np.float32)
    marks = tuple(_placed(part.plan, mark) for mark in find_marks(percent, found, figure).marks)
    return PictureFacts(outline, inside, samples, kept, marks, _ends(picture, figure), made)


def _placed(plan: Plan, mark: Mark) -> MarkBox:
    place = place_on_screen(plan, mark.x + mark.w / 2.0, mark.y + mark.h / 2.0)
    return MarkBox(mark.x, mark.y, mark.w, mark.h, place)


def _difference(samples: Samples, channel: int) -> float:
    """Colour difference of the sample beside the face, else of the middle of all."""
    boxes = [samples.beside_face] if samples.beside_face else samples.regions
    values = [box.linear[channel] - (sum(box.linear) - box.linear[channel]) / 2.0 for box in boxes]
    return float(np.median(values)) if values else 0.0


def _facts(part: HandedOver, judged: tuple[Evaluation, list[Finding]], seen: PictureFacts, units: Units) -> KeyFacts:
    evaluation, findings = judged
    plan, levels = part.plan, None
    if part.plate is not None and seen.ends is not None:
        levels = level_match(seen.ends, read_plate(part.plate))
    planned = planned_facts(evaluation)
    measured, clip = (None, None) if part.seen is None else (part.seen.report, part.seen.timed)
    return KeyFacts(
        title=part.title or plan.title,
        curve=plan.camera.curve,
        planned=planned,
        measured=measured,
        clip=clip,
        camera=camera_facts(plan),
        grain=grain_of(planned, measured),
        outline=seen.outline,
        inside_outline=seen.inside,
        samples=seen.samples,
        hold_outs=seen.hold_outs,
        planned_hold_outs=named(plan, "held-out"),
        keyed_away=named(plan, "away"),
        marks=seen.marks,
        clean_plate=_told_plate(part.seen, seen.synthetic),
        synthetic_error_percent=seen.synthetic.error_percent if seen.synthetic else None,
        levels=levels,
        shade=contact_shade(plan),
        plate_blur_px=plate_blur(plan),
        horizon_v=horizon_v(plan),
        metres_per_px=metres_per_px(plan),
        problems=problems_of(findings, clip, seen.inside, units),
    )


def _told_plate(seen: Seen | None, synthetic: SyntheticPlate | None) -> str:
    if seen is None:
        return "none, because there is no picture of this set-up"
    if synthetic is not None:
        error = f"{synthetic.error_percent:.1f} %"
        return f"clean-plate-synthetic.png, made from the picture and not filmed; outside the figure {error} off"
    return "clean-plate.png, filmed" if seen.clean is not None else "none, because no screen was found in the picture"


def _ends(picture: Floats32, figure: Bools) -> tuple[float, float] | None:
    """Black and white of the figure, % of signal."""
    if not figure.any():
        return None
    low, high = np.percentile(100.0 * luma_of(picture)[figure], [1.0, 99.0])
    return float(low), float(high)


def _eight(signal: Floats32) -> Bytes:
    return np.asarray(np.round(255.0 * np.clip(signal, 0.0, 1.0)).astype(np.uint8))
