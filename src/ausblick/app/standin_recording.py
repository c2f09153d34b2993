"""Stills and clips of the stand-in camera, recorded through the plan's codec and measured like any others."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Literal

from ausblick.core.matte.key_windows import overview_window
from ausblick.core.matte.render import draw
from ausblick.core.standin.as_built import FIRST_SEED
from ausblick.core.standin.standin_camera import exposures, standin_picture
from ausblick.formats.images import png_bytes
from ausblick.formats.recording import write_clip
from ausblick.store.frames import StoredFrame

from .frame_import import import_clip, import_frame
from .services import Services
from .standins import Standin

STILL = 1920
CLIP_WIDTH, CLIP_S = 1280, 1.6


def standin_of(services: Services, setup_id: int) -> Standin:
    """The set-up's stand-in; without one a set with hidden faults is built from the plan as it is now."""
    plan = services.setups.get(setup_id).plan
    found = services.standins.get(setup_id)
    return found or services.standins.build(setup_id, plan, FIRST_SEED, faults=True)


def record(services: Services, setup_id: int, what: Literal["still", "clip"]) -> StoredFrame:
    setup = services.setups.get(setup_id)
    standin = standin_of(services, setup_id)
    capture = standin.capture(services.basis)
    name = f"stand-in {what} {standin.shots}"
    with tempfile.TemporaryDirectory(dir=services.work) as folder:
        if what == "still":
            file = Path(folder) / "still.png"
            file.write_bytes(png_bytes(standin_picture(capture, STILL, standin.shots)))
            return import_frame(services.frames, setup_id, name, file, setup.plan)
        file = Path(folder) / "clip.mov"
        built = standin.built.plan
        expose = exposures(capture, draw(capture, overview_window(built, CLIP_WIDTH)).frame)
        count = max(8, round(CLIP_S * built.camera.fps))
        shots = (expose(standin.shots * 1000 + k) for k in range(count))
        write_clip(file, shots, built.camera.recording, built.camera.fps)
        return import_clip(services.frames, setup_id, name, file, setup.plan)
