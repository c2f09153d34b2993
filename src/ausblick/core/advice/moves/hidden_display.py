"""A part of the screen that is to be replaced, and whoever stands before it as the lens sees them."""

from __future__ import annotations

import numpy as np

from ...camera.coverage import coverage_of
from ...camera.view import view_of
from ...light.figure_shadow import figure_of, hidden_by
from ...plan import Plan, apply_changes, people_of
from ...sentences import tell
from ..rule import Proposal
from .mark_moved import mark_aside

ASKED = 7
"""Places along each way of what is needed."""
ASIDE_BY, MOST_ASIDE = 0.1, 1.5
"""The mark is tried in such steps to either side, m."""
LITTLE = 0.2
"""Of a part that shows this much may be hidden: somebody before it is why it is replaced in a picture at all."""


def hidden_share(plan: Plan) -> float:
    """How much of the part that is to be replaced somebody hides; 0 without one, and where hands alone are shown."""
    people = [figure_of(one) for one in people_of(plan) if one.framing != "hands"]
    if not plan.targets.region or not people:
        return 0.0
    view = view_of(plan.camera, plan.subject)
    needed = coverage_of(plan, view).needed
    if needed is None:
        return 0.0
    x, y = np.meshgrid(np.linspace(needed[0], needed[2], ASKED), np.linspace(needed[1], needed[3], ASKED))
    places = np.stack([x.ravel(), y.ravel(), np.zeros(x.size)], axis=1)
    lens = np.broadcast_to(view.lens, places.shape)
    return float(np.any([hidden_by(figure, places, lens) for figure in people], axis=0).mean())


def out_of_the_way(plan: Plan) -> list[Proposal]:
    """The mark, who stands beside it and its lamps, as far to each side as leaves the part to be seen."""
    found = []
    for side, ident in ((-1.0, "do/mark-left"), (1.0, "do/mark-right")):
        for by in np.arange(ASIDE_BY, MOST_ASIDE, ASIDE_BY):
            changes = mark_aside(plan, side * float(by))
            if hidden_share(apply_changes(plan, changes)) <= LITTLE:
                found.append(Proposal(tell(ident, by=float(by)), changes, tell("cost/framing-moves")))
                break
    return found
