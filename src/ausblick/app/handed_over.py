"""What is stored, gathered for a hand-over: of a set-up its newest picture, of a production each shot's best take."""

from __future__ import annotations

from collections.abc import Sequence

from ausblick.core.frames.frame import Frame
from ausblick.core.plan import Plan
from ausblick.core.production.production_document import PlannedShot, Production, plans_of
from ausblick.core.takes.take_document import Take
from ausblick.formats.clips import clip_pictures
from ausblick.formats.images import ImageError, read_image
from ausblick.store.frames import StoredFrame
from ausblick.store.setups import NotFound

from .bundle import HandedOver, Seen
from .frame_import import clip_of, picture_of, report_of, said_of
from .production_state import filled
from .services import Services

RANK = {"good": 0, "keep": 1, "incomplete": 2, "no": 3}


def setup_part(services: Services, setup_id: int) -> HandedOver:
    plan = services.setups.get(setup_id).plan
    frames = services.frames.of_setup(setup_id)
    seen = _seen(services, frames[0], None) if frames else None
    return HandedOver(plan, seen, _plate(services, setup_id))


def production_parts(services: Services, production: Production, takes: Sequence[Take]) -> list[HandedOver]:
    """A folder for each shot, in the order of the document."""
    whole = filled(services, production)
    pairs = zip(whole.shots, plans_of(whole), strict=True)
    return [_shot_part(services, shot, plan, takes, whole) for shot, plan in pairs]


def _shot_part(
    services: Services, shot: PlannedShot, plan: Plan, takes: Sequence[Take], production: Production
) -> HandedOver:
    own = [one for one in takes if one.shot == shot.id]
    best = sorted((one for one in own if one.kind == "take"), key=lambda one: (RANK[one.status], one.at))
    frame = next((found for one in best if (found := _frame(services, one.frame)) is not None), None)
    alike = {one.id for one in production.shots if one.setup is not None and one.setup == shot.setup} | {shot.id}
    plates = [one for one in takes if one.shot in alike and one.kind == "clean-plate"]
    clean = next((found for one in reversed(plates) if (found := _frame(services, one.frame)) is not None), None)
    return HandedOver(
        plan,
        None if frame is None else _seen(services, frame, clean),
        None if shot.setup is None else _plate(services, shot.setup),
        tuple(own),
        shot.title or shot.id,
    )


def _seen(services: Services, frame: StoredFrame, clean: StoredFrame | None) -> Seen:
    """Of a clip all frames; of a still itself."""
    turns = int(frame.data.get("turned", 0))
    clip = clip_pictures(services.frames.file(frame.id), turns, said_of(frame)) if frame.data.get("clip") else None
    filmed = None if clean is None else picture_of(services.frames, clean)
    return Seen(picture_of(services.frames, frame), clip, report_of(frame), filmed, clip_of(frame))


def _frame(services: Services, number: int | None) -> StoredFrame | None:
    try:
        return None if number is None else services.frames.get(number)
    except NotFound:
        return None


def _plate(services: Services, setup_id: int) -> Frame | None:
    """The picture that goes behind, where somebody gave one."""
    path = services.plates.file(setup_id)
    try:
        return read_image(path) if path.is_file() else None
    except ImageError:
        return None
