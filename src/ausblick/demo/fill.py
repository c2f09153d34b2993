"""Fill a data folder with the demo, once: set-ups, camera frames of two, and a production of them."""

from __future__ import annotations

import signal
import tempfile
from concurrent.futures import ProcessPoolExecutor
from multiprocessing import get_context
from pathlib import Path

import numpy as np

from ausblick.app.frame_import import import_frame
from ausblick.core.geometry.vectors import Bytes
from ausblick.core.kit.catalogue import full_kit
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.standin.as_built import FIRST_SEED, AsBuilt, Crease, built_from, faults_of
from ausblick.core.standin.standin_camera import standin_capture, standin_signal
from ausblick.formats.images import png_bytes
from ausblick.formats.recording import through
from ausblick.store.database import open_database
from ausblick.store.frames import Frames
from ausblick.store.kits import Kits
from ausblick.store.productions import Productions
from ausblick.store.setups import Setups
from ausblick.store.trouble import StoreTrouble

from .fern_house import scree, seed_vault
from .fern_house_2 import fern_dancer, gardeners, potting_shed, seed_jar, two_gardeners, welcome
from .visitor_film import visitor_film

WIDTH = 1920


def fill_demo(place: Path) -> None:
    """Add the demo's set-ups and frames to an empty data folder; a filled one is left as it is."""
    sessions = open_database(place)
    setups, frames = Setups(sessions), Frames(sessions, place)
    if setups.anything():
        return
    Kits(sessions).save(0, full_kit())
    for plan, built in _as_built():
        setup = setups.create(plan)
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "frame.png"
            path.write_bytes(png_bytes(record(built, seed=7)))
            name = f"{plan.title.split(',')[0].lower().replace(' ', '-')}-test.png"
            import_frame(frames, setup.id, name, path, plan)
    for plan in (fern_dancer(), potting_shed(), seed_jar(), gardeners(), welcome(), two_gardeners()):
        setups.create(plan)
    Productions(sessions).create(visitor_film())


def fill_demo_apart(place: Path) -> None:
    """The same in a process of its own, which takes along what it needed to draw frames: a server that drew them
    itself would begin with some 350 MB more."""
    if Setups(open_database(place)).anything():
        return
    with ProcessPoolExecutor(1, get_context("spawn"), initializer=_left_alone) as apart:
        trouble = apart.submit(_filled, place).result()
    if trouble:
        raise StoreTrouble(trouble)


def _left_alone() -> None:
    """Who ends the program ends the server; this ends by itself."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)


def _filled(place: Path) -> str:
    """What was in the way, in words; empty where nothing was."""
    try:
        fill_demo(place)
    except StoreTrouble as err:
        return str(err)
    return ""


def record(built: AsBuilt, seed: int) -> Bytes:
    """A frame (1080, 1920, 3) uint8 of a set as built, through the plan's codec."""
    signal = standin_signal(standin_capture(built, BasisStore()), WIDTH, seed)
    recording = built.plan.camera.recording
    decoded = through([signal] * 2, recording, 1e6 * recording.mbit_s / built.plan.camera.fps)[-1]
    return np.asarray(np.round(255.0 * decoded), dtype=np.uint8)


def _as_built() -> list[tuple[Plan, AsBuilt]]:
    """Plans, and the same as they were really built."""
    vault, noon = seed_vault(), scree()
    # The right stand had been pushed back to let a trolley through.
    pushed = apply_changes(noon, [Change("lights[1].position", [3.3, 1.1, 3.4])])
    return [
        # Somebody turned the left panel down, and a fold hangs in the cloth: the stand-in's first set as well.
        (vault, built_from(vault, FIRST_SEED, faults_of(FIRST_SEED))),
        (noon, AsBuilt(pushed, (Crease(0.5, 1.5, 0.25, 0.035, -12.0, 0.2),), 1.2)),
    ]
