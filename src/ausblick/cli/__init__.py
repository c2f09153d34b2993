"""The command line: the same computation without a browser."""

from .commands import main

__all__ = ["main"]
