"""What was computed once in a process is there for all tests of it that only read."""

from __future__ import annotations

from ausblick.core.light.basis import BasisStore

STORE = BasisStore()
"""What a fresh store would compute again; that both agree is tested in tests/core/light."""
