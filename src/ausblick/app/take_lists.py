"""The lists before and after a take of a set-up: what can be measured is ticked, the rest by hand."""

from __future__ import annotations

from dataclasses import dataclass

from ausblick.core.diagnosis.checklists import Item, items_of
from ausblick.core.diagnosis.comparison import compare
from ausblick.core.frames.frame_report import drift_between

from .frame_cause import read_stored
from .frame_import import report_of
from .services import Services


@dataclass(frozen=True)
class ListedItem:
    item: Item
    ticked: bool


def lists_of(services: Services, setup_id: int) -> list[ListedItem]:
    plan = services.setups.get(setup_id).plan
    evaluation, findings = services.findings(plan, with_remedies=False)
    stored = services.frames.of_setup(setup_id)
    reading, rows = None, []
    if stored:
        _, _, reading = read_stored(services, stored[0])
        rows = compare(evaluation, services.memory.expected(plan), reading)
    drifted = drift_between(report_of(stored[1]), report_of(stored[0])) if len(stored) > 1 else None
    ticked = services.ticks.of_setup(setup_id)
    return [
        ListedItem(item, item.done if item.done is not None else item.id in ticked)
        for item in items_of(evaluation, findings, reading, rows, drifted)
    ]
