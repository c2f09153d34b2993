"""What a piece of work leaves free is given back to the machine."""

from __future__ import annotations

import mmap
import platform
import subprocess
import sys
from dataclasses import dataclass, field
from pathlib import Path

import numpy as np
import pytest

from ausblick.app import spare_memory
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


HEAPS_OF_TWELVE_THREADS = """
import ctypes, sys
from threading import Barrier, Thread
from ausblick.app.spare_memory import share_heaps
if sys.argv[1] == "shared":
    share_heaps()
library, all_there = ctypes.CDLL(None), Barrier(12)
library.malloc.restype = ctypes.c_void_p
def work():
    all_there.wait()
    for _ in range(200):
        library.malloc(5000)
    all_there.wait()
threads = [Thread(target=work) for _ in range(12)]
for thread in threads: thread.start()
for thread in threads: thread.join()
library.malloc_stats()
"""


@pytest.mark.skipif(platform.libc_ver()[0] != "glibc", reason="another C library")
def test_a_servers_threads_share_two_heaps() -> None:
    def heaps(how: str) -> int:
        told = subprocess.run([sys.executable, "-c", HEAPS_OF_TWELVE_THREADS, how], capture_output=True, text=True)
        return told.stderr.count("Arena ")

    assert 1 <= heaps("shared") <= 2
    assert heaps("as it comes") > 4


@dataclass
class Machine:
    """How many MB the program is told to hold, and what it did to hold less."""

    file: Path
    done: list[str] = field(default_factory=list)

    def holds(self, megabytes: int) -> None:
        self.file.write_text(f"999999 {megabytes * 2**20 // mmap.PAGESIZE} 7 1 0 5 0\n")


@pytest.fixture
def machine(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Machine:
    found = Machine(tmp_path / "statm")
    monkeypatch.setattr(spare_memory, "HELD", found.file)
    monkeypatch.setattr(spare_memory, "give_back", lambda: found.done.append("given back"))
    monkeypatch.setattr(spare_memory, "let_go_of_older", lambda: found.done.append("let go"))
    return found


def test_little_is_kept_for_the_next_picture_and_much_is_given_back(machine: Machine) -> None:
    spare_memory.make_room_of_much()
    machine.holds(600)
    spare_memory.make_room_of_much()
    assert machine.done == []
    machine.holds(800)
    spare_memory.make_room_of_much()
    assert machine.done == ["given back", "let go", "given back"]


def test_a_test_key_forgets_older_set_ups_only_where_much_is_in_hand(machine: Machine) -> None:
    machine.holds(300)
    spare_memory.make_room()
    assert machine.done == ["given back"]
    machine.holds(400)
    spare_memory.make_room()
    assert machine.done[1:] == ["given back", "let go", "given back"]
