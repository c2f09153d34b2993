"""A take is logged, and what was measured of it is set beside the shot's reference take and its clean plate."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np

from ausblick.core.colour.rec709 import LUMA
from ausblick.core.plan import Plan
from ausblick.core.production.day_rules import RANK
from ausblick.core.production.production_document import PlannedShot, Production
from ausblick.core.takes.camera_record import CameraRecord, differing, other_than_planned
from ausblick.core.takes.clean_plate import CleanPlateState, clean_plate_state, state_of
from ausblick.core.takes.clip_names import clip_named
from ausblick.core.takes.movement import FrameSeen, background_percent, level_points, movement
from ausblick.core.takes.shot_progress import ShotProgress, outfit_changed, shot_progress
from ausblick.core.takes.take_document import Take, next_number
from ausblick.core.takes.take_rules import TakeFinding, TakeSeen, judge_smoke, judge_take
from ausblick.formats.images import read_image
from ausblick.store.frames import StoredFrame
from ausblick.store.setups import DamagedState, NotFound

from .frame_import import clip_of, report_of
from .services import Services, TakeCompared

SIZE = 960
"""Longest side of the pictures that movement is read from."""


@dataclass(frozen=True)
class ShotLog:
    """A shot as it stands: what is in the can, the slate's next number, its clean plate (None: no set-up here), and
    what is to be looked at before the next take."""

    progress: ShotProgress
    next_number: int
    clean_plate: CleanPlateState | None
    before_next: tuple[TakeFinding, ...] = ()


def log_take(services: Services, production_id: int, take: Take) -> None:
    """Once, whatever is sent twice. What its set-up is now is kept with it, the first time."""
    known = services.takes.known(take.key)
    if known is not None:
        take = take.model_copy(update={"state": known.state, "revision": known.revision})
    elif take.setup is not None:
        setup = services.setups.get(take.setup)
        take = take.model_copy(update={"state": state_of(setup.plan), "revision": setup.revision})
    frame = _frame(services, take) if take.kind == "clean-plate" else None
    if frame is not None and report_of(frame).edge_width_px is not None:
        # Somebody stands in that picture: it is none of an empty screen.
        take = take.model_copy(update={"frame": None})
    services.takes.log(production_id, take)


def shot_logs(
    services: Services, production: Production, takes: list[Take], at_wrap: bool = False, measure: bool = True
) -> list[ShotLog]:
    """`measure`: compare pictures that were not compared yet; without it only what is known of them is told."""
    takes = with_pictures(services, takes)
    return [
        ShotLog(
            shot_progress(shot, takes),
            next_number(takes, shot.id),
            _plate_of_shot(services, production, shot, takes, at_wrap, measure),
            tuple(found for found in (outfit_changed(shot, takes),) if found is not None),
        )
        for shot in production.shots
    ]


def with_pictures(services: Services, takes: list[Take]) -> list[Take]:
    """Takes without a picture, each with the file of its set-up that has its clip's name; of clips their seconds."""
    names: dict[int, dict[int, str]] = {}
    found = []
    for take in takes:
        if take.frame is None and take.clip and take.setup is not None:
            if take.setup not in names:
                names[take.setup] = _names(services, take.setup)
            take = take.model_copy(update={"frame": clip_named(take.clip, names[take.setup])})
        frame = _frame(services, take) if take.seconds is None else None
        clip = None if frame is None else clip_of(frame)
        found.append(take if clip is None else take.model_copy(update={"seconds": clip.frames / clip.fps}))
    return found


def _names(services: Services, setup: int) -> dict[int, str]:
    try:
        return {frame.id: frame.name for frame in services.frames.of_setup(setup)}
    except NotFound:
        return {}


def take_findings(services: Services, production: Production, takes: list[Take], key: str) -> list[TakeFinding]:
    """Of the take of a key: against the first good take of its shot that was measured, how the camera stood, and in
    a shot with smoke against the take before."""
    takes = with_pictures(services, takes)
    take = next((one for one in takes if one.key == key), None)
    if take is None:
        raise NotFound(f"there is no take {key}")
    own = sorted((one for one in takes if one.shot == take.shot and one.kind == "take"), key=lambda one: one.at)
    found = _since_reference(services, take, own) + _settings(services, take)
    shot = next((one for one in production.shots if one.id == take.shot), None)
    if shot is not None and "smoke" in shot.needs:
        found += _smoke(services, take, own)
    return sorted(found, key=lambda finding: RANK[finding.severity])


def _settings(services: Services, take: Take) -> list[TakeFinding]:
    """What somebody read off the camera, and what a clip says of itself."""
    plan = _plan(services, take.setup)
    record = _record(services, take)
    return [] if plan is None or record is None else other_than_planned(record, plan.camera)


