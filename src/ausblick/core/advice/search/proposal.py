"""Propose a whole set-up: camera, mark, screen, lamps, exposure, with the evaluation as judge."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ...camera.coverage import coverage_of
from ...camera.exposure import stops
from ...camera.view import view_of
from ...evaluation.evaluate import evaluate
from ...evaluation.results import Evaluation
from ...kit import Kit, KitLens
from ...light.basis import BasisStore
from ...plan import Framing, Plan, apply_changes, edit
from ...sentences import Sentence, tell
from ...standards.limit import Severity
from ..rule import Judgement
from ..rule_set import RuleSet
from ..rules.kit_rules import rules_with
from ..rules.light_rules import wanted_lux
from ..steps import nominal_iso
from .dimming import dimmed, face_surplus
from .exposure_settings import MOST_ISO_STOPS, LightSurplus, Optics, exposure_changes, quicker_for, settings_for
from .key_leads import LEAST, key_leads, lower_iso, nearer_key, without_idle
from .lamp_roles import (
    LampRoles,
    lamp_roles_of,
    place_back,
    place_on_face,
    place_screen_lamps,
    stronger_key,
)
from .proposal_words import costs_of, is_near, other_hue, says_of, too_few
from .room_table import Cell, room_table
from .window_behind import blacked_out, with_second_cloth

GOOD_DISTANCE = 4.0
"""Lens to mark where faces look as one knows them and focus still has depth, m."""


@dataclass(frozen=True)
class SetupProposal:
    """A whole plan, what it is in a sentence, what it costs, and what still stops it (empty: nothing)."""

    name: str
    says: Sentence
    costs: tuple[Sentence, ...]
    stops: tuple[Sentence, ...]
    plan: Plan
    evaluation: Evaluation


@dataclass(frozen=True)
class SetupProposals:
    """Alternatives, best first; `impossible` says why there are none and what would help."""

    alternatives: tuple[SetupProposal, ...]
    impossible: tuple[Sentence, ...]


def propose(plan: Plan, kit: Kit, framing: Framing, store: BasisStore) -> SetupProposals:
    """Up to three set-ups for a framing. The plan gives room, subject, plate, schools and medium.

    The same plan and kit give the same proposals: nothing is drawn by lot.
    """
    if plan.subject is None:
        return SetupProposals((), (tell("set-up/no-figure"),))
    cells = [cell for cell in room_table(plan, kit) if cell.framing == framing]
    usable = [cell for cell in cells if cell.state != "impossible"]
    if not usable:
        return SetupProposals((), (*_why_not(cells, kit), *_instead(room_table(plan, kit))))
    if not any(lamp.count for lamp in kit.lamps) and plan.room.ambient_lux <= 0.0:
        return SetupProposals((), (tell("set-up/no-lamp"),))
    lenses = {lens.name: lens for lens in kit.lenses}
    rules = rules_with(kit)
    made = [_build(plan, kit, cell, name, lenses[cell.lens], store, rules) for name, cell in _choices(usable)]
    made.sort(key=lambda proposal: _badness(rules.judge(proposal.evaluation)))
    # Where no lamp finds a place nothing is proposed that has another way.
    lit = [one for one in made if one.evaluation.screen is not None and one.evaluation.screen.lux_mean > 0.0]
    return SetupProposals(tuple(lit or made), ())


def _why_not(cells: list[Cell], kit: Kit) -> tuple[Sentence, ...]:
    if not kit.lenses:
        return (tell("set-up/no-lens"),)
    if not kit.screens:
        return (tell("set-up/no-screen"),)
    return (*(tell("set-up/cell", lens=cell.lens, why=cell.why) for cell in cells), *_would_help(cells))


FRAMINGS_TOLD = 3


def _instead(cells: list[Cell]) -> list[Sentence]:
    """Other framings that this room does with this kit, each by the lens and from where it is usual."""
    usual: dict[str, Cell] = {}
    for cell in sorted((c for c in cells if c.state != "impossible"), key=_from_usual):
        usual.setdefault(cell.framing, cell)
    told = [
        tell("set-up/framing", framing=cell.framing, lens=cell.lens, away=(cell.camera_z or 0.0) - (cell.gap or 0.0))
        for cell in list(usual.values())[:FRAMINGS_TOLD]
    ]
    return [tell("set-up/instead", framings=tuple(told))] if told else []


def _from_usual(cell: Cell) -> float:
    return abs((cell.camera_z or 0.0) - (cell.gap or 0.0) - GOOD_DISTANCE)


def _would_help(cells: list[Cell]) -> list[Sentence]:
    """What would make a framing possible, read off what blocks it."""
    blocks, found = {cell.blocks for cell in cells}, []
    if "depth" in blocks:
        found.append(tell("set-up/deeper"))
    if "screen" in blocks:
        found.append(tell("set-up/larger"))
    if blocks & {"height", "width"}:
        found.append(tell("set-up/fitting"))
    return found


def _choices(cells: list[Cell]) -> list[tuple[str, Cell]]:
    """Up to three cells that differ: the usual distance, the most room to the screen, the longest lens."""

    def worry(cell: Cell) -> int:
        return 0 if cell.state == "possible" else 1

    distance = _from_usual

    wanted = [
        ("Natural perspective", min(cells, key=lambda c: (worry(c), distance(c), c.focal_mm))),
        ("Most distance to the screen", min(cells, key=lambda c: (worry(c), -(c.gap or 0.0), distance(c)))),
        ("Longest lens, least screen", min(cells, key=lambda c: (worry(c), -c.focal_mm))),
    ]
    wanted += [
        ("Camera nearer, wider lens", min(cells, key=lambda c: (worry(c), c.camera_z or 0.0))),
        ("Between the two", sorted(cells, key=lambda c: (worry(c), distance(c)))[min(1, len(cells) - 1)]),
    ]
    chosen: list[tuple[str, Cell]] = []
    for name, cell in wanted:
        if all(cell is not other for _, other in chosen):
            chosen.append((name, cell))
    return chosen[:3]


def _build(
    plan: Plan, kit: Kit, cell: Cell, name: str, lens: KitLens, store: BasisStore, rules: RuleSet
) -> SetupProposal:
    camera = kit.cameras[0] if kit.cameras else None
    changes = list(cell.changes)
    if camera is not None:
        changes.append(edit.camera.recording(camera.recording.model_dump(mode="json")))
    bare, hung = with_second_cloth(apply_changes(plan, changes))
    team, optics = lamp_roles_of(kit), Optics(lens)
    set_up, missing = _lit(bare, optics, team, store, rules)
    if hung is not None and rules.judge(evaluate(set_up, store))["light.behind"].severity != "fine":
        bare, hung = blacked_out(bare)
        set_up, missing = _lit(bare, optics, team, store, rules)
    set_up, missing, quicker = _quick_enough((set_up, missing), bare, optics, team, store, rules)
    evaluation = evaluate(set_up, store)
    judged = rules.judge(evaluation)
    return SetupProposal(
        name=name,
        says=says_of(set_up, cell, team),
        costs=(
            *other_hue(plan, set_up),
            *([hung] if hung is not None else []),
            *quicker,
            *costs_of(evaluation, judged, cell, missing),
            *too_few(judged, team),
        ),
        stops=tuple(j.says for j in judged.values() if j.severity == "stop"),
        plan=set_up,
        evaluation=evaluation,
    )


def _lit(plan: Plan, optics: Optics, team: LampRoles, store: BasisStore, rules: RuleSet) -> tuple[Plan, float]:
    return _by_ambient(plan, optics, store) or _by_best(plan, optics, team, store, rules)


def _quick_enough(
    usual: tuple[Plan, float], bare: Plan, optics: Optics, team: LampRoles, store: BasisStore, rules: RuleSet
) -> tuple[Plan, float, tuple[Sentence, ...]]:
    """Where the school's shutter loses the moving hand, with one that does not if less is wrong then, and said so."""
    evaluation = evaluate(usual[0], store)
    judged = rules.judge(evaluation)
    shutter = quicker_for(evaluation) if _severity(judged, "key.motion") == "stop" else None
    if shutter is None:
        return *usual, ()
    quick, missing = _lit(bare, replace(optics, shutter_s=shutter), team, store, rules)
    if _badness(rules.judge(evaluate(quick, store))) >= _badness(judged):
        return *usual, ()
    was = usual[0].camera.shutter_s
    if bare.medium == "stills":
        return quick, missing, (tell("set-up/quicker/stills", shutter=shutter, was=was),)
    return quick, missing, (tell("set-up/quicker", shutter=shutter, was=was),)


