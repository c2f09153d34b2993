"""What the workflows work with: stores on one data folder, the light that is remembered, and the jobs."""

from __future__ import annotations

from collections.abc import Iterable
from contextlib import ExitStack
from dataclasses import dataclass, field
from pathlib import Path

from ausblick.core.advice.rule import Finding
from ausblick.core.diagnosis.trial_key import TrialKey
from ausblick.core.evaluation.results import Evaluation
from ausblick.core.kit import Kit
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Plan
from ausblick.core.remembered.shelf import Shelf
from ausblick.core.takes.take_rules import TakeFinding
from ausblick.store.data_folder import held, work_dir
from ausblick.store.database import open_database
from ausblick.store.frames import Frames
from ausblick.store.kits import Kits
from ausblick.store.plates import Plates
from ausblick.store.productions import Productions
from ausblick.store.setups import Setups
from ausblick.store.simulated_keys import TestKeys
from ausblick.store.sweep import sweep
from ausblick.store.takes import Takes
from ausblick.store.ticks import Ticks

from .change_feed import Changes
from .door import Door
from .jobs import Jobs
from .memory import Memory
from .standins import Standins
from .turns import Turns
from .watched_folder import Watches

AT_ONCE, WAITING = 2, 8
"""Of each kind of heavy work so many are done at once and so many wait: `turns` for searches, remedies and keys,
`drags` for plain evaluations, which answer a hand and must not wait for a search, `reads` for pictures and clips."""
COMPARED = 64
"""Pairs of frames of which what has changed is remembered."""
TRIALS = 3
"""Trial keys that are remembered: figures and views of one frame are asked for one after the other."""


@dataclass(frozen=True)
class TakeCompared:
    """What a take shows against an earlier frame, and the mean difference of the background, % of signal."""

    findings: tuple[TakeFinding, ...]
    background_percent: float | None


@dataclass(frozen=True)
class Services:
    setups: Setups
    frames: Frames
    kits: Kits
    plates: Plates
    test_keys: TestKeys
    ticks: Ticks
    productions: Productions
    takes: Takes
    work: Path
    standins: Standins = field(default_factory=Standins)
    watches: Watches = field(default_factory=Watches)
    turns: Turns = field(default_factory=lambda: Turns(AT_ONCE, WAITING))
    drags: Turns = field(default_factory=lambda: Turns(AT_ONCE, WAITING, usual=0.1))
    reads: Turns = field(default_factory=lambda: Turns(AT_ONCE, WAITING, usual=1.0))
    door: Door = field(default_factory=Door)
    changes: Changes = field(default_factory=Changes)
    holds: ExitStack = field(default_factory=ExitStack)
    jobs: Jobs = field(init=False)
    memory: Memory = field(default_factory=Memory)
    trials: Shelf[TrialKey | None] = field(default_factory=lambda: Shelf(TRIALS, lasts=True))
    compared: Shelf[TakeCompared] = field(default_factory=lambda: Shelf(COMPARED, lasts=True))

    def __post_init__(self) -> None:
        # Jobs take turns with the computations of requests, so they can't be made without them.
        object.__setattr__(self, "jobs", Jobs(self.turns))

    @property
    def basis(self) -> BasisStore:
        """The light that is remembered."""
        return self.memory.basis

    def findings(
        self, plan: Plan, with_remedies: bool = True, kit: Kit | None = None
    ) -> tuple[Evaluation, list[Finding]]:
        """What plans are judged to be here: by the craft's rules, and by a kit, that of the house as it is now where
        none is named."""
        turns = self.turns if with_remedies else self.drags
        return self.memory.findings(plan, kit or self.kits.get().kit, with_remedies, turns)

    def close(self) -> None:
        """End the work beside the requests: jobs are cancelled, folders no longer watched."""
        self.jobs.close()
        self.watches.close()
        self.holds.close()


def open_services(place: Path, memory: Memory | None = None, roots: Iterable[Path] = ()) -> Services:
    """Stores on a data folder. Raises OSError where that can't be written, StoreTrouble where it can't be used.

    `roots`: what may be watched; none: the person's own folders of pictures and films.
    """
    sessions = open_database(place)
    holds = ExitStack()
    if holds.enter_context(held(place)):
        sweep(place, sessions)
    return Services(
        holds=holds,
        work=work_dir(place),
        setups=Setups(sessions),
        frames=Frames(sessions, place),
        kits=Kits(sessions),
        plates=Plates(place),
        test_keys=TestKeys(sessions, place),
        ticks=Ticks(sessions),
        productions=Productions(sessions),
        takes=Takes(sessions),
        memory=memory or Memory(),
        watches=Watches(roots),
    )
