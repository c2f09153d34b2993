"""What is written to the card: chroma, bit rate, curve, what the camera does to the picture, and what comes after."""

from __future__ import annotations

from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import Camera, Recording, edit
from ...sentences import tell
from ...standards.limits import INTRA_BITS, LIMITS
from ..rule import Judgement, Proposal, Rule, no_proposal

CHROMA = {"4:2:0": 0.25, "4:2:2": 0.5, "4:4:4": 1.0, "raw": 1.0}
COLOUR, RATE, PLAYBACK, REDUCTION = (
    LIMITS[f"recording.{name}"] for name in ("chroma", "rate", "playback", "noise-reduction")
)


def bits_a_pixel(camera: Camera) -> float:
    return 1e6 * camera.recording.mbit_s / (camera.sensor.px_w * camera.sensor.px_h * camera.fps)


def _lossy(recording: Recording) -> bool:
    return recording.chroma != "raw" and "uncompressed" not in recording.codec.lower()


def _chroma(evaluation: Evaluation) -> Judgement | None:
    recording = evaluation.plan.camera.recording
    if evaluation.plan.medium == "stills":
        raw = recording.chroma == "raw"
        says = tell("recording.chroma/stills-raw")
        if not raw:
            says = tell("recording.chroma/stills", chroma=recording.chroma, bits=recording.bits)
        return Judgement(
            "fine" if raw else "consider", CHROMA[recording.chroma], 1.0, "of luma", says, float(not raw)
        )
    share = CHROMA[recording.chroma]
    short = max(0.0, COLOUR.at - share) + 0.1 * (recording.bits < 10)
    says = tell("recording.chroma/every", chroma=recording.chroma, bits=recording.bits)
    if share < 1.0:
        says = tell("recording.chroma/share", chroma=recording.chroma, bits=recording.bits, share=100.0 * share)
    return Judgement(COLOUR.grade(short), share, COLOUR.at, "of luma", says, short)


def _more_chroma(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    camera = evaluation.plan.camera
    pixels = camera.sensor.px_w * camera.sensor.px_h * camera.fps / 1e6
    if evaluation.plan.medium == "stills":
        raw = {"codec": "raw", "chroma": "raw", "bits": 16, "mbit_s": camera.recording.mbit_s}
        return [Proposal(tell("do/record-raw-16"), (edit.camera.recording(raw),), tell("cost/larger-files"))]
    intra_rate, raw_rate = round(2.4 * pixels, -1), round(3.0 * pixels, -1)
    intra = {"codec": "intra", "chroma": "4:2:2", "bits": 10, "mbit_s": intra_rate}
    raw = {"codec": "raw", "chroma": "raw", "bits": 12, "mbit_s": raw_rate}
    return [
        Proposal(
            tell("do/record-intra", rate=intra_rate),
            (edit.camera.recording(intra),),
            tell("cost/storage-recorder"),
        ),
        Proposal(
            tell("do/record-raw", rate=raw_rate),
            (edit.camera.recording(raw),),
            tell("cost/storage-machine"),
        ),
    ]


def _rate(evaluation: Evaluation) -> Judgement | None:
    camera = evaluation.plan.camera
    if evaluation.plan.medium == "stills" or not _lossy(camera.recording):
        return None
    have, limit = bits_a_pixel(camera), _limit(camera.recording)
    says = tell("recording.rate", rate=camera.recording.mbit_s, bits=have)
    return Judgement(RATE.grade(1.0 - have / limit), have, limit, "bits", says, max(0.0, 1.0 - have / limit))


def _limit(recording: Recording) -> float:
    return INTRA_BITS if "intra" in recording.codec.lower() else RATE.at


def _higher(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    camera = evaluation.plan.camera
    wanted = camera.recording.mbit_s * _limit(camera.recording) / bits_a_pixel(camera)
    rate = 10.0 * round(wanted / 10.0 + 0.49)
    return [Proposal(tell("do/bit-rate", rate=rate), (edit.camera.mbit_s(rate),), tell("cost/storage"))]


def _log(evaluation: Evaluation) -> Judgement | None:
    curve = evaluation.plan.camera.curve
    if curve in ("rec709", "linear") or evaluation.plan.medium == "stills":
        return None
    return Judgement("consider", 1.0, 0.0, "", tell(f"recording.log/{curve}"), 1.0)


def _display(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    return [Proposal(tell("do/rec709"), (edit.camera.curve("rec709"),), tell("cost/highlights"))]


def _reduction(evaluation: Evaluation) -> Judgement | None:
    on = evaluation.plan.camera.noise_reduction
    says = tell(f"recording.noise-reduction/{'on' if on else 'off'}")
    return Judgement(REDUCTION.grade(float(on)), float(on), 0.0, "", says, float(on))


def _no_reduction(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    return [Proposal(tell("do/noise-reduction-off"), (edit.camera.noise_reduction(False),))]


def _playback(evaluation: Evaluation) -> Judgement | None:
    camera = evaluation.plan.camera
    if evaluation.plan.medium == "stills":
        return None
    long_group = _lossy(camera.recording) and "intra" not in camera.recording.codec.lower()
    # Ten bit in long groups must be decoded in order; half the machines on a set stumble over it.
    load = camera.recording.mbit_s * (3.0 if long_group and camera.recording.bits > 8 else 1.0)
    over = load / PLAYBACK.at - 1.0
    says = tell("recording.playback/heavy" if over > 0 else "recording.playback/plays", load=load)
    return Judgement("consider" if over > 0 else "fine", load, PLAYBACK.at, "Mbit/s", says, max(0.0, over))


RULES = (
    Rule(
        id="recording.chroma",
        stage="camera",
        measure="colour samples",
        why="A key is pulled from colour; where colour is recorded at a quarter of the pixels the edge is guessed.",
        judge=_chroma,
        propose=_more_chroma,
    ),
    Rule(
        id="recording.rate",
        stage="camera",
        measure="bits a pixel",
        why="Blocks of a starved codec eat hair first and dance along the edge.",
        judge=_rate,
        propose=_higher,
    ),
    Rule(
        id="recording.log",
        stage="camera",
        measure="recorded curve",
        why="What is recorded in another curve than Rec.709 is not keyed as it stands: it goes to display or linear "
        "light first, and whoever keys it must know which curve that was.",
        judge=_log,
        propose=_display,
        digits=0,
    ),
    Rule(
        id="recording.noise-reduction",
        stage="camera",
        measure="noise reduction",
        why="It smears hair and drags edges behind movement; a keyer denoises its own matte better.",
        judge=_reduction,
        propose=_no_reduction,
        digits=0,
    ),
    Rule(
        id="recording.playback",
        stage="camera",
        measure="playback load",
        why="Footage that stutters on the edit machine is judged on stutter; proxies are cut, the originals keyed.",
        judge=_playback,
        propose=no_proposal,
        digits=0,
    ),
)
