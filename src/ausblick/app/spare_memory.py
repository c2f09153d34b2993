"""Memory that is free goes back to the machine.

Pictures come and go by the dozen, in several threads; the C library keeps what they leave for each of these, some
100 MB of a test key. The other programs on a person's machine have better use for it.
"""

from __future__ import annotations

import ctypes
from functools import lru_cache
from typing import Any

MOST_HEAPS = -8
"""The number by which glibc's mallopt (malloc.h: M_ARENA_MAX) is told how many heaps its threads share."""
HEAPS = 2


def give_back() -> None:
    """Where the C library can (glibc); nothing elsewhere."""
    trim = _of_library("malloc_trim")
    if trim is not None:
        trim(0)


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
