"""`python -m ausblick` is the `ausblick` command."""

from ausblick.cli import run

run()
