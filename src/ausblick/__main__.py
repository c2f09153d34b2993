"""`python -m ausblick` is the `ausblick` command."""

from ausblick.cli import run

# A process that this one starts reads it, too, and is no command.
if __name__ == "__main__":
    run()
