"""From what was said to a lit set with one sentence over it: good, usable, or will not do, because."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..advice.findings import find
from ..advice.rule import Finding
from ..advice.rules.kit_rules import rules_with
from ..advice.search.framing import FRAMINGS
from ..advice.search.proposal import SetupProposals, propose
from ..advice.search.room_table import room_table
from ..advice.verdict import Verdict, verdict_of, verdict_told
from ..kit import Kit
from ..light.basis import BasisStore
from ..plan import Framing, Plan
from ..sentences import Sentence, tell
from .answers_given import Said
from .kit_of_said import kit_of_said
from .plan_of_said import plan_of_said


@dataclass(frozen=True)
class Possible:
    """What the room does with the cloth and the lenses: a framing, and with which lens it is easiest."""

    framing: Framing
    state: str
    lens: str
    why: Sentence


@dataclass(frozen=True)
class FirstSet:
    """`plan` is lit where lamps were said and the room allows it; `instead`: the framing that was taken in place of
    one that cannot be; `told`: why not, and what would help."""

    plan: Plan
    kit: Kit
    verdict: Verdict
    says: Sentence
    findings: tuple[Finding, ...]
    instead: Framing | None
    told: tuple[Sentence, ...]


def possible_with(said: Said, own: Kit) -> tuple[Plan, tuple[Possible, ...]]:
    """At once: the unlit plan, and of every framing whether room, cloth and lenses do it."""
    kit = kit_of_said(said, own)
    plan = plan_of_said(said, kit)
    order = {"possible": 0, "tight": 1, "impossible": 2}
    best: dict[Framing, Possible] = {}
    for cell in sorted(room_table(plan, kit), key=lambda cell: order[cell.state]):
        best.setdefault(cell.framing, Possible(cell.framing, cell.state, cell.lens, cell.why))
    return plan, tuple(best[framing] for framing in FRAMINGS if framing in best)


def first_set(said: Said, own: Kit, store: BasisStore) -> FirstSet:
    """The proposal for the framing that was asked for; where room or cloth forbid it, the nearest that they allow."""
    kit = kit_of_said(said, own)
    base = plan_of_said(said, kit)
    wanted: Framing = said.framing or "waist"
    found = propose(base, kit, wanted, store)
    told, instead = found.impossible, None
    if not found.alternatives:
        instead, found = _nearest(base, kit, wanted, store)
    plan = found.alternatives[0].plan if found.alternatives else base
    _, findings = find(plan, store, rules_with(kit), with_remedies=False)
    if not found.alternatives and told:
        return FirstSet(plan, kit, "no", tell("verdict/no", because=told[0]), tuple(findings), None, told[1:])
    if instead is not None:
        says = tell("verdict/instead", wanted=wanted, because=told[0], instead=instead, says=verdict_told(findings))
        return FirstSet(plan, kit, verdict_of(findings), says, tuple(findings), instead, told[1:])
    return FirstSet(plan, kit, verdict_of(findings), verdict_told(findings), tuple(findings), None, ())


def _nearest(base: Plan, kit: Kit, wanted: Framing, store: BasisStore) -> tuple[Framing | None, SetupProposals]:
    """Tighter framings first: less of the body is shown before the camera would have to go through a wall."""
    for framing in _tighter(wanted):
        found = propose(base, kit, framing, store)
        if found.alternatives:
            return framing, found
    return None, SetupProposals((), ())


def _tighter(wanted: Framing) -> Sequence[Framing]:
    bodies = [framing for framing in FRAMINGS if framing != "hands"]
    at = bodies.index(wanted) if wanted in bodies else 0
    return bodies[at + 1 :]
