"""Ausblick plans and checks a green screen set so that the footage keys cleanly."""

import os

# Before NumPy is loaded: products of matrices are small here, and what is large runs in threads of its own. With more
# they wait for each other longer than they work.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

__version__ = "0.2.0"