def _record(services: Services, take: Take) -> CameraRecord | None:
    frame = _frame(services, take)
    clip = None if frame is None else clip_of(frame)
    if clip is None or (take.camera is not None and take.camera.fps is not None):
        return take.camera
    return (take.camera or CameraRecord()).model_copy(update={"fps": clip.fps})


def _smoke(services: Services, take: Take, own: list[Take]) -> list[TakeFinding]:
    measured = [one for one in own if one.key == take.key or _frame(services, one) is not None]
    at = measured.index(take)
    now, before = _frame(services, take), None if at == 0 else _frame(services, measured[at - 1])
    return [] if now is None or before is None else judge_smoke(report_of(before), report_of(now))


def _since_reference(services: Services, take: Take, own: list[Take]) -> list[TakeFinding]:
    frame = _frame(services, take)
    if frame is None:
        return []
    good = [one for one in own if one.status == "good" and one.frame]
    before = next((_frame(services, one) for one in good), None)
    if before is None or before.id == frame.id:
        return judge_take(_seen(services, frame), None, None)
    return list(_compared(services, before, frame).findings)


def _plate_of_shot(
    services: Services, production: Production, shot: PlannedShot, takes: list[Take], at_wrap: bool, measure: bool
) -> CleanPlateState | None:
    plan = _plan(services, shot.setup)
    if plan is None:
        return None
    alike = {one.id for one in production.shots if one.setup == shot.setup}
    own = sorted((one for one in takes if one.shot in alike), key=lambda one: one.at)
    plate = next((one for one in reversed(own) if one.kind == "clean-plate"), None)
    if plate is None:
        return clean_plate_state(None, state_of(plan), [], None, at_wrap)
    drifted, differs = _against_plate(services, plate, own, measure)
    last = next((one for one in reversed(own) if one.kind == "take" and one.camera is not None), None)
    others = (
        () if last is None or plate.camera is None else tuple(differing(plate.camera, last.camera or plate.camera))
    )
    return clean_plate_state(plate.state or state_of(plan), state_of(plan), drifted, differs, at_wrap, others)


def _against_plate(
    services: Services, plate: Take, own: list[Take], measure: bool
) -> tuple[list[TakeFinding], float | None]:
    """The last measured take beside the clean plate."""
    last = next((one for one in reversed(own) if one.kind == "take" and one.frame), None)
    before, now = _frame(services, plate), None if last is None else _frame(services, last)
    if before is None or now is None or before.id == now.id:
        return [], None
    found = _compared(services, before, now) if measure else services.compared.known(_pair(before, now))
    return ([], None) if found is None else (list(found.findings), found.background_percent)


def _pair(before: StoredFrame, now: StoredFrame) -> tuple[object, ...]:
    """What a comparison depends on: the frames, and where a person said that their screens are."""
    return before.id, str(before.data.get("region")), now.id, str(now.data.get("region"))


def _compared(services: Services, before: StoredFrame, now: StoredFrame) -> TakeCompared:
    return services.compared.get(_pair(before, now), lambda: _between(services, before, now))


def _between(services: Services, before: StoredFrame, now: StoredFrame) -> TakeCompared:
    then, here = _look(services, before), _look(services, now)
    seen = _seen(services, now), _seen(services, before)
    if then is None or here is None:
        return TakeCompared(tuple(judge_take(*seen, None)), None)
    found = judge_take(*seen, movement(then, here), level_points(then, here))
    return TakeCompared(tuple(found), background_percent(then, here))


def _frame(services: Services, take: Take) -> StoredFrame | None:
    try:
        return None if take.frame is None else services.frames.get(take.frame)
    except NotFound:
        return None


def _plan(services: Services, setup: int | None) -> Plan | None:
    try:
        return None if setup is None else services.setups.get(setup).plan
    except (NotFound, DamagedState):
        return None


def _seen(services: Services, frame: StoredFrame) -> TakeSeen:
    report, plan = report_of(frame), _plan(services, frame.setup_id)
    camera = None if plan is None else plan.camera
    share = 1.0 if camera is None else camera.focal_mm / camera.sensor.width_mm
    return TakeSeen(report, clip_of(frame), share * report.width)


def _look(services: Services, frame: StoredFrame) -> FrameSeen | None:
    """The stored picture with its matte; None where no screen was found in it."""
    try:
        look = read_image(services.frames.file(frame.id, "look.jpg"))
        matte = read_image(services.frames.file(frame.id, "matte.png"))
    except NotFound:
        return None
    size = SIZE / max(look.width, look.height)
    shape = (round(look.width * size), round(look.height * size))
    rgb = cv2.resize(look.signal(look.pixels), shape, interpolation=cv2.INTER_AREA)
    alpha = cv2.resize(matte.signal(matte.pixels), shape, interpolation=cv2.INTER_AREA)
    screen = (alpha if alpha.ndim == 2 else alpha[..., 0]) < 0.3
    return FrameSeen((rgb @ LUMA).astype(np.float32), screen, report_of(frame).width / shape[0])