def _severity(judged: dict[str, Judgement], rule_id: str) -> Severity:
    return judged[rule_id].severity if rule_id in judged else "fine"


def _by_ambient(plan: Plan, optics: Optics, store: BasisStore) -> tuple[Plan, float] | None:
    """No lamps at all where the light that is there does it: outdoors, a window front."""
    if plan.room.ambient_lux <= 0.0:
        return None
    bare = _settings(apply_changes(plan, [edit.lights([])]), optics, store)
    surplus = face_surplus(evaluate(bare, store))
    if surplus is None or surplus < -1.0:
        return None
    changes, missing = exposure_changes(bare, optics.lens, LightSurplus(None, surplus), reserve=0.0)
    return apply_changes(bare, changes), missing


def _by_best(plan: Plan, optics: Optics, team: LampRoles, store: BasisStore, rules: RuleSet) -> tuple[Plan, float]:
    """With the usual roles; where the key has too little while the screen's lamps have plenty, with the strongest of
    those for a key if that is the better set."""
    usual = _by_team(plan, optics, team, store, rules)
    other = stronger_key(team)
    if other is None or not _key_is_short(usual[0]):
        return usual

    def worth(found: tuple[Plan, float]) -> tuple[float, float]:
        iso = stops(found[0].camera.iso / found[0].camera.sensor.base_iso)
        idle = sum(lamp.dimmer <= 1.2 * LEAST for lamp in found[0].lights)
        return _badness(rules.judge(evaluate(found[0], store))) + ISO_COUNTS * iso + IDLE_COUNTS * idle, found[1]

    return min(usual, _by_team(plan, optics, other, store, rules), key=worth)


