"""Lights of two colours on one screen: whose they are, and how they become one."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ...colour.white_point import light_rgb
from ...damage.edges import CLIPS
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...light.gels import PALE, burning, taken_stops, through_gel, whitening
from ...plan import Change, Light, Plan, edit
from ...sentences import Sentence, tell
from ...standards.limits import LIMITS
from .. import moves
from ..rule import Judgement, Proposal, Rule
from .daylight_rules import black_out

HUES = LIMITS["light.mixed-colour"]
ROOM_COUNTS = 0.05
"""The room's own light may be of another colour where it is less than that share of the screen's."""
LAMP_COUNTS = 0.1
"""Of the screen's lamp light: what white light of a lamp gives below that is mostly what the room returns."""
STEP_K = 50.0


def _mixed(evaluation: Evaluation) -> Judgement | None:
    spread = evaluation.hue_spread_deg
    if spread is None:
        return None
    why = _why_mixed(evaluation)
    over = max(0.0, spread - HUES.at)
    says = tell(f"light.mixed-colour/{why if over > 0.0 or why == 'clips' else 'holds'}", spread=spread)
    # What clips is told once, by itself, and has its own remedies; to let it clip is none of this.
    grade = "fine" if why == "clips" else HUES.grade(over)
    return Judgement(grade, spread, HUES.at, "°", says, over)


def _on_the_screen(evaluation: Evaluation) -> list[int]:
    """Which lamps light it."""
    by, lights = evaluation.screen_by_lamp, evaluation.plan.lights
    return [i for i, lamp in enumerate(lights) if lamp.on and lamp.dimmer > 0.0 and by.get(lamp.id, 0.0) > 0.0]


def _why_mixed(evaluation: Evaluation) -> str:
    """By lamps of two colours, with their gels, or the light of room or sky; where they are alike, by what clips of
    the screen, or by what the room returns."""
    plan, screen = evaluation.plan, evaluation.screen
    room, camera = plan.room, plan.camera
    lamps = [plan.lights[i] for i in _on_the_screen(evaluation)]
    colours = [through_gel(lamp, camera.white_balance_k, camera.tint) for lamp in lamps]
    if colours and float(np.ptp(colours, axis=0).max()) > PALE:
        return "lamps"
    around = light_rgb(room.ambient_cct, 0.0, camera.white_balance_k, camera.tint)
    counts = screen is not None and room.ambient_lux > ROOM_COUNTS * screen.lux_mean
    if colours and counts and float(np.abs(around - colours[0]).max()) > PALE:
        return "sky" if room.kind == "exterior" else "room"
    return "clips" if evaluation.damage and evaluation.damage.mean.clipped > CLIPS else "returned"


@dataclass(frozen=True)
class _OneColour:
    """Lamps made white under a white balance: turned where they can be, else by a gel, which takes light."""

    changes: tuple[Change, ...]
    behind_gels: tuple[str, ...]
    stops: float

    def proposed(self, text: Sentence, cost: Sentence | None) -> Proposal:
        if not self.behind_gels:
            return Proposal(text, self.changes, cost)
        return Proposal(text, self.changes, tell("cost/gels", lamps=self.behind_gels, by=self.stops))


def _made_white(plan: Plan, indices: list[int], kelvin: float) -> _OneColour:
    changes: list[Change] = []
    gels, most = [], 0.0
    for i in indices:
        lamp = plan.lights[i]
        to = _turned(lamp, kelvin)
        light = burning(lamp, to, kelvin, plan.camera.tint)
        gel = whitening(light)
        if to != lamp.fixture.cct:
            changes.append(edit.lamp(i).cct(to))
        if gel != lamp.gel:
            changes.append(edit.lamp(i).gel(list(gel)))
        if gel != (1.0, 1.0, 1.0):
            gels.append(lamp.name)
            most = max(most, taken_stops(light, gel))
    if plan.camera.white_balance_k != kelvin:
        changes.append(edit.camera.white_balance_k(kelvin))
    return _OneColour(tuple(changes), tuple(gels), most)


def _turned(lamp: Light, kelvin: float) -> float:
    """As near to a colour temperature, K, as the lamp itself can be turned."""
    low, high = lamp.fixture.cct_range or (lamp.fixture.cct, lamp.fixture.cct)
    return min(max(kelvin, low), high)


