"""Whole answers found by search: set-ups, an even screen, exposure, distances, recorders."""
