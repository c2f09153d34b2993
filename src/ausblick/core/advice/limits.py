"""Limits of the advice."""

from __future__ import annotations

HELPS = 0.02
MOST_REMEDIES = 4
