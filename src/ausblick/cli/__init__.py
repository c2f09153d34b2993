"""The command line: the same computation without a browser."""

import gc
import os

# Said before NumPy is loaded: the systems solved here are small, and more threads only wait for each other.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
# Nobody's plugins have a say in how a plan is read, so that they need not be looked for in all that is installed.
os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "__all__")
# What is loaded stays to the end: to look for garbage in it, then and while it is loaded, costs a tenth of a check.
gc.disable()

import numpy as np  # noqa: E402

from . import export_command, production_command, serving_commands, take_command  # noqa: E402
from .commands import main  # noqa: E402

# Moved among what is old: the next object would have all of it looked through as young.
gc.freeze()
gc.unfreeze()
gc.enable()

__all__ = ["export_command", "main", "production_command", "run", "serving_commands", "take_command"]


SELDOM = 50_000
"""New objects until garbage is looked for among them: most of what is worked out here is given back as it goes."""
LARGEST = 31 * 2**20
"""Bytes: a system's memory that learns from what is given back keeps arrays up to there from then on."""


def run() -> None:
    """`main`, in a process of its own."""
    # Never touched, and given back at once: else each larger array is fetched from the system page by page.
    np.empty(LARGEST, dtype=np.uint8)
    gc.freeze()
    gc.set_threshold(SELDOM)
    main()
