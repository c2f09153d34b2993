"""What can this room shoot? Framing by lens: possible, tight or impossible, and what blocks it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from ...camera.coverage import Coverage, coverage_of
from ...camera.view import view_of
from ...kit import Kit, KitLens, KitScreen
from ...plan import Change, Framing, Plan, apply_changes, edit
from ...rig.rigging_sheet import HUNG
from ...sentences import Sentence, tell
from ...standards.limits import LIMITS
from ...standards.quantities import Metres
from ...standards.schools import DISTANCE
from .framing import FRAMINGS, NEAR_FACE, framing_changes, stand_for

BEHIND_CAMERA = 0.5
"""Room for whoever stands at the camera, m."""
LEAST_GAP = 0.8
BLOCK = Literal["", "depth", "width", "height", "screen", "lens"]


@dataclass(frozen=True)
class Cell:
    """One framing with one lens. `changes` set it up; empty where it is impossible."""

    framing: Framing
    lens: str
    focal_mm: float
    state: Literal["possible", "tight", "impossible"]
    blocks: BLOCK
    why: Sentence
    turned: bool
    gap: Metres | None
    camera_z: Metres | None
    screen: str | None
    margin_m: Metres | None
    changes: tuple[Change, ...]


def room_table(plan: Plan, kit: Kit) -> list[Cell]:
    """Every framing with every lens of the kit. Needs a figure in the plan."""
    if plan.subject is None:
        return []
    lenses = sorted(kit.lenses, key=lambda lens: lens.focal_mm)
    return [cell_of(plan, kit, framing, lens) for framing in FRAMINGS for lens in lenses if lens.count > 0]


def cell_of(plan: Plan, kit: Kit, framing: Framing, lens: KitLens) -> Cell:
    """The best way to shoot a framing with a lens: upright before turned, far before near."""
    tried = [_try(plan, kit, framing, lens, turned) for turned in (False, True)]
    order = {"possible": 0, "tight": 1, "impossible": 2}
    return min(tried, key=lambda cell: order[cell.state])


def gaps_for(plan: Plan) -> list[float]:
    """Distances mark to screen worth trying, the school's first, then closer ones."""
    wanted = DISTANCE.get(plan.targets.distance_school, 1.2)
    return [gap for gap in (wanted + 1.0, wanted + 0.5, wanted, 1.5, 1.2, 1.0, LEAST_GAP) if gap >= LEAST_GAP]


def _try(plan: Plan, kit: Kit, framing: Framing, lens: KitLens, turned: bool) -> Cell:
    stand = stand_for(plan, framing, lens.focal_mm, turned)
    deep = plan.room.z_max - BEHIND_CAMERA if plan.room.kind == "interior" else 90.0
    fitting = [gap for gap in gaps_for(plan) if gap + stand.distance <= deep]

    def impossible(blocks: BLOCK, why: Sentence) -> Cell:
        return Cell(framing, lens.name, lens.focal_mm, "impossible", blocks, why, turned, None, None, None, None, ())

    if not fitting:
        missing = LEAST_GAP + stand.distance - deep
        return impossible("depth", tell("room/too-short", missing=missing))
    best: tuple[float, Cell] | None = None
    why: tuple[BLOCK, Sentence] = ("screen", tell("room/no-screen"))
    for gap in fitting:
        for screen in _usable(plan, kit):
            x = _across(plan, screen)
            across = [] if x == plan.screen.x_centre else [edit.screen.x_centre(x)]
            hung_there = apply_changes(plan, across) if across else plan
            changes = [
                *across,
                *framing_changes(hung_there, framing, lens.focal_mm, turned, gap),
                edit.camera.widest(lens.f_number),
                *screen_changes(plan, screen, gap, framing),
            ]
            reason = _does_not_fit(plan, screen, framing)
            if reason is not None:
                why = reason
                continue
            changed = apply_changes(plan, changes)
            coverage = coverage_of(changed, view_of(changed.camera, changed.subject))
            if not coverage.covered or coverage.margin_m is None:
                why = _short_of(screen, coverage, changed)
                continue
            cell = _fitting(plan, framing, lens, turned, gap, stand.distance, screen, coverage.margin_m, changes)
            if cell.state == "possible":
                # Gaps come in order of preference: nothing that follows is better.
                return cell
            rank = -min(gap, 3.0)
            if best is None or rank < best[0]:
                best = (rank, cell)
    return impossible(*why) if best is None else best[1]


def _usable(plan: Plan, kit: Kit) -> list[KitScreen]:
    """The kit's screens of the wanted hue, the smallest first; where it has none, those that it has."""
    there = sorted((one for one in kit.screens if one.count > 0), key=lambda one: one.width * one.height)
    return [one for one in there if plan.screen.hue in ("other", one.hue)] or there


