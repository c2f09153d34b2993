"""The cloth itself and the lamps' colours on it: folds, gloss, mixed light, poor rendering."""

from __future__ import annotations

from ...damage.edges import CLIPS
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import Change, Light, Plan, edit
from ...sentences import tell
from ...standards.limits import LIMITS
from .. import moves
from ..rule import Judgement, Proposal, Rule
from ..steps import third_stop
from .daylight_rules import black_out

FOLDS, GLOSS, HUES, RENDERING = (
    LIMITS[f"light.{name}"] for name in ("wrinkles", "gloss", "mixed-colour", "rendering")
)


def _wrinkles(evaluation: Evaluation) -> Judgement | None:
    texture = evaluation.texture
    if texture is None:
        return None
    over = texture.wrinkle_percent - FOLDS.at
    says = tell("light.wrinkles", points=texture.wrinkle_percent)
    return Judgement(FOLDS.grade(over), texture.wrinkle_percent, FOLDS.at, "%", says, max(0.0, over))


def _smooth(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan = evaluation.plan
    slope = round(plan.screen.wrinkle_slope / 3.0, 4)
    wider = third_stop(plan.camera.f_number / 2.0**0.5)
    lamps = moves.screen_lamps(evaluation.plan)
    found = [Proposal(tell("do/steam"), (edit.screen.wrinkle_slope(slope),), tell("cost/time-before"))]
    if wider >= plan.camera.widest:
        changes = (edit.camera.f_number(wider), edit.camera.nd_stops(plan.camera.nd_stops + 1.0))
        found.append(Proposal(tell("do/aperture-nd", to=wider), changes, tell("cost/less-depth")))
    return [*found, *(moves.further_back(evaluation.plan, lamps) if lamps else [])]


def _gloss(evaluation: Evaluation) -> Judgement | None:
    if evaluation.texture is None or not evaluation.texture.highlights:
        return None
    spot = evaluation.texture.highlights[0]
    share = 100.0 * spot.added
    name = next((lamp.name for lamp in evaluation.plan.lights if lamp.id == spot.light), None)
    where = {"share": share, "across": spot.x, "high": spot.y}
    over = share - GLOSS.at
    if over <= 0.0:
        says = tell("light.gloss/none")
    elif spot.surface != "wall" and name:
        says = tell("light.gloss/on", lamp=name, share=share, surface=spot.surface)
    else:
        says = tell("light.gloss/shines", lamp=name, **where) if name else tell("light.gloss/somebody", **where)
    return Judgement(GLOSS.grade(over), share, GLOSS.at, "%", says, max(0.0, over))


def _matt(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    assert evaluation.texture is not None
    spot = evaluation.texture.highlights[0]
    found = [Proposal(tell("do/matt"), (edit.screen.gloss(0.005),), tell("cost/another-screen"))]
    for index, lamp in enumerate(evaluation.plan.lights):
        if lamp.id == spot.light:
            found += moves.turned_round(evaluation.plan, index, lamp, 20.0)
            found += moves.raised(evaluation.plan, index, lamp)
    lamps = moves.screen_lamps(evaluation.plan)
    return [*found, *(moves.aimed_across(evaluation.plan, lamps) if lamps else [])]


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


ALIKE, COLOURED = 150.0, 0.05
"""Lamps whose colour temperatures lie within this, K, are of one colour; a gel whose channels differ by more is
coloured."""
ROOM_COUNTS = 0.05
"""The room's own light may be of another colour where it is less than that share of the screen's."""


def _coloured(lamp: Light) -> bool:
    return max(lamp.gel) - min(lamp.gel) > COLOURED


def _on_the_screen(evaluation: Evaluation) -> list[int]:
    """Which lamps light it."""
    by, lights = evaluation.screen_by_lamp, evaluation.plan.lights
    return [i for i, lamp in enumerate(lights) if lamp.on and lamp.dimmer > 0.0 and by.get(lamp.id, 0.0) > 0.0]


def _why_mixed(evaluation: Evaluation) -> str:
    """By lamps of two colours or a gel, or the light of room or sky; where they are alike, by what clips of the
    screen, or by what the room returns."""
    plan, screen = evaluation.plan, evaluation.screen
    lamps = [plan.lights[i] for i in _on_the_screen(evaluation)]
    kelvin = [lamp.fixture.cct for lamp in lamps]
    if kelvin and (max(kelvin) - min(kelvin) > ALIKE or any(_coloured(lamp) for lamp in lamps)):
        return "lamps"
    counts = screen is not None and plan.room.ambient_lux > ROOM_COUNTS * screen.lux_mean
    if kelvin and counts and abs(plan.room.ambient_cct - kelvin[0]) > ALIKE:
        return "sky" if plan.room.kind == "exterior" else "room"
    return "clips" if evaluation.damage and evaluation.damage.mean.clipped > CLIPS else "returned"


def _one_colour(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """Every lamp that reaches the screen at the camera's white balance, or the screen's lamps alike; daylight is
    followed by lamps and camera, or covered."""
    plan = evaluation.plan
    reach = _on_the_screen(evaluation)
    lit = [i for i in reach if not plan.lights[i].is_daylight]
    sky = [plan.lights[i].fixture.cct for i in reach if plan.lights[i].is_daylight]
    wanted = sky[0] if sky else plan.camera.white_balance_k
    balance = (edit.camera.white_balance_k(wanted),) if sky and plan.camera.white_balance_k != wanted else ()

    def to_white(indices: list[int]) -> tuple[Change, ...]:
        bare = tuple(edit.lamp(i).gel([1.0, 1.0, 1.0]) for i in indices if _coloured(plan.lights[i]))
        white = (change for i in indices for change in (edit.lamp(i).cct(wanted), edit.lamp(i).duv(0.0)))
        return (*white, *bare, *balance)

    turned = [(i, plan.lights[i], held) for i in lit if (held := plan.lights[i].fixture.cct_range)]
    screen = [i for i in lit if plan.lights[i].role == "screen"]
    found = [Proposal(tell("do/all-kelvin", to=wanted), to_white(lit), tell("cost/plate-colour"))] if lit else []
    if turned:
        changes = tuple(edit.lamp(i).cct(min(max(wanted, low), high)) for i, _, (low, high) in turned)
        names = tuple(lamp.name for _, lamp, _ in turned)
        found.insert(0, Proposal(tell("do/turn-kelvin", lamps=names, to=wanted), (*changes, *balance)))
    if screen:
        found.append(Proposal(tell("do/screen-kelvin", to=wanted), to_white(screen)))
    for i in lit:
        if plan.lights[i].role == "key":
            found += moves.gridded(i, plan.lights[i])
    return [*found, *_without_colour(plan, lit, wanted), *_room_dark(plan), *black_out(plan)]


def _without_colour(plan: Plan, lit: list[int], wanted: float) -> list[Proposal]:
    """Lamps of another colour that are there for its sake, off: neither screen nor face needs them."""
    found = []
    for i in lit:
        lamp = plan.lights[i]
        if lamp.role in ("other", "back") and (_coloured(lamp) or abs(lamp.fixture.cct - wanted) > ALIKE):
            off = (edit.lamp(i).on(False),)
            found.append(Proposal(tell("do/lamp-off", lamp=lamp.name), off, tell("cost/accent")))
    return found


def _room_dark(plan: Plan) -> list[Proposal]:
    if plan.room.kind != "interior" or plan.room.ambient_lux <= 0.0:
        return []
    return [Proposal(tell("do/room-dark"), (edit.room.ambient_lux(0.0),), tell("cost/light-missing"))]


def _rendering(evaluation: Evaluation) -> Judgement | None:
    lamps = [lamp for lamp in evaluation.plan.lights if lamp.on and lamp.dimmer > 0.0]
    if not lamps:
        return None
    poor = min(lamps, key=lambda lamp: lamp.fixture.cri)
    short = RENDERING.at - poor.fixture.cri
    says = tell("light.rendering/well")
    if short > 0.0:
        says = tell("light.rendering/poor", lamp=poor.name, cri=poor.fixture.cri)
    return Judgement(RENDERING.grade(short), poor.fixture.cri, RENDERING.at, "", says, max(0.0, short))


def _better_lamp(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    poor = tuple(
        edit.lamp(i).on(False)
        for i, lamp in enumerate(evaluation.plan.lights)
        if lamp.on and lamp.fixture.cri < RENDERING.at
    )
    return [Proposal(tell("do/poor-off"), poor, tell("cost/light-missing"))] if poor else []


RULES = (
    Rule(
        id="light.wrinkles",
        stage="light",
        measure="folds",
        why="Light that grazes the cloth draws every fold as a line of another green.",
        judge=_wrinkles,
        propose=_smooth,
        digits=1,
    ),
    Rule(
        id="light.gloss",
        stage="light",
        measure="on top",
        why="A shine is white light on the screen: it thins the colour that the key is cut from.",
        judge=_gloss,
        propose=_matt,
        digits=0,
    ),
    Rule(
        id="light.mixed-colour",
        stage="light",
        measure="hue spread",
        why="Two colours of light make two greens, and one key setting fits only one of them.",
        judge=_mixed,
        propose=_one_colour,
        digits=1,
    ),
    Rule(
        id="light.rendering",
        stage="light",
        measure="colour rendering",
        why="Cheap discharge and LED lamps have spikes and gaps: what they do to a green is not in their colour "
        "temperature.",
        judge=_rendering,
        propose=_better_lamp,
        digits=0,
    ),
)
