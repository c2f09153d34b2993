"""Files and rows agree: what a killed server left behind is swept when the next one begins."""

from __future__ import annotations

import logging
import shutil
from datetime import timedelta
from pathlib import Path

from sqlalchemy import delete, select

from .data_folder import backups_dir, frames_dir, keys_dir, plates_dir, work_dir
from .database import Sessions
from .setups import now
from .tables import FrameRow, SetupRow, TestKeyRow

log = logging.getLogger(__name__)
IN_TRASH = timedelta(days=31)


def sweep(place: Path, sessions: Sessions) -> None:
    """Folders that no row names, plates of no set-up, parts of files, and what was being worked on.

    Frames that have lain in the trash for a month are gone then.

    Only for who holds the folder alone (`data_folder.held`): another server may be filling what no row names yet.
    """
    with sessions.write() as session:
        session.execute(delete(FrameRow).where(FrameRow.deleted < now() - IN_TRASH))
    with sessions.read() as session:
        frames = set(session.scalars(select(FrameRow.stored)))
        keys = set(session.scalars(select(TestKeyRow.stored)))
        setups = {f"{ident}{end}" for ident in session.scalars(select(SetupRow.id)) for end in (".jpg", ".before")}
    for folder, known in ((frames_dir(place), frames), (keys_dir(place), keys)):
        for one in folder.iterdir():
            if one.name not in known:
                log.info("swept %s", one.name)
                shutil.rmtree(one, ignore_errors=True)
    for plate in plates_dir(place).iterdir():
        if plate.name not in setups:
            plate.unlink(missing_ok=True)
    for left in (*backups_dir(place).glob("*.part"), *work_dir(place).iterdir()):
        if left.is_dir():
            shutil.rmtree(left, ignore_errors=True)
        else:
            left.unlink(missing_ok=True)
