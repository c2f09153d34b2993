"""The stand-ins of open set-ups: a set as built that can be looked at and changed, kept in memory."""

from __future__ import annotations

from collections import OrderedDict
from dataclasses import dataclass, field, replace
from threading import Lock

from ausblick.core.light.basis import BasisStore
from ausblick.core.matte.capture import Capture
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.standin.as_built import AsBuilt, built_from, faults_of
from ausblick.core.standin.standin_camera import standin_capture

KEPT = 6
FREE = ("lights[", "camera.")
"""What hands can touch on a set: its lamps and the camera."""


@dataclass
class Standin:
    """`shots` counts pictures, so that each has noise of its own."""

    seed: int
    built: AsBuilt
    shots: int = 0
    _capture: Capture | None = None
    lock: Lock = field(default_factory=Lock)

    def capture(self, store: BasisStore) -> Capture:
        with self.lock:
            if self._capture is None:
                self._capture = standin_capture(self.built, store)
            self.shots += 1
            return self._capture

    def change(self, changes: list[Change]) -> None:
        """Raises PlanError; ValueError for what hands can't touch."""
        for change in changes:
            if not change.path.startswith(FREE):
                raise ValueError(f"{change.path}: on the set only lamps and the camera can be moved")
        with self.lock:
            self.built = replace(self.built, plan=apply_changes(self.built.plan, changes))
            self._capture = None


class Standins:
    """By set-up; the last few are kept."""

    def __init__(self) -> None:
        self._by_setup: OrderedDict[int, Standin] = OrderedDict()
        self._lock = Lock()

    def build(self, setup_id: int, plan: Plan, seed: int, faults: bool) -> Standin:
        built = built_from(plan, seed, faults_of(seed)) if faults else AsBuilt(plan)
        with self._lock:
            standin = Standin(seed, built)
            self._by_setup[setup_id] = standin
            self._by_setup.move_to_end(setup_id)
            while len(self._by_setup) > KEPT:
                self._by_setup.popitem(last=False)
            return standin

    def get(self, setup_id: int) -> Standin | None:
        with self._lock:
            return self._by_setup.get(setup_id)
