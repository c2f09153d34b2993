"""Light as work: even the screen, choose the distance, read a lamp's photometry file."""

from __future__ import annotations

import numpy as np
from flask import Response

from ausblick.core.advice.search.distances import distances
from ausblick.core.advice.search.even_screen import Freedoms, even_screen
from ausblick.core.advice.search.ledger import ledger_of
from ausblick.core.plan import IesError, PlanError, plan_from, read_ies

from ..context import answer, services
from ..described import group
from ..kit_schemas import PlanBody
from ..light_schemas import (
    DistancesModel,
    EvenBody,
    EvenModel,
    LedgerBody,
    LedgerModel,
    PhotometryBody,
    PhotometryModel,
)

api = group("light", "light")


@api.post("/even-screen", operation_id="evenScreen", responses={200: EvenModel})
def post_even_screen(body: EvenBody) -> Response:
    """Dimmers always; heights, places and aims where they may. Never worse than the plan."""
    found = even_screen(plan_from(body.plan), services().basis, Freedoms(body.heights, body.positions, body.aims))
    return answer(EvenModel(found))


@api.post("/distances", operation_id="distances", responses={200: DistancesModel})
def post_distances(body: PlanBody) -> Response:
    """Shadow, spill and needed screen against the distance of the mark, and the schools of distance."""
    found = distances(plan_from(body.plan), services().basis)
    return answer(DistancesModel(found))


@api.post("/photometry", operation_id="readPhotometry", responses={200: PhotometryModel})
def post_photometry(body: PhotometryBody) -> Response:
    try:
        found = read_ies(body.text)
    except IesError as err:
        raise PlanError("text", f"the file {err}") from None
    angles = np.arange(-90.0, 91.0, 3.0)
    planes = [found.intensity(np.abs(angles), np.where(angles < 0.0, h + 180.0, h)) for h in (0.0, 90.0)]
    peak = float(found.candela.max())
    fine = np.arange(0.0, 90.5, 0.5)
    wide = fine[found.intensity(fine, np.zeros_like(fine)) >= 0.5 * peak]
    model = PhotometryModel(
        flux_lm=found.flux,
        peak_cd=peak,
        watts=found.watts,
        half_peak_deg=2.0 * float(wide.max()) if len(wide) else 0.0,
        curve=[(float(a), float(x), float(y)) for a, x, y in zip(angles, *planes, strict=True)],
    )
    return answer(model)


@api.post("/ledger", operation_id="ledger", responses={200: LedgerModel})
def post_ledger(body: LedgerBody) -> Response:
    """Every choice that spends or wins light as a signed row, and solutions for screen and face."""
    found = ledger_of(plan_from(body.plan), frozenset(body.locked), services().basis)
    return answer(LedgerModel(found))