def _by_team(plan: Plan, optics: Optics, team: LampRoles, store: BasisStore, rules: RuleSet) -> tuple[Plan, float]:
    """Where a near mark leaves the screen's lamps so little room behind it that something stops the set, with those
    before it if nothing does then."""
    behind = _by_lamps(plan, optics, team, store)
    if not is_near(plan) or not _stopped(behind[0], store, rules):
        return behind
    before = _by_lamps(plan, optics, team, store, before=True)
    return behind if _stopped(before[0], store, rules) else before


def _stopped(plan: Plan, store: BasisStore, rules: RuleSet) -> bool:
    return any(one.severity == "stop" for one in rules.judge(evaluate(plan, store)).values())


ISO_COUNTS, IDLE_COUNTS = 5.0, 10.0
"""A stop of ISO beside what is found: half a thing to mend; a lamp that is all but off: one."""


def _key_is_short(plan: Plan) -> bool:
    """Does the key burn higher than half, and no lamp of the screen?"""
    burning = {role: [lamp.dimmer for lamp in plan.lights if lamp.role == role] for role in ("key", "screen")}
    return bool(burning["key"] and burning["screen"]) and max(burning["screen"]) < 0.5 < min(burning["key"])


def _by_lamps(
    plan: Plan, optics: Optics, team: LampRoles, store: BasisStore, before: bool = False
) -> tuple[Plan, float]:
    """Lamps placed, exposure set, dimmers solved; what the key's spill took away is won back once or twice."""
    lit = _settings(apply_changes(plan, [edit.lights(_lights(plan, team, before))]), optics, store)
    lit, missing = _expose(lit, optics, store)
    lit = dimmed(lit, store)
    for _ in range(3):
        result = evaluate(lit, store)
        short = 0.0 if result.screen is None else stops(wanted_lux(result) / max(result.screen.lux_mean, 1e-6))
        short = max(short, _face_short(result))
        if not 0.08 < short < 4.0:
            break
        changes, missing = exposure_changes(lit, optics.lens, LightSurplus(-short, None), reserve=3.0)
        base = lit.camera.sensor.base_iso
        raised = next(change.value for change in changes if change.path == "camera.iso") / base
        iso = min(lit.camera.iso * raised, base * 2.0**MOST_ISO_STOPS)
        lit = apply_changes(lit, [*changes, edit.camera.iso(nominal_iso(iso, base))])
        lit = dimmed(lit, store)
        if iso >= base * 2.0**MOST_ISO_STOPS:
            break
    lit = key_leads(lit, store)
    iso = lower_iso(lit)
    if iso is not None:
        lit = key_leads(dimmed(apply_changes(lit, [edit.camera.iso(iso)]), store), store)
    nearer = nearer_key(lit, view_of(lit.camera, lit.subject))
    if nearer is not None:
        lit = key_leads(dimmed(nearer, store), store)
    lit = without_idle(lit)
    return lit, max(missing, _screen_short(evaluate(lit, store)))


