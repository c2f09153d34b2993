"""Workflows between the computation and whoever asks: imports, jobs, causes, lists, the stand-in's recordings."""
