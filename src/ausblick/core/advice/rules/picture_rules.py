"""Diffraction, white balance and off-speed: choices of the camera that are seen in every frame."""

from __future__ import annotations

import math

from ...camera.view import pixel_pitch_mm
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import edit
from ...sentences import tell
from ...standards.limits import LIMITS
from ..rule import Judgement, Proposal, Rule
from ..steps import third_stop

GREEN_NM = 550.0
AIRY, BALANCE = LIMITS["camera.diffraction"], LIMITS["camera.white-balance"]


def airy_px(evaluation: Evaluation) -> float:
    """Diameter in px of the disc that diffraction makes of a point: 2.44 * wavelength * f-number."""
    camera = evaluation.plan.camera
    return 2.44 * GREEN_NM * 1e-6 * camera.f_number / pixel_pitch_mm(camera)


def _diffraction(evaluation: Evaluation) -> Judgement | None:
    disc = airy_px(evaluation)
    over = disc / AIRY.at - 1.0
    says = tell("camera.diffraction", f_number=evaluation.plan.camera.f_number, disc=disc)
    return Judgement(AIRY.grade(over), disc, AIRY.at, "px", says, max(0.0, over))


def _open_up(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    camera = evaluation.plan.camera
    f_number = third_stop(camera.f_number * AIRY.at / airy_px(evaluation), up=False)
    change = edit.camera.f_number(f_number)
    text = tell("do/aperture", to=f_number, was=camera.f_number)
    return [Proposal(text, (change,), tell("cost/less-depth-more-light"))]


def face_kelvin(evaluation: Evaluation) -> float | None:
    """Colour temperature of the lamps' light on the face, weighted by lux in mired; None in the dark."""
    plain = [lamp for lamp in evaluation.plan.lights if lamp.gel == (1.0, 1.0, 1.0) and lamp.role != "screen"]
    lamps = {lamp.id: lamp for lamp in plain}
    lux = {ident: value for ident, value in evaluation.face_by_lamp.items() if ident in lamps and value > 0.0}
    total = sum(lux.values())
    if total <= 0.0:
        return None
    return total / sum(value / lamps[ident].fixture.cct for ident, value in lux.items())


def _balance(evaluation: Evaluation) -> Judgement | None:
    kelvin = face_kelvin(evaluation)
    if kelvin is None:
        return None
    camera = evaluation.plan.camera
    off = abs(1e6 / kelvin - 1e6 / camera.white_balance_k)
    over = off / BALANCE.at - 1.0
    ident = "camera.white-balance/off" if over > 0.0 else "camera.white-balance/holds"
    says = tell(ident, lamps=round(kelvin, -1), camera=camera.white_balance_k)
    return Judgement(BALANCE.grade(over), off, BALANCE.at, "mired", says, max(0.0, over))


def _balanced(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    kelvin = face_kelvin(evaluation)
    if kelvin is None:
        return []
    wanted = 50.0 * round(kelvin / 50.0)
    change = edit.camera.white_balance_k(wanted)
    return [Proposal(tell("do/white-balance", to=wanted), (change,), tell("cost/no-key-colour"))]


def _speed(evaluation: Evaluation) -> Judgement | None:
    camera = evaluation.plan.camera
    if camera.playback_fps <= 0.0 or evaluation.plan.medium == "stills":
        return None
    factor = camera.playback_fps / camera.fps
    off = abs(math.log2(factor))
    if off < 0.01:
        return Judgement("fine", 100.0, 100.0, "%", tell("camera.speed/real"), 0.0)
    spent = math.log2(camera.fps / camera.playback_fps)
    ident = "camera.speed/slow" if spent > 0 else "camera.speed/fast"
    says = tell(ident, share=100.0 * factor, stops=abs(spent))
    return Judgement("consider", 100.0 * factor, 100.0, "%", says, off)


def _real_time(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    fps = evaluation.plan.camera.playback_fps
    return [Proposal(tell("do/frame-rate", to=fps), (edit.camera.fps(fps),), tell("cost/no-speed"))]


RULES = (
    Rule(
        id="camera.diffraction",
        stage="camera",
        measure="diffraction",
        why="A small aperture softens every edge alike, and the key's edge with them.",
        judge=_diffraction,
        propose=_open_up,
        digits=1,
    ),
    Rule(
        id="camera.white-balance",
        stage="camera",
        measure="off balance",
        why="White balance is set by hand and locked: an automatic one follows the screen and drifts with the take.",
        judge=_balance,
        propose=_balanced,
        digits=0,
    ),
    Rule(
        id="camera.speed",
        stage="camera",
        measure="speed",
        why="Slow motion in front of a plate at full speed gives itself away; every doubling of the rate costs "
        "a stop.",
        judge=_speed,
        propose=_real_time,
        digits=0,
    ),
)
