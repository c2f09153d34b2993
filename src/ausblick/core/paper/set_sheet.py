"""The set sheet: from what somebody builds the set by hand, in tables of words. Drawn by formats/paper."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..advice.rule import Finding
from ..advice.verdict import verdict_told
from ..diagnosis.checklists import items_of
from ..evaluation.results import Evaluation
from ..light.gels import converted_to
from ..plan import Light, Modifier, Plan
from ..rig.circuits import loads
from ..rig.rigging_sheet import rigging_sheet
from ..sentences import Units, digits, length, say, shutter, size
from .set_drawing import SetView, set_views, standing
from .tape import from_middle, from_wall, place

Row = tuple[str, ...]
MOST_TOLD = 6
SAFETY = "Cautions, not instructions: local codes and licensed people decide on rigging, mains, ladders and fog."


@dataclass(frozen=True)
class Table:
    """`heads` empty: rows of a name and what it is."""

    name: str
    heads: Row
    rows: tuple[Row, ...]


@dataclass(frozen=True)
class SetSheet:
    """`told`: the worst open findings; `before`, `after`: lists to tick; `note` stands under the cautions."""

    title: str
    verdict: str
    told: tuple[str, ...]
    views: tuple[SetView, SetView]
    stands: Table
    facts: tuple[Table, ...]
    cautions: tuple[str, ...]
    note: str
    before: tuple[str, ...]
    after: tuple[str, ...]


def set_sheet(evaluation: Evaluation, findings: Sequence[Finding], units: Units = "m") -> SetSheet:
    """Everything on it follows from the evaluation and its findings, worst first."""
    plan = evaluation.plan
    told = [f for f in findings if f.judgement.severity in ("stop", "fix")]
    items = items_of(evaluation, list(findings), None, [])
    return SetSheet(
        title=plan.title,
        verdict=say(verdict_told(findings), units),
        told=tuple(say(f.judgement.says, units) for f in told[:MOST_TOLD]),
        views=set_views(evaluation, units),
        stands=_stands(plan, units),
        facts=(
            _camera(evaluation, units),
            _screen(plan, units),
            _levels(evaluation),
            *([_circuits(plan)] if any(load.watts for load in loads(plan)) else []),
        ),
        cautions=tuple(c.says for c in rigging_sheet(plan).cautions) + _warm(findings, units),
        note=SAFETY,
        before=tuple(item.text for item in items if item.when == "before" and item.id != "plan-stops"),
        after=tuple(item.text for item in items if item.when == "after"),
    )


STANDS = (
    "",
    "Lamp",
    "From screen",
    "From middle",
    "From wall",
    "Height",
    "Aim",
    "Dim",
    "Colour",
    "Modifier",
    "Mains",
)


def _stands(plan: Plan, units: Units) -> Table:
    rows: list[Row] = []
    for number, lamp in standing(plan):
        x, y, z = lamp.position
        aim_x, aim_y, aim_z = lamp.aim
        rows.append(
            (
                str(number),
                f"{lamp.name} ({lamp.role})",
                length(z, units),
                from_middle(x, plan, units),
                from_wall(x, plan, units),
                length(y, units),
                f"{length(aim_y, units)} high, {place(aim_x, aim_z, plan, units)}",
                f"{digits(100.0 * lamp.dimmer, 0)} %" if lamp.on else "off",
                _colour(lamp),
                " + ".join(modifier_words(one, units) for one in lamp.modifiers) or "–",
                lamp.circuit,
            )
        )
    rows += [
        ("", lamp.name, "the sun" if lamp.fixture.emitter.shape == "sun" else "a window", *[""] * 8)
        for lamp in plan.lights
        if lamp.is_daylight
    ]
    return Table("Stands", STANDS, tuple(rows))


def _colour(lamp: Light) -> str:
    kelvin = f"{digits(lamp.fixture.cct, 0)} K"
    if all(part > 0.999 for part in lamp.gel):
        return kelvin
    to = converted_to(lamp)
    return f"{kelvin} + coloured gel" if to is None else f"{kelvin}, gel to {digits(to, 0)} K"


def modifier_words(modifier: Modifier, units: Units) -> str:
    """What is before the lamp, as somebody would ask for it."""
    words = {"softbox": "soft box"}.get(modifier.kind, modifier.kind)
    if modifier.kind == "grid" and modifier.deg:
        return f"grid {digits(modifier.deg, 0)}°"
    if modifier.kind in ("softbox", "diffusion") and modifier.width and modifier.height:
        return f"{words} {size(modifier.width, modifier.height, units)}"
    if modifier.kind == "umbrella" and modifier.width:
        return f"{words} {length(modifier.width, units)}"
    return words


def _camera(e: Evaluation, units: Units) -> Table:
    camera = e.plan.camera
    rows = [
        ("Lens at", f"{length(camera.y, units)} high, {place(camera.x, camera.z, e.plan, units)}"),
        ("To the mark", length(e.focus.distance_m, units) if e.focus else "–"),
        ("Pan, tilt", f"{digits(camera.pan, 1)}°, {digits(camera.tilt, 1)}°"),
        ("Focal length", f"{digits(camera.focal_mm, 1)} mm on {digits(camera.sensor.width_mm, 1)} mm"),
        ("Aperture, ISO", f"f/{digits(camera.f_number, 1)}, ISO {digits(camera.iso, 0)}"),
        ("Shutter", f"{shutter(camera.shutter_s)} at {digits(camera.fps, 2)} fps"),
        ("White balance", f"{digits(camera.white_balance_k, 0)} K, locked"),
        ("Recording", f"{camera.recording.codec} {camera.recording.chroma}, {camera.recording.bits} bit"),
    ]
    if e.focus:
        far = "∞" if e.focus.far_m == float("inf") else length(e.focus.far_m, units)
        rows.insert(2, ("Sharp", f"{length(e.focus.near_m, units)} to {far}"))
    return Table("Camera", (), tuple(rows))


def _screen(plan: Plan, units: Units) -> Table:
    screen, rig = plan.screen, rigging_sheet(plan)
    rows = [
        ("Screen", f"{screen.hue} {screen.material}, {size(screen.width, screen.height, units)}"),
        ("Lower edge", f"{length(screen.bottom, units)} above the floor" if screen.bottom else "on the floor"),
    ]
    if screen.floor_run:
        rows.append(
            ("On the floor", f"{length(screen.floor_run, units)}, curve {length(screen.curve_radius, units)}")
        )
    if plan.subject is not None:
        rows.append(("Mark", place(plan.subject.x, plan.subject.z, plan, units)))
        rows += [(f"Mark, {one.name}", place(one.x, one.z, plan, units)) for one in plan.companions]
    if rig.stands:
        rows.append(("Stands", f"{rig.stands}, {digits(rig.ballast_kg, 0)} kg on each"))
    if rig.clamps:
        rows.append(("Clamps", str(rig.clamps)))
    if rig.steaming_min:
        rows.append(("Steaming", f"{digits(rig.steaming_min, 0)} min"))
    rows.append(("Hands", f"{rig.people} to rig"))
    return Table("Screen and rigging", (), tuple(rows))


def _levels(e: Evaluation) -> Table:
    rows: list[Row] = []
    if e.screen is not None:
        s, t = e.screen, e.target
        level = s.level_luma if t.trace == "luma" else s.level_key_channel
        rows += [
            ("Light on the screen", f"{digits(s.lux_mean, 0)} lx ({digits(s.lux_min, 0)} to {digits(s.lux_max, 0)})"),
            ("Screen reads", f"{digits(level, 0)} % {t.trace.replace('-', ' ')}"),
            ("Wanted", f"{digits(t.low, 0)} to {digits(t.high, 0)} %"),
            ("Evenness", f"{digits(s.spread_stops, 2)} stops"),
        ]
    if e.exposure.subject_lux is not None:
        rows.append(("Light on the face", f"{digits(e.exposure.subject_lux, 0)} lx"))
    if e.exposure.subject_level is not None:
        rows.append(("Skin reads", f"{digits(e.exposure.subject_level, 0)} %"))
    if (damage := e.worst_damage) is not None:
        rows.append(("Key, predicted", f"{digits(damage.kinder.quality, 0)} of 100"))
    return Table("Levels to expect", (), tuple(rows))


def _circuits(plan: Plan) -> Table:
    rows = tuple(
        (
            load.circuit,
            f"{digits(load.watts, 0)} W, {digits(load.amps, 1)} A"
            + (f" of {digits(load.rated_amps, 0)}" if load.rated_amps else ""),
        )
        for load in loads(plan)
        if load.watts
    )
    return Table("Mains", (), rows)


def _warm(findings: Sequence[Finding], units: Units) -> tuple[str, ...]:
    """What the safety rules find, as they say it."""
    return tuple(
        say(f.judgement.says, units)
        for f in findings
        if f.rule.id in ("light.heat", "light.overhead", "light.power", "camera.flashing")
        and f.judgement.severity != "fine"
    )
