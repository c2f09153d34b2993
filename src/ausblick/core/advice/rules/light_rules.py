"""Screen light: even first, then at the level that the chosen school asks for."""

from __future__ import annotations

import math

from ...evaluation.evaluate import evaluate
from ...evaluation.results import Evaluation, ScreenReading
from ...evaluation.seen_screen import SeenScreen
from ...light.balance import balanced_dimmers
from ...light.basis import BasisStore
from ...plan import Light, apply_changes, edit
from ...sentences import Sentence, tell
from ...standards.limits import LIMITS
from .. import moves
from ..forbidden import LEAST_DIMMER
from ..rule import Judgement, Proposal, Rule
from .daylight_rules import black_out

EVEN, LEVEL, BEHIND = (LIMITS[f"light.{name}"] for name in ("evenness", "level", "behind"))


def _evenness(evaluation: Evaluation) -> Judgement | None:
    reading = evaluation.screen
    if reading is None or reading.lux_max <= 0.0:
        return None
    over = reading.spread_stops - EVEN.at
    severity = EVEN.grade(over)
    says = _varies(reading)
    value = reading.spread_stops if math.isfinite(reading.spread_stops) else None
    return Judgement(severity, value, EVEN.at, "stops", says, _excess(reading))


def _excess(reading: ScreenReading) -> float:
    return max(0.0, min(reading.spread_stops - EVEN.at, 20.0))


def _uneven_at_least(seen: SeenScreen) -> float:
    return 0.0 if seen.reading is None or seen.reading.lux_max <= 0.0 else _excess(seen.reading)


def _varies(reading: ScreenReading) -> Sentence:
    """Where the darkest and the brightest place are, when the frame needs more than the wall."""
    spread = min(reading.spread_stops, 20.0)
    if len(reading.surfaces) < 2:
        return tell("light.evenness", spread=spread)
    if reading.darkest == reading.brightest:
        return tell("light.evenness/on", spread=spread, surface=reading.darkest)
    return tell("light.evenness/between", spread=spread, darkest=reading.darkest, brightest=reading.brightest)


