"""Memory that is free goes back to the machine.

Pictures come and go by the dozen, in several threads; the C library keeps what they leave for each of these, some
100 MB of a test key. The other programs on a person's machine have better use for it.
"""

from __future__ import annotations

import ctypes
import gc
import mmap
from functools import lru_cache
from pathlib import Path
from typing import Any

from ausblick.core.remembered.shelf import let_go_of_older

MOST_HEAPS = -8
"""The number by which glibc's mallopt (malloc.h: M_ARENA_MAX) is told how many heaps its threads share."""
HEAPS = 2
MUCH = 700 * 2**20
"""Bytes in hand beyond which what is free is better given back than kept for the next picture, which is drawn a
twentieth slower for it."""
FULL = 350 * 2**20
"""Bytes in hand, nothing of them free, beyond which only the set-up in hand stays remembered: two people's test key
takes up to 400 MB more for a moment, one person's 300."""
HELD = Path("/proc/self/statm")


def give_back() -> None:
    """Where the C library can (glibc); nothing elsewhere."""
    trim = _of_library("malloc_trim")
    if trim is not None:
        trim(0)


def make_room() -> None:
    """The same; and where much stays in hand, older set-ups are forgotten. To look at one again then takes as long
    as the first time."""
    give_back()
    if _held() > FULL:
        let_go_of_older()
        gc.collect()
        give_back()


def make_room_of_much() -> None:
    """Only where there is much in hand."""
    if _held() > MUCH:
        make_room()


def _held() -> int:
    """Bytes of the machine's memory that this program has; 0 where the system does not tell it (Linux does)."""
    try:
        return int(HELD.read_text().split()[1]) * mmap.PAGESIZE
    except (OSError, ValueError, IndexError):
        return 0


def share_heaps() -> None:
    """A server's threads come and go with their requests: each heap that one has used is kept for good."""
    option = _of_library("mallopt")
    if option is not None and _of_library("malloc_trim") is not None:
        option(MOST_HEAPS, HEAPS)


@lru_cache(maxsize=2)
def _of_library(name: str) -> Any:
    try:
        return getattr(ctypes.CDLL(None), name)
    except (AttributeError, OSError, TypeError):
        return None