def screen_changes(plan: Plan, screen: KitScreen, gap: float, framing: Framing) -> list[Change]:
    """The kit's screen into the plan; its floor piece only where feet are seen."""
    subject = plan.subject
    assert subject is not None
    run = gap + subject.envelope.front + 0.3 if framing == "full" else 0.0
    height, floor_run = hung(plan, screen)
    return [
        edit.screen.hue(screen.hue),
        edit.screen.reflectance(list(screen.reflectance)),
        edit.screen.material(screen.material),
        edit.screen.width(screen.width),
        edit.screen.height(height),
        edit.screen.bottom(0.0),
        edit.screen.floor_run(round(min(run, floor_run), 2)),
        edit.screen.wing_left(0.0),
        edit.screen.wing_right(0.0),
        edit.screen.gloss(screen.gloss),
        edit.screen.transmittance(screen.transmittance),
        edit.screen.wrinkle_slope(screen.wrinkle_slope),
    ]


MIDDLE = 1.0 / 6.0
"""Of a room's width: a screen stays where it hangs if that is no further from the room's middle."""


def _across(plan: Plan, screen: KitScreen) -> float:
    """Where its middle hangs, m: where the plan's does, unless that leaves no room on a side."""
    room, x = plan.room, plan.screen.x_centre
    if room.kind == "exterior":
        return x
    middle, wide = (room.x_min + room.x_max) / 2.0, room.x_max - room.x_min
    if abs(x - middle) > MIDDLE * wide:
        return round(middle, 2)
    spare = max(0.0, (wide - screen.width) / 2.0)
    return x if abs(x - middle) <= spare else round(middle + math.copysign(spare, x - middle), 2)


UNDER_CEILING = 0.05
"""Between the upper edge and the ceiling, m."""


def hung(plan: Plan, screen: KitScreen) -> tuple[float, float]:
    """Height and longest floor run in m: a cloth or roll longer than the room is high hangs lower and runs on."""
    if plan.room.kind == "exterior" or screen.material not in HUNG:
        return screen.height, screen.floor_run
    # In whole centimetres, and never rounded up into the ceiling: rooms are measured in feet, too.
    most = math.floor(100.0 * (plan.room.height - UNDER_CEILING) + 1e-6) / 100.0
    height = max(0.1, min(screen.height, most))
    return height, screen.floor_run + screen.height - height


def _does_not_fit(plan: Plan, screen: KitScreen, framing: Framing) -> tuple[BLOCK, Sentence] | None:
    room = plan.room
    height, floor_run = hung(plan, screen)
    if room.kind == "interior" and height > room.height - UNDER_CEILING + 1e-9:
        return "height", tell("room/too-high", screen=screen.name, size=screen.height, room=room.height)
    if room.kind == "interior" and screen.width > room.x_max - room.x_min:
        across = room.x_max - room.x_min
        return "width", tell("room/too-wide", screen=screen.name, size=screen.width, room=across)
    if framing == "full" and floor_run <= 0.0:
        return "screen", tell("room/no-floor", screen=screen.name)
    return None


def _short_of(screen: KitScreen, coverage: Coverage, changed: Plan) -> tuple[BLOCK, Sentence]:
    """Which way the screen is too small, in its own words."""
    if coverage.needed is None:
        return "screen", tell("room/unseen")
    x0, _, x1, y1 = coverage.needed
    if y1 > changed.screen.bottom + changed.screen.height:
        return "screen", tell("room/short-height", needs=y1, screen=screen.name, has=changed.screen.height)
    if x1 - x0 > changed.screen.width:
        return "screen", tell("room/short-width", needs=x1 - x0, screen=screen.name, has=screen.width)
    return "screen", tell("room/short-floor", screen=screen.name, missing=-(coverage.margin_m or 0.0))


def _fitting(
    plan: Plan, framing: Framing, lens: KitLens, turned: bool, gap: float, distance: float, screen: KitScreen,
    margin: float, changes: list[Change],
) -> Cell:  # fmt: skip
    wanted = DISTANCE.get(plan.targets.distance_school, 1.0)
    worries = []
    if gap < wanted - 1e-9:
        worries.append(tell("room/near", gap=gap))
    if margin < LIMITS["screen.margin"].at:
        worries.append(tell("room/margin", margin=margin))
    if framing in ("face", "chest") and distance < NEAR_FACE:
        worries.append(tell("room/face", away=distance))
    state: Literal["possible", "tight"] = "tight" if worries else "possible"
    why = tell("room/fits", gap=gap, margin=margin)
    if worries:
        why = tell("room/tight", worries=tuple(worries))
    return Cell(
        framing, lens.name, lens.focal_mm, state, "", why, turned, gap, round(gap + distance, 2), screen.name,
        margin, tuple(changes),
    )  # fmt: skip
