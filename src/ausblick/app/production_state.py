"""A production as it stands: its shots' plans from their set-ups, what is ready, the days, and how late it is."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ausblick.core.camera.view import view_of
from ausblick.core.plan import dump_plan
from ausblick.core.production.day_plan import DayPlan, plan_day, plan_one
from ausblick.core.production.edit_hours import edit_hours
from ausblick.core.production.outfit_check import OutfitChecked, check_outfits
from ausblick.core.production.packing import PackingItem, packing_list
from ausblick.core.production.production_document import Production, days_of, plans_of
from ausblick.core.production.running_late import DayProjection, project
from ausblick.core.production.sound import boom_height
from ausblick.core.sentences import Sentence
from ausblick.core.standards.limit import Severity
from ausblick.core.standards.quantities import Metres
from ausblick.core.takes.shot_progress import shot_progress
from ausblick.core.takes.take_document import Take
from ausblick.store.setups import DamagedState, NotFound

from .services import Services


@dataclass(frozen=True)
class ShotState:
    """`worst` of its set-up's findings, with the worst told; `hours` at the edit; `missing`: its set-up is gone;
    `filmed`: share of it that has its good takes; `boom_m`: how far down a boom may come over the mark, where sound
    is recorded."""

    shot: str
    setup_title: str
    worst: Severity
    told: Sentence | None
    open_findings: int
    hours: float
    missing: bool
    filmed: float = 0.0
    boom_m: Metres | None = None


@dataclass(frozen=True)
class ProductionState:
    """`projections`: of each day, from the time that was asked about; None for days that it is not."""

    day: DayPlan
    shots: tuple[ShotState, ...]
    outfits: tuple[OutfitChecked, ...]
    packing: tuple[PackingItem, ...]
    projections: tuple[DayProjection | None, ...]


def filled(services: Services, production: Production) -> Production:
    """With the plan of each shot's set-up as it is now; a shot whose set-up is gone keeps what the document has."""
    shots = []
    for shot in production.shots:
        try:
            plan = None if shot.setup is None else services.setups.get(shot.setup).plan
        except (NotFound, DamagedState):
            plan = None
        shots.append(shot if plan is None else shot.model_copy(update={"plan": dump_plan(plan)}))
    return production.model_copy(update={"shots": tuple(shots)})


def production_state(
    services: Services, production: Production, takes: Sequence[Take], day: int | None, now: float | None
) -> ProductionState:
    """`now`: minutes since midnight on that day; without it nothing is projected."""
    whole = filled(services, production)
    plans = plans_of(whole)
    count = len(days_of(whole))
    return ProductionState(
        day=plan_day(whole),
        shots=tuple(_shot_states(services, whole, list(takes))),
        outfits=check_outfits(whole),
        packing=packing_list(plans, whole.kit or services.kits.get().kit),
        projections=tuple(
            _projection(whole, takes, number, now) if number == day and now is not None else None
            for number in range(count)
        ),
    )


def _projection(production: Production, takes: Sequence[Take], number: int, now: float) -> DayProjection:
    plans = plans_of(production)
    one = plan_one(production, plans, number)
    done = {shot.id: shot_progress(shot, list(takes)).share for shot in one.production.shots}
    own = [take for take in takes if take.shot in done and take.kind == "take"]
    last = max(own, key=lambda take: take.at).shot if own else None
    todays = [plan for plan, shot in zip(plans, production.shots, strict=True) if shot.day == number]
    return project(one.production, todays, one.order, done, last, now)


def _shot_states(services: Services, production: Production, takes: list[Take]) -> list[ShotState]:
    """Each plan is judged once, however many shots share it."""
    judged: dict[str, tuple[Severity, Sentence | None, int]] = {}
    states = []
    for shot, plan in zip(production.shots, plans_of(production), strict=True):
        known = plan.model_dump_json()
        if known not in judged:
            _, findings = services.findings(plan, with_remedies=False, kit=production.kit)
            worst = findings[0].judgement
            count = sum(finding.judgement.severity != "fine" for finding in findings)
            judged[known] = (worst.severity, None if worst.severity == "fine" else worst.says, count)
        severity, told, count = judged[known]
        missing = False
        try:
            if shot.setup is not None:
                services.setups.get(shot.setup)
        except (NotFound, DamagedState):
            missing = True
        hours = edit_hours(shot, plan, production.edit_hours)
        filmed = shot_progress(shot, takes).share
        boom = boom_height(plan, view_of(plan.camera, plan.subject)) if "sound" in shot.needs else None
        states.append(ShotState(shot.id, plan.title, severity, told, count, hours, missing, filmed, boom))
    return states