def _face_short(evaluation: Evaluation) -> float:
    """Stops that the face lacks while its key gives all it has; 0 where the key has some left."""
    keys = [lamp for lamp in evaluation.plan.lights if lamp.role == "key"]
    surplus = face_surplus(evaluation)
    if surplus is None or not keys or keys[0].dimmer < 0.99:
        return 0.0
    return max(0.0, -surplus)


def _screen_short(evaluation: Evaluation) -> float:
    """Stops of light that the screen is still short of its school's level."""
    if evaluation.screen is None or evaluation.screen.lux_mean <= 0.0:
        return 0.0
    short = stops(wanted_lux(evaluation) / evaluation.screen.lux_mean)
    return short if short > 0.2 else 0.0


def _lights(plan: Plan, team: LampRoles, before: bool) -> list[object]:
    view = view_of(plan.camera, plan.subject)
    lights: list[object] = [*place_screen_lamps(plan, view, coverage_of(plan, view), team.screen, before)]
    azimuth = max(-75.0, min(75.0, plan.plate.key_azimuth))
    elevation = max(10.0, min(50.0, plan.plate.key_elevation))
    if team.key is not None:
        lights.append(place_on_face(plan, view, team.key, "key", azimuth, elevation))
    if team.fill is not None:
        lights.append(place_on_face(plan, view, team.fill, "fill", -0.8 * azimuth or 40.0, 8.0))
    if team.back is not None:
        lights.append(place_back(plan, view, team.back))
    return [light for light in lights if light is not None]


def _settings(plan: Plan, optics: Optics, store: BasisStore) -> Plan:
    return apply_changes(plan, settings_for(evaluate(plan, store), optics))


def _expose(plan: Plan, optics: Optics, store: BasisStore) -> tuple[Plan, float]:
    """Aperture and ISO for the light that the lamps give at full power; what is missing in stops."""
    full = evaluate(plan, store)
    screen = full.screen
    has_screen = screen is not None and screen.lux_mean > 0.0
    light = LightSurplus(
        screen=stops(screen.lux_mean / wanted_lux(full)) if screen is not None and has_screen else None,
        face=face_surplus(full),
    )
    changes, missing = exposure_changes(plan, optics.lens, light, reserve=3.0)
    return apply_changes(plan, changes), missing


def _badness(judged: dict[str, Judgement]) -> float:
    weight = {"stop": 100.0, "fix": 10.0, "consider": 1.0, "fine": 0.0}
    return sum(weight[judgement.severity] for judgement in judged.values())
