"""The trial key of a stored frame: pulled once for its figures and for every view of it."""

from __future__ import annotations

from typing import Literal

import numpy as np

from ausblick.core.camera.turned import turns_taken, upright
from ausblick.core.diagnosis.trial_key import TrialKey, trial_key
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import read_frame
from ausblick.core.geometry.vectors import Bytes, Floats32
from ausblick.core.matte.ground import plate_ground
from ausblick.core.matte.pixel_window import PixelWindow
from ausblick.core.matte.quality import BRIGHT, DARK
from ausblick.core.plan import Plan
from ausblick.formats.images import read_image
from ausblick.formats.testkey_pictures import grey, shown

from .frame_import import LOOK, picture_of, region_of, scaled
from .services import Services

View = Literal["matte", "dark", "bright", "plate", "spilled"]
GROUNDS = {"dark": DARK, "bright": BRIGHT, "spilled": DARK}


def trial_of(services: Services, frame_id: int, clean_id: int | None) -> TrialKey | None:
    """The key, against a clean plate where one is named; None where no screen was found.

    Raises ValueError where the clean plate does not fit.
    """
    stored = services.frames.get(frame_id)
    plan = services.setups.get(stored.setup_id).plan
    empty = None if clean_id is None else services.frames.get(clean_id)
    region, trace = region_of(stored), plan.targets.level_trace

    def make() -> TrialKey | None:
        look = scaled(picture_of(services.frames, stored), LOOK)
        clean = None if empty is None else scaled(picture_of(services.frames, empty), LOOK)
        return trial_key(look, read_frame(look, trace, region), clean)

    return services.trials.get((stored.id, tuple(region), trace, clean_id), make)


def trial_picture(services: Services, frame_id: int, trial: TrialKey, view: View) -> Bytes:
    """The matte, or the key over dark, bright or the kept plate; `spilled`: over dark without despill."""
    if view == "matte":
        return grey(trial.pulled.matte)
    ground = _plate(services, frame_id, trial) if view == "plate" else np.full(3, GROUNDS[view], dtype=np.float32)
    return shown(trial.over(ground, view != "spilled"))


def _plate(services: Services, frame_id: int, trial: TrialKey) -> Floats32:
    setup_id = services.frames.get(frame_id).setup_id
    file = services.plates.file(setup_id)
    height, width = trial.pulled.matte.shape
    return _behind(services.setups.get(setup_id).plan, read_image(file) if file.is_file() else None, width, height)


def _behind(plan: Plan, plate: Frame | None, width: int, height: int) -> Floats32:
    """The plate (H, W, 3), or its colour (3,), behind a frame of this size."""
    turns = turns_taken(plan.camera, width, height)
    across, down = (height, width) if turns else (width, height)
    ground = plate_ground(plan, plate, PixelWindow(0.0, 0.0, across, down, plan.camera.sensor.px_w / across))
    return upright(ground, turns) if ground.ndim == 3 else ground
