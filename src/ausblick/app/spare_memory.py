"""Memory that is free goes back to the machine.

Pictures come and go by the dozen, in several threads; the C library keeps what they leave for each of these, some
100 MB of a test key. The other programs on a person's machine have better use for it.
"""

from __future__ import annotations

import ctypes
from functools import lru_cache
from typing import Any


def give_back() -> None:
    """Where the C library can (glibc); nothing elsewhere."""
    trim = _trim()
    if trim is not None:
        trim(0)


@lru_cache(maxsize=1)
def _trim() -> Any:
    try:
        return ctypes.CDLL(None).malloc_trim
    except (AttributeError, OSError, TypeError):
        return None
