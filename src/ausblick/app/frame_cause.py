"""From a frame to its cause: which lamp, the camera's own noise, and what was recorded otherwise."""

from __future__ import annotations

import numpy as np

from ausblick.core.diagnosis.cause import cause_of_light
from ausblick.core.diagnosis.comparison import recording_differs
from ausblick.core.diagnosis.observed_light import observed_light
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.grain import noise_percent
from ausblick.core.frames.reading import FrameReading, read_frame
from ausblick.core.plan import Change, Plan, edit
from ausblick.store.frames import StoredFrame

from .frame_import import clip_of, picture_of, read_from, region_of
from .frame_told import FrameCause
from .services import Services


def read_stored(services: Services, stored: StoredFrame) -> tuple[Plan, Frame, FrameReading]:
    """The plan as it is now, the stored frame's pixels, and what they read."""
    plan = services.setups.get(stored.setup_id).plan
    return plan, *read_for(services, stored, plan)


def read_for(services: Services, stored: StoredFrame, plan: Plan) -> tuple[Frame, FrameReading]:
    """The stored frame's pixels, and what they read beside a plan."""
    frame = picture_of(services.frames, stored)
    return frame, read_frame(frame, plan.targets.level_trace, region_of(stored), plan.screen.hue)


def cause_of(services: Services, frame_id: int) -> FrameCause:
    """Which lamp makes the frame differ from the plan, and what to do about it."""
    stored = services.frames.get(frame_id)
    plan = services.setups.get(stored.setup_id).plan
    key = plan.model_dump_json(), read_from(services.frames, stored)
    return services.memory.causes.get(key, lambda: _cause_of(services, stored, plan))


def _cause_of(services: Services, stored: StoredFrame, plan: Plan) -> FrameCause:
    frame, reading = read_for(services, stored, plan)
    observed = observed_light(plan, frame, reading)
    cause = None if observed is None else cause_of_light(plan, observed, services.basis)
    clip = clip_of(stored)
    recorded = [] if clip is None else recording_differs(plan, clip)
    return FrameCause(cause, _own_noise(plan, frame, reading), tuple(recorded))


def _own_noise(plan: Plan, frame: Frame, reading: FrameReading) -> tuple[Change, ...]:
    """The key channel's noise and level, as the camera's own."""
    if reading.found is None or reading.level_key_channel is None:
        return ()
    noise = noise_percent(frame, reading.found.core, "key-channel", reading.found.channel)
    if not noise:
        return ()
    value = {
        "percent": round(noise, 3),
        "level": round(float(np.clip(reading.level_key_channel.mean, 1.0, 100.0)), 1),
        "channel": reading.found.hue,
        "iso": plan.camera.iso,
    }
    return (edit.camera.noise(value),)
