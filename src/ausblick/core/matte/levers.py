"""Levers: one practical change each, its key pulled again, ranked by gain, with what it costs.

Sharpening is none of them: it draws lines round every edge, whatever a matte alone may say.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

from ..advice import moves
from ..advice.rules.light_rules import wanted_lux
from ..advice.rules.wardrobe_rules import garment_of_its_colour
from ..advice.steps import SHUTTERS, third_stop
from ..camera.built_in_lens import lens_is_built_in
from ..evaluation.evaluate import evaluate
from ..evaluation.results import Evaluation
from ..light.balance import balanced_dimmers
from ..light.basis import BasisStore
from ..plan import Change, Plan, PlanError, Recording, apply_changes, as_said, edit
from ..sentences import Sentence, say, tell
from .both_formulas import score
from .capture import capture_of
from .key_windows import crop_windows
from .shoot import Codec
from .window_shot import NoScreen

BACK_LIGHT_LM = 3000.0
"""A small panel's worth of light: ours, the least that reads as a rim."""


@dataclass(frozen=True)
class Lever:
    """What to change, the quality after it, what it costs, and the changes of the plan."""

    change: Sentence
    quality_after: float
    gain: float
    cost: Sentence | None
    changes: tuple[Change, ...]


@dataclass(frozen=True)
class _Idea:
    """`lift`: stops that the grade adds before keying."""

    change: Sentence
    cost: Sentence | None
    changes: tuple[Change, ...]
    lift: float = 0.0


def levers_of(
    plan: Plan,
    quality: float,
    store: BasisStore,
    codec: Codec,
    step: Callable[[str], None] = lambda _: None,
    recorders: Sequence[tuple[str, Recording]] = (),
    seed: int = 7,
) -> list[Lever]:
    """Best first; `quality`: of the plan's own key by the same `seed`, whose pictures need not be held any more;
    `recorders`: names and recordings of the kit to compare. Raises what `step` raises, which cancels a run."""
    evaluation = evaluate(plan, store)
    found = []
    for idea in (*_ideas(evaluation, store), *_recorders(plan, recorders)):
        step(say(idea.change))
        try:
            changed = evaluate(apply_changes(plan, idea.changes), store)
            capture = replace(capture_of(changed, store, seed), lift=2.0**idea.lift)
            after = score(capture, crop_windows(capture), codec)
        except (PlanError, NoScreen):
            continue
        found.append(Lever(idea.change, after, after - quality, idea.cost, idea.changes))
    return sorted(found, key=lambda lever: -lever.gain)


def _ideas(evaluation: Evaluation, store: BasisStore) -> Iterator[_Idea]:
    yield from _camera(evaluation.plan)
    yield from _recording(evaluation.plan)
    yield from _set(evaluation, store)
    yield from _worn_and_held(evaluation)


def _camera(plan: Plan) -> Iterator[_Idea]:
    camera = plan.camera
    widest = camera.f_number if lens_is_built_in(camera) else camera.widest
    faster = min((1.0 / s for s in SHUTTERS if 1.0 / s < 0.6 * camera.shutter_s), default=None, key=lambda s: -s)
    if faster is not None:
        wide = third_stop(camera.f_number * (faster / camera.shutter_s) ** 0.5, up=False)
        if wide >= widest:
            yield _Idea(
                tell("do/faster-aperture", to=faster, f_number=wide),
                tell("cost/less-depth-choppier"),
                (edit.camera.shutter_s(round(faster, 6)), edit.camera.f_number(wide)),
            )
        iso = round(camera.iso * camera.shutter_s / faster / 10.0) * 10.0
        yield _Idea(
            tell("do/faster-iso", to=faster, iso=iso),
            tell("cost/noise-choppier"),
            (edit.camera.shutter_s(round(faster, 6)), edit.camera.iso(iso)),
        )
    if camera.iso > camera.sensor.base_iso * 1.2:
        wide = third_stop(camera.f_number * (camera.sensor.base_iso / camera.iso) ** 0.5, up=False)
        if wide >= widest:
            yield _Idea(
                tell("do/base-iso", to=camera.sensor.base_iso, f_number=wide),
                tell("cost/less-depth"),
                (edit.camera.iso(camera.sensor.base_iso), edit.camera.f_number(wide)),
            )
    if camera.iso >= camera.sensor.base_iso:
        half = round(camera.iso / 2.0, 1)
        yield _Idea(
            tell("do/under-exposed", to=half),
            tell("cost/dark-picture"),
            (edit.camera.iso(half),),
            lift=1.0,
        )
    level = round(camera.roll / 90.0) % 2 == 0 and not lens_is_built_in(camera)
    if level and plan.subject is not None and plan.subject.framing in ("full", "knees"):
        focal = round(camera.focal_mm * camera.sensor.width_mm / camera.sensor.height_mm, 1)
        yield _Idea(
            tell("do/on-its-side", to=focal),
            tell("cost/no-pan"),
            (edit.camera.roll(90.0), edit.camera.focal_mm(focal)),
        )


