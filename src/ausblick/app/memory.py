"""What is remembered between requests: all of it by the whole content that it was computed from, so never stale."""

from __future__ import annotations

from dataclasses import dataclass, field

from ausblick.core.advice.findings import findings_of
from ausblick.core.advice.rule import Finding
from ausblick.core.advice.rules.kit_rules import rules_with
from ausblick.core.advice.search.room_table import Cell, room_table
from ausblick.core.diagnosis.expected import expected_reading
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.evaluation.results import Evaluation
from ausblick.core.frames.reading import FrameReading
from ausblick.core.kit import Kit
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Plan
from ausblick.core.remembered.shelf import Shelf
from ausblick.core.standin.last_light import LastLight

from .asked_once import AskedOnce
from .frame_told import FrameCause, FrameComparison
from .spare_memory import make_room_of_much
from .turns import Turns
from .wanted import still_wanted

PLANS = 12
"""Plans whose findings, and whose own picture's reading, are remembered."""
IN_HAND = 3
"""Plans whose evaluation is: of what a hand holds the page asks for numbers and for a picture at once."""


@dataclass(frozen=True)
class Memory:
    basis: BasisStore = field(default_factory=lambda: BasisStore(go_on=still_wanted))
    last_light: LastLight = field(default_factory=LastLight)
    causes: Shelf[FrameCause] = field(default_factory=lambda: Shelf(PLANS, lasts=True))
    comparisons: Shelf[FrameComparison] = field(default_factory=lambda: Shelf(PLANS, lasts=True))
    _rooms: Shelf[list[Cell]] = field(default_factory=lambda: Shelf(PLANS, lasts=True))
    _expected: Shelf[FrameReading] = field(default_factory=lambda: Shelf(PLANS, lasts=True))
    _evaluated: AskedOnce[Evaluation] = field(default_factory=lambda: AskedOnce(IN_HAND))
    _findings: Shelf[tuple[Evaluation, list[Finding]]] = field(default_factory=lambda: Shelf(PLANS))

    def findings(self, plan: Plan, kit: Kit, with_remedies: bool, turns: Turns) -> tuple[Evaluation, list[Finding]]:
        """The evaluation and its findings by the craft's rules and the kit's; in turn where they are not known."""

        def judge() -> tuple[Evaluation, list[Finding]]:
            with turns.taken():
                evaluation = self.evaluated(plan)
                return evaluation, findings_of(evaluation, self.basis, rules_with(kit), with_remedies=with_remedies)

        if not with_remedies:
            # Asked for at every move of a hand: each plan once.
            return judge()
        found = self._findings.get((plan.model_dump_json(), kit.model_dump_json()), judge)
        # The hand rests: what its moves left may go.
        make_room_of_much()
        return found

    def evaluated(self, plan: Plan) -> Evaluation:
        """Its evaluation, worked out once for all who ask for it now."""
        return self._evaluated.get(plan.model_dump_json(), lambda: evaluate(plan, self.basis))

    def room(self, plan: Plan, kit: Kit) -> list[Cell]:
        """What the plan's room can shoot with the kit."""
        return self._rooms.get((plan.model_dump_json(), kit.model_dump_json()), lambda: room_table(plan, kit))

    def expected(self, plan: Plan) -> FrameReading:
        """What the plan's own picture reads by the ruler of real frames."""
        return self._expected.get(plan.model_dump_json(), lambda: expected_reading(self.evaluated(plan), self.basis))