def _one_colour(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """Every lamp that reaches the screen at the camera's white balance, or as others of them burn, and the
    camera with them, or the screen's lamps alike; daylight is followed by lamps and camera, or covered."""
    plan = evaluation.plan
    reach = _on_the_screen(evaluation)
    lit = [i for i in reach if not plan.lights[i].is_daylight]
    sky = [plan.lights[i].fixture.cct for i in reach if plan.lights[i].is_daylight]
    wanted = sky[0] if sky else plan.camera.white_balance_k
    found = []
    if any(plan.lights[i].fixture.cct_range for i in lit):
        found.append(_only_turned(plan, lit, wanted))
    if lit:
        every = _made_white(plan, lit, wanted)
        found.append(every.proposed(tell("do/all-kelvin", to=wanted), tell("cost/plate-colour")))
        found += [] if sky else _as_others_burn(evaluation, lit, wanted)
    screen = [i for i in lit if plan.lights[i].role == "screen"]
    if screen:
        found.append(_made_white(plan, screen, wanted).proposed(tell("do/screen-kelvin", to=wanted), None))
    for i in lit:
        if plan.lights[i].role == "key" and (_is_coloured(evaluation, i, wanted) or _counts(evaluation, i)):
            found += moves.gridded(i, plan.lights[i])
    return [*found, *_without_colour(evaluation, lit, wanted), *_room_dark(plan), *black_out(plan)]


def _as_others_burn(evaluation: Evaluation, lit: list[int], wanted: float) -> list[Proposal]:
    """All as the brightest lamp of another colour burns, and the camera with them."""
    plan = evaluation.plan
    colours = {i: STEP_K * round(plan.lights[i].fixture.cct / STEP_K) for i in lit}
    others = [i for i in lit if colours[i] != wanted]
    if not others:
        return []
    to = colours[max(others, key=lambda i: evaluation.screen_by_lamp[plan.lights[i].id])]
    text = tell("do/all-and-camera-kelvin", to=to)
    return [_made_white(plan, lit, to).proposed(text, tell("cost/plate-colour"))]


def _only_turned(plan: Plan, lit: list[int], wanted: float) -> Proposal:
    """What a hand at the lamps does, and nothing else."""
    turned = [(i, plan.lights[i]) for i in lit if plan.lights[i].fixture.cct_range]
    changes = tuple(edit.lamp(i).cct(_turned(lamp, wanted)) for i, lamp in turned)
    balance = (edit.camera.white_balance_k(wanted),) if plan.camera.white_balance_k != wanted else ()
    names = tuple(lamp.name for _, lamp in turned)
    return Proposal(tell("do/turn-kelvin", lamps=names, to=wanted), (*changes, *balance))


def _is_coloured(evaluation: Evaluation, index: int, wanted: float) -> bool:
    """Is a lamp's light of another colour than the camera takes for white at `wanted` K?"""
    plan = evaluation.plan
    return float(np.ptp(through_gel(plan.lights[index], wanted, plan.camera.tint))) > PALE


def _counts(evaluation: Evaluation, index: int) -> bool:
    """Does a lamp give the screen so much that to keep it off would change how even it is?"""
    by = evaluation.screen_by_lamp
    return by[evaluation.plan.lights[index].id] > LAMP_COUNTS * sum(by.values())


def _without_colour(evaluation: Evaluation, lit: list[int], wanted: float) -> list[Proposal]:
    """Lamps of another colour that are there for its sake, off: neither screen nor face needs them."""
    plan, found = evaluation.plan, []
    for i in lit:
        lamp = plan.lights[i]
        if lamp.role in ("other", "back") and _is_coloured(evaluation, i, wanted):
            off = (edit.lamp(i).on(False),)
            found.append(Proposal(tell("do/lamp-off", lamp=lamp.name), off, tell("cost/accent")))
    return found


def _room_dark(plan: Plan) -> list[Proposal]:
    if plan.room.kind != "interior" or plan.room.ambient_lux <= 0.0:
        return []
    return [Proposal(tell("do/room-dark"), (edit.room.ambient_lux(0.0),), tell("cost/light-missing"))]


RULE = Rule(
    id="light.mixed-colour",
    stage="light",
    measure="hue spread",
    why="Two colours of light make two greens, and one key setting fits only one of them.",
    judge=_mixed,
    propose=_one_colour,
    digits=1,
)
