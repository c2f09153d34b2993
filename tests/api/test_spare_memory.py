"""What a piece of work leaves free is given back to the machine."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pytest

from ausblick.app.spare_memory import give_back


def held_mb() -> float:
    line = next(one for one in Path("/proc/self/status").read_text().splitlines() if one.startswith("VmRSS"))
    return int(line.split()[1]) / 1024.0


@pytest.mark.skipif(not Path("/proc/self/status").exists(), reason="says nothing of what it holds")
def test_many_small_pictures_that_are_gone_leave_nothing_behind() -> None:
    give_back()
    before = held_mb()
    pictures = [np.ones(12_000) for _ in range(1500)]
    kept = pictures[::300]
    assert held_mb() > before + 100.0
    del pictures
    give_back()
    assert held_mb() < before + 40.0
    assert len(kept) == 5
