"""Fill a data folder with the demo, once: set-ups, and a camera frame for each."""

from __future__ import annotations

import tempfile
from pathlib import Path

from ausblick.core.kit.catalogue import full_kit
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.formats.images import png_bytes
from ausblick.store.database import open_database
from ausblick.store.frames import Frames
from ausblick.store.kits import Kits
from ausblick.store.setups import Setups
from ausblick.web.importing import import_frame

from .camera_frame import Blemish, record
from .fern_house import scree, seed_vault
from .fern_house_2 import fern_dancer, gardeners, potting_shed, seed_jar


def fill_demo(place: Path) -> None:
    """Add the demo's set-ups and frames to an empty data folder; a filled one is left as it is."""
    sessions = open_database(place)
    setups, frames = Setups(sessions), Frames(sessions, place)
    if setups.anything():
        return
    Kits(sessions).save(0, full_kit())
    for plan, built, blemishes, grain in _as_built():
        setup = setups.create(plan)
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "frame.png"
            path.write_bytes(png_bytes(record(built, blemishes, grain, seed=7)))
            name = f"{plan.title.split(',')[0].lower().replace(' ', '-')}-test.png"
            import_frame(frames, setup.id, name, path, plan.targets.level_trace)
    for plan in (fern_dancer(), potting_shed(), seed_jar(), gardeners()):
        setups.create(plan)


def _as_built() -> list[tuple[Plan, Plan, tuple[Blemish, ...], float]]:
    """(plan, the same as it was really built, what only the set has, grain in %)."""
    vault, noon = seed_vault(), scree()
    # The left panel's dimmer had been turned down by somebody, and a fold hung in the cloth.
    vault_built = apply_changes(vault, [Change("lights[0].dimmer", 0.38)])
    # The right stand had been pushed back to let a trolley through.
    noon_built = apply_changes(noon, [Change("lights[1].position", [3.3, 1.1, 3.4])])
    return [
        (vault, vault_built, (Blemish(0.24, 0.36, 0.025, 0.16, 0.74),), 0.7),
        (noon, noon_built, (Blemish(0.58, 0.30, 0.05, 0.07, 0.82),), 0.6),
    ]
