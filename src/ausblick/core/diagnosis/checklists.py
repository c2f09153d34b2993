"""Before the take and after the take: what the tool can check itself is ticked by measurement, the rest by hand."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ..advice.rule import Finding
from ..evaluation.results import Evaluation
from ..frames.drift import Drifted
from ..frames.reading import FrameReading
from ..plan import people_of
from ..sentences import say
from .comparison import Compared

When = Literal["before", "after"]
NO_SCREEN, NOT_SEEN = "no screen in the frame", "not to be seen in this frame"


@dataclass(frozen=True)
class Item:
    """`done` None: only a person can tell. `says`: by what it was ticked, or what it waits for."""

    id: str
    when: When
    text: str
    done: bool | None
    says: str


BY_ROW = (
    ("level", "Screen at its level", "Screen, luma"),
    ("even", "Screen as even as planned", "Unevenness"),
    ("hue", "Screen at its hue: white balance and lamps as planned", "Hue"),
    ("noise", "No more noise than planned", "Noise"),
    ("spill", "No more screen colour on skin than planned", "Spill on skin"),
    ("sharp", "The subject's edge as sharp as planned", "Edge of the subject"),
)
"""What a row of the comparison ticks: id, text, name of the row."""


def items_of(
    evaluation: Evaluation,
    findings: list[Finding],
    reading: FrameReading | None,
    rows: list[Compared],
    drifted: list[Drifted] | None = None,
) -> list[Item]:
    """`reading` of the newest frame, `rows` beside the plan, `drifted` since the frame before; None without one."""
    return [*_measured(evaluation, findings, reading, rows), _steady(drifted), *_by_hand(evaluation)]


def _measured(
    evaluation: Evaluation, findings: list[Finding], reading: FrameReading | None, rows: list[Compared]
) -> Iterator[Item]:
    stops = [f for f in findings if f.judgement.severity == "stop"]
    yield Item("plan-stops", "before", "Nothing in the plan stops the shoot", not stops,
               say(stops[0].judgement.says) if stops else "no finding of that weight")  # fmt: skip
    yield _tick(
        "screen-found",
        "Screen found in a test frame",
        reading,
        lambda r: (
            r.hue is not None,
            f"{r.hue} on {r.screen_area_percent:.0f} % of the frame" if r.hue else "no screen in it",
        ),
    )
    named = {row.name: row for row in rows}
    for ident, text, name in BY_ROW:
        yield _row_tick(ident, text, named.get(name), reading)
    yield _tick(
        "clipped",
        "Nothing of the screen clips",
        reading,
        lambda r: ((r.clipped_percent or 0.0) < 0.5, f"{r.clipped_percent or 0.0:.1f} %"),
    )
    yield _tick(
        "inside",
        "Subject inside the screen",
        reading,
        lambda r: (not (left := _sides_left(r)), "leaves it: " + ", ".join(left) if left else "it is"),
    )
    off = not evaluation.plan.camera.sharpening and not evaluation.plan.camera.noise_reduction
    yield Item("no-sharpening", "before", "Sharpening and noise reduction off in the plan", off,
               "off" if off else "switch them off")  # fmt: skip


def _sides_left(reading: FrameReading) -> list[str]:
    """Where the subject leaves the screen; below it a body usually goes on, and the frame ends it."""
    return [] if reading.contact is None else [side for side in reading.contact.screen_sides if side != "bottom"]


def _tick(ident: str, text: str, reading: FrameReading | None, judge: object) -> Item:
    if reading is None:
        return Item(ident, "before", text, False, "measure a test frame")
    if reading.hue is None and ident != "screen-found":
        return Item(ident, "before", text, False, NO_SCREEN)
    done, says = judge(reading)  # type: ignore[operator]
    return Item(ident, "before", text, bool(done), str(says))


def _row_tick(ident: str, text: str, row: Compared | None, reading: FrameReading | None) -> Item:
    if row is None or row.difference is None:
        waits = "measure a test frame" if reading is None else NO_SCREEN if reading.hue is None else NOT_SEEN
        return Item(ident, "before", text, False, waits)
    return Item(ident, "before", text, not row.means, f"{row.difference:+.1f} {row.unit} against the plan")


def _steady(drifted: list[Drifted] | None) -> Item:
    text = "The take measured; nothing on the screen has drifted since the frame before"
    if not drifted:
        return Item("drifted", "after", text, False, "measure a frame before the take and one of it")
    worst = next((row for row in drifted if row.means), None)
    says = (
        "as before" if worst is None else f"{worst.name.lower()} {worst.difference:+.1f} {worst.unit}: {worst.means}"
    )
    return Item("drifted", "after", text, worst is None, says)


def _by_hand(evaluation: Evaluation) -> Iterator[Item]:
    plan = evaluation.plan
    yield _hand("white-balance", "before", f"White balance set to {plan.camera.white_balance_k:.0f} K and locked")
    yield _hand("focus", "before", "Focus on the eyes, checked at the nearest and the farthest reach")
    yield _hand("flat", "before", "Screen flat: creases steamed, clamps tight, tape marks off or kept apart")
    yield _hand("ballast", "before", "Ballast on every stand, cables taped, floor dry, way out clear")
    yield _hand("lamps-warm", "before", "Lamps have burnt long enough to hold their level")
    if any(person.wardrobe for person in people_of(plan)):
        yield _hand("clothes", "before", "Clothes, badges and jewels looked at before the screen")
    yield _hand("empty", "before", "A few seconds of the empty screen recorded: the clean plate")
    yield _hand("card", "before", "Grey card and colour chart at the mark recorded")
    if any(prop.kind == "smoke" for person in people_of(plan) for prop in person.props):
        yield _hand("fog", "before", "Fog: detectors known to the house, air for everybody, electrics kept dry")
    yield _hand("played", "after", "The take played back once, at full size, at its fastest movement")
    yield _hand("noted", "after", "Lens, focus distance, height, tilt and curve noted with the take")
    yield _hand("copied", "after", "Card copied twice before it is wiped")
    yield _hand("cool", "after", "Lamps and glass cooled before anybody moves them")


def _hand(ident: str, when: When, text: str) -> Item:
    return Item(ident, when, text, None, "")
