"""`python -m ausblick` is the `ausblick` command."""

from ausblick.cli.commands import main

main()
