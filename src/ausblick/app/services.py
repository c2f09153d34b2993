"""What the workflows work with: stores on one data folder, the light that is remembered, and the jobs."""

from __future__ import annotations

from dataclasses import dataclass, field
from pathlib import Path

from ausblick.core.advice.rule_set import RuleSet, rules_with
from ausblick.core.diagnosis.expected import expected_reading
from ausblick.core.diagnosis.trial_key import TrialKey
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.frames.reading import FrameReading
from ausblick.core.light.basis import BasisStore, Shelf
from ausblick.core.plan import Plan
from ausblick.store.database import open_database
from ausblick.store.frames import Frames
from ausblick.store.kits import Kits
from ausblick.store.plates import Plates
from ausblick.store.setups import Setups
from ausblick.store.simulated_keys import TestKeys
from ausblick.store.ticks import Ticks

from .jobs import Jobs
from .standins import Standins
from .watched_folder import Watches

EXPECTED = 12
"""Plans whose own picture's reading is remembered."""
TRIALS = 3
"""Trial keys that are remembered: figures and views of one frame are asked for one after the other."""


@dataclass(frozen=True)
class Services:
    setups: Setups
    frames: Frames
    kits: Kits
    plates: Plates
    test_keys: TestKeys
    ticks: Ticks
    standins: Standins = field(default_factory=Standins)
    watches: Watches = field(default_factory=Watches)
    jobs: Jobs = field(default_factory=Jobs)
    basis: BasisStore = field(default_factory=BasisStore)
    trials: Shelf[TrialKey | None] = field(default_factory=lambda: Shelf(TRIALS))
    expected: Shelf[FrameReading] = field(default_factory=lambda: Shelf(EXPECTED))

    @property
    def rules(self) -> RuleSet:
        """What plans are judged by here: the craft's rules, and the kit's as it is now."""
        return rules_with(self.kits.get().kit)

    def expected_of(self, plan: Plan) -> FrameReading:
        """What the plan's own picture reads by the ruler of real frames."""
        return self.expected.get(
            plan.model_dump_json(), lambda: expected_reading(evaluate(plan, self.basis), self.basis)
        )

    def close(self) -> None:
        """End the work beside the requests: jobs are cancelled, folders no longer watched."""
        self.jobs.close()
        self.watches.close()


def open_services(place: Path) -> Services:
    """Stores on a data folder. Raises OSError where that can't be written."""
    sessions = open_database(place)
    return Services(
        setups=Setups(sessions),
        frames=Frames(sessions, place),
        kits=Kits(sessions),
        plates=Plates(place),
        test_keys=TestKeys(sessions, place),
        ticks=Ticks(sessions),
    )