def _recording(plan: Plan) -> Iterator[_Idea]:
    have = plan.camera.recording
    pixels = plan.camera.sensor.px_w * plan.camera.sensor.px_h * plan.camera.fps
    if have.chroma == "4:2:0":
        rate = round(2.4 * pixels / 1e6, -1)
        written = max(rate, have.mbit_s)
        recorder = {"codec": "intra", "chroma": "4:2:2", "bits": 10, "mbit_s": written}
        yield _Idea(
            tell("do/record-intra", rate=written),
            tell("cost/storage-times-recorder", times=rate / max(have.mbit_s, 1.0)),
            (edit.camera.recording(recorder),),
        )
        doubled = {**have.model_dump(mode="json"), "mbit_s": 2.0 * have.mbit_s}
        yield _Idea(tell("do/bit-rate-doubled"), tell("cost/storage-doubled"), (edit.camera.recording(doubled),))
    if have.chroma != "raw" and have.chroma != "4:4:4":
        rate = round(12.0 * pixels / 4.0 / 1e6, -1)
        yield _Idea(
            tell("do/record-raw-12", rate=rate),
            tell("cost/storage-times-machine", times=rate / max(have.mbit_s, 1.0)),
            (edit.camera.recording({"codec": "raw", "chroma": "raw", "bits": 12, "mbit_s": rate}),),
        )


def _recorders(plan: Plan, recorders: Sequence[tuple[str, Recording]]) -> Iterator[_Idea]:
    """What the kit's cameras record, each on this set."""
    have = plan.camera.recording
    for name, recording in recorders:
        if recording != have:
            facts: dict[str, float | str] = {
                "codec": recording.codec,
                "chroma": recording.chroma,
                "bits": recording.bits,
            }
            yield _Idea(
                tell("do/recorder", name=name, rate=recording.mbit_s, **facts),
                tell("cost/storage-times", times=recording.mbit_s / max(have.mbit_s, 0.1)),
                (edit.camera.recording(recording.model_dump(mode="json")),),
            )


def _set(evaluation: Evaluation, store: BasisStore) -> Iterator[_Idea]:
    plan = evaluation.plan
    solved = balanced_dimmers(plan, evaluation.judged_cells, wanted_lux(evaluation), store)
    index = {lamp.id: i for i, lamp in enumerate(plan.lights)}
    dimmers = tuple(edit.lamp(index[k]).dimmer(round(v, 3)) for k, v in solved.items())
    if dimmers:
        yield _Idea(tell("do/balance"), None, dimmers)
    for proposal in (
        *moves.mark_forward(evaluation, 0.5),
        *moves.smaller_screen(evaluation),
        *moves.dimmed_screen(evaluation),
    ):
        yield _Idea(proposal.text, proposal.cost, proposal.changes)
    if not any(lamp.role == "back" and lamp.on for lamp in plan.lights) and plan.subject is not None:
        s = plan.subject
        lamp = {
            "id": _free_id(plan), "name": "back light", "role": "back",
            "position": list(moves.stand_inside(plan, (s.x + 0.9, s.height + 0.9, max(0.4, s.z - 1.2)))),
            "aim": [s.x, round(0.9 * s.height, 2), s.z],
            "fixture": {"emitter": {"shape": "rect", "width": 0.3, "height": 0.3}, "flux_lm": BACK_LIGHT_LM,
                        "cct": plan.camera.white_balance_k},
        }  # fmt: skip
        present = [light.model_dump(mode="json") for light in plan.lights]
        yield _Idea(
            tell("do/back-light-new", lumens=BACK_LIGHT_LM), tell("cost/lamp-stand"), (edit.lights([*present, lamp]),)
        )


def _worn_and_held(evaluation: Evaluation) -> Iterator[_Idea]:
    """Of the person whom the key costs most: what has the screen's colour, and metal."""
    person = evaluation.worst_person
    own = evaluation.of(person)
    for proposal in (*garment_of_its_colour(own)[:1], *moves.dulled_metal(own)):
        changes = proposal.changes if person == 0 else as_said(proposal.changes, person - 1)
        yield _Idea(proposal.text, proposal.cost, changes)


def _free_id(plan: Plan) -> str:
    taken = {lamp.id for lamp in plan.lights}
    return next(f"l{n}" for n in range(1, 200) if f"l{n}" not in taken)
