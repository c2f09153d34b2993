"""OpenCV on one thread while clips are read: the cores are busy decoding, and more threads would only wait for them.

How many it may use is one number for the whole process: the first reader sets it, the last one puts it back.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from threading import Lock

import cv2

_lock = Lock()
_before: list[int] = []
"""What is to be put back, once for every reader."""


@contextmanager
def on_one_thread() -> Iterator[None]:
    with _lock:
        _before.append(_before[0] if _before else cv2.getNumThreads())
        cv2.setNumThreads(1)
    try:
        yield
    finally:
        with _lock:
            threads = _before.pop()
            if not _before:
                cv2.setNumThreads(threads)
