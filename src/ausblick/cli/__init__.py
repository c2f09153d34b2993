"""The command line: the same computation without a browser."""

from . import serving_commands
from .commands import main

__all__ = ["main", "serving_commands"]