def _even_out(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    lamps = moves.screen_lamps(evaluation.plan)
    if not lamps or evaluation.screen is None:
        return []
    return [
        *_dimmers(evaluation, store),
        *_without(evaluation),
        *moves.further_back(evaluation.plan, lamps),
        *moves.aimed_across(evaluation.plan, lamps),
        *moves.half_height(evaluation, lamps),
        *moves.all_alike(evaluation, lamps),
        *moves.partner(evaluation.plan, lamps),
    ]


def _dimmers(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    wanted = min(wanted_lux(evaluation), REACHED * _all_they_give(evaluation))
    solved = balanced_dimmers(evaluation.plan, evaluation.judged_cells, wanted, store)
    changes, words = [], []
    for index, lamp in moves.screen_lamps(evaluation.plan):
        dimmer = round(solved.get(lamp.id, lamp.dimmer), 2)
        if abs(dimmer - lamp.dimmer) >= 0.01:
            changes.append(edit.lamp(index).dimmer(dimmer))
            words.append(tell("do/dim/lamp", lamp=lamp.name, percent=100.0 * dimmer))
    return [Proposal(tell("do/dim", lamps=tuple(words)), tuple(changes))] if changes else []


REACHED = 0.8
"""Of the mean light with every screen lamp at full power: up to there one can be dimmed against the other."""


def _all_they_give(evaluation: Evaluation) -> float:
    """Mean light on the screen with its lamps at full power, lux. It is the same however they are dimmed: a level
    that follows theirs would creep, a little at every step."""
    assert evaluation.screen is not None
    lamps = [lamp for _, lamp in moves.screen_lamps(evaluation.plan) if lamp.dimmer > 0.0]
    more = sum(evaluation.screen_by_lamp.get(lamp.id, 0.0) * (1.0 / lamp.dimmer - 1.0) for lamp in lamps)
    return evaluation.screen.lux_mean + more


def _without(evaluation: Evaluation) -> list[Proposal]:
    """A lamp that was meant for neither screen nor subject, left off; a window, covered."""
    lights = enumerate(evaluation.plan.lights)
    stray = [(i, lamp) for i, lamp in lights if lamp.role == "other" and lamp.on and not lamp.is_daylight]
    without = [Proposal(tell("do/without", lamp=lamp.name), (edit.lamp(i).on(False),)) for i, lamp in stray]
    return [*without, *black_out(evaluation.plan)]


def wanted_lux(evaluation: Evaluation) -> float:
    """White light in lux on the screen for the school's level."""
    return math.sqrt(evaluation.target.lux_low * evaluation.target.lux_high)


def _level(evaluation: Evaluation) -> Judgement | None:
    reading, target = evaluation.screen, evaluation.target
    if reading is None:
        return None
    level = reading.level_luma if target.trace == "luma" else reading.level_key_channel
    limit = target.low if level < target.low else target.high
    says = tell(f"light.level/{target.trace}", level=level, low=target.low, high=target.high)
    lux = max(reading.lux_mean, 1e-6)
    off = max(0.0, math.log2(target.lux_low / lux), math.log2(lux / target.lux_high)) - LEVEL.at
    severity = LEVEL.grade(off)
    if reading.lux_max <= 0.0:
        # Nothing to key by: no school's taste.
        severity, says = "stop", tell("light.level/dark")
    return Judgement(severity, level, limit, "%", says, max(0.0, min(off, 20.0)), target.why)


def _set_level(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    reading = evaluation.screen
    if reading is None:
        return []
    proposals = _screen_lamps(evaluation)
    if reading.lux_mean - _ours(evaluation) > MOSTLY * wanted_lux(evaluation):
        proposals += _key_kept_off(evaluation, store)
    if reading.lux_mean > 0.0:
        over = math.log2(reading.lux_mean / wanted_lux(evaluation))
        proposals += moves.film_on_pane(evaluation.plan, over)
        proposals += moves.inside_lifted(evaluation.plan, over)
        proposals += moves.aperture_by(evaluation.plan, -over, tell("cost/subject-level"))
        proposals += moves.filtered_by(evaluation.plan, -over, tell("cost/subject-level"))
    return proposals


MOSTLY = 0.5
"""Of what is wanted on the screen: more than that is not left to light that is meant for something else."""


def _ours(evaluation: Evaluation) -> float:
    """What the screen's own lamps give it, lux."""
    return sum(evaluation.screen_by_lamp.get(lamp.id, 0.0) for _, lamp in moves.screen_lamps(evaluation.plan))


def _screen_lamps(evaluation: Evaluation) -> list[Proposal]:
    """The screen's own lamps to what is wanted beside all other light; none where the other light is too much."""
    assert evaluation.screen is not None
    lamps = moves.screen_lamps(evaluation.plan)
    ours = _ours(evaluation)
    if ours <= 0.0:
        return []
    factor = (wanted_lux(evaluation) - (evaluation.screen.lux_mean - ours)) / ours
    return _dim_by(lamps, factor) if factor * max(lamp.dimmer for _, lamp in lamps) >= LEAST_DIMMER else []


def _key_kept_off(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """Where the screen would mostly be left to the subject's light: a grid on the lamp that sends most of it there,
    and the screen's own lamps down to what is then wanted."""
    plan, onto = evaluation.plan, evaluation.screen_by_lamp
    others = [(i, lamp) for i, lamp in enumerate(plan.lights) if lamp.on and lamp.role != "screen"]
    if not others or not moves.screen_lamps(plan):
        return []
    index, most = max(others, key=lambda one: onto.get(one[1].id, 0.0))
    return [
        Proposal(
            tell("do/grid-lamps-down", grid=grid.text, **down.text.parameters),
            (*grid.changes, *down.changes),
            grid.cost,
        )
        for grid in moves.gridded(index, most)
        for down in _screen_lamps(evaluate(apply_changes(plan, grid.changes), store))
        if down.text.id == "do/screen-lamps-down"
    ]


def _dim_by(lamps: list[tuple[int, Light]], factor: float) -> list[Proposal]:
    top = max(lamp.dimmer for _, lamp in lamps)
    short = None
    if factor <= 0.0 or top <= 0.0:
        return []
    if factor * top > 1.0:
        short = tell("cost/all-they-have", missing=math.log2(factor * top))
        factor = 1.0 / top
    changes = tuple(edit.lamp(i).dimmer(round(min(1.0, lamp.dimmer * factor), 3)) for i, lamp in lamps)
    word = "down" if factor < 1.0 else "up"
    text = tell(f"do/screen-lamps-{word}", by=math.log2(factor), to=100.0 * top * factor)
    return [Proposal(text, changes, short or tell("cost/less-spill" if factor < 1 else "cost/more-spill"))]


def _behind(evaluation: Evaluation) -> Judgement | None:
    """Light that comes through the cloth, as a share of the light on it."""
    screen, reading = evaluation.plan.screen, evaluation.screen
    if reading is None or reading.lux_mean <= 0.0 or screen.behind_lux <= 0.0:
        return None
    share = 100.0 * screen.transmittance * screen.behind_lux / reading.lux_mean
    over = max(0.0, share - BEHIND.at)
    says = tell("light.behind", share=share)
    return Judgement(BEHIND.grade(over), share, BEHIND.at, "%", says, over)


def _block(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    screen = evaluation.plan.screen
    return [
        Proposal(tell("do/opaque"), (edit.screen.transmittance(0.0),)),
        Proposal(tell("do/fold-double"), (edit.screen.transmittance(round(screen.transmittance**2, 5)),)),
        Proposal(tell("do/curtains"), (edit.screen.behind_lux(0.0),)),
    ]


RULES = (
    Rule(
        id="light.evenness",
        stage="light",
        measure="spread",
        why="One key setting has to fit the whole screen; what differs in light needs a harder clip, and that "
        "eats hair.",
        judge=_evenness,
        propose=_even_out,
        at_least=_uneven_at_least,
    ),
    Rule(
        id="light.level",
        stage="light",
        measure="screen level",
        why="A school of light and grade, which the matte does not feel. Too bright throws coloured light onto the "
        "subject; too dark is noisy. That fair hair keys better before a darker screen is told on sets; as a matte "
        "the model does not show it, in the composite mildly.",
        judge=_level,
        propose=_set_level,
        digits=0,
    ),
    Rule(
        id="light.behind",
        stage="light",
        measure="through the cloth",
        why="Light from a window behind the cloth changes its colour and shows its seams and folds.",
        judge=_behind,
        propose=_block,
        digits=0,
    ),
)
