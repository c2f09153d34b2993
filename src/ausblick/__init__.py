"""Ausblick plans and checks a green screen set so that the footage keys cleanly."""

__version__ = "0.2.0"
