"""The command line: the same computation without a browser."""

from . import export_command, production_command, serving_commands, take_command
from .commands import main

__all__ = ["export_command", "main", "production_command", "serving_commands", "take_command"]
