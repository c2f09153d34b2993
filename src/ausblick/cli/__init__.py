"""The command line: the same computation without a browser."""

import os

# Said before NumPy is loaded: the systems solved here are small, and more threads only wait for each other.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

from . import export_command, production_command, serving_commands, take_command
from .commands import main

__all__ = ["export_command", "main", "production_command", "serving_commands", "take_command"]
