"""Screen, floor piece and black cloth changed, and the screen's lamps dimmed as one."""

from __future__ import annotations

import math

from ...evaluation.results import Evaluation
from ...plan import Plan, Subject, edit
from ...sentences import tell
from ..rule import Proposal

FLAG_HIGH, FLAG_FROM, FLAG_BEYOND, FLAG_ASIDE = 2.4, 0.4, 0.8, 0.5
"""Black cloth on a frame: as high as a usual frame, from just before the screen to beyond the mark, beside the
action, m."""
SPARE = 0.25
"""Screen left round what the action needs, m: a hand's breadth and a bit."""
BLACK = [0.03, 0.03, 0.03]
DARK_FLOOR = [0.04, 0.04, 0.04]


def smaller_screen(evaluation: Evaluation) -> list[Proposal]:
    """The screen cut to what the action needs and a hand's breadth round it."""
    needed, screen = evaluation.coverage.needed, evaluation.plan.screen
    if needed is None:
        return []
    left, right = needed[0] - SPARE, needed[2] + SPARE
    high = needed[3] + SPARE - screen.bottom
    width, height = round(right - left, 2), round(min(screen.height, max(0.3, high)), 2)
    if width * height > 0.9 * screen.width * screen.height or width > screen.width:
        return []
    changes = (
        edit.screen.x_centre(round((left + right) / 2.0, 2)),
        edit.screen.width(width),
        edit.screen.height(height),
    )
    return [Proposal(tell("do/smaller-screen", to=(width, height)), changes, tell("cost/gesture"))]


def less_floor(evaluation: Evaluation) -> list[Proposal]:
    """The floor piece ended behind the feet, or taken away where no feet are seen."""
    plan = evaluation.plan
    screen, subject = plan.screen, plan.subject
    if screen.floor_run <= 0.0 or subject is None:
        return []
    if not subject.feet_seen:
        return [Proposal(tell("do/no-floor"), (edit.screen.floor_run(0.0),))]
    behind = round(max(0.5, subject.z + 0.1), 2)
    if screen.floor_run <= behind + 0.05:
        return []
    text = tell("do/less-floor", to=behind)
    return [Proposal(text, (edit.screen.floor_run(behind),), tell("cost/feet"))]


def black_cloth(evaluation: Evaluation, surface: str) -> list[Proposal]:
    """Black cloth before the surface that sends the colour."""
    plan, subject = evaluation.plan, evaluation.plan.subject
    if subject is None:
        return []
    if surface == "floor":
        dark = (edit.room.floor(DARK_FLOOR),)
        return [Proposal(tell("do/black-floor"), dark, tell("cost/slip"))]
    sides = {"left wall": -1.0, "right wall": 1.0}
    if surface not in sides:
        return []
    side = surface.removesuffix(" wall")
    first, second = _free_ids(plan)
    one = _flag(plan, subject, sides[surface], first)
    both = [_flag(plan, subject, -1.0, first), _flag(plan, subject, 1.0, second)]
    near, far = _flag_reach(subject)
    size = {"long": far - near, "high": FLAG_HIGH}
    present = [flag.model_dump(mode="json") for flag in plan.flags]
    return [
        Proposal(tell(f"do/black-{side}", **size), (edit.flags([*present, one]),), tell("cost/frame")),
        Proposal(tell(f"do/black-{side}-both", **size), (edit.flags([*present, *both]),), tell("cost/frames")),
    ]


def _flag_reach(subject: Subject) -> tuple[float, float]:
    """From just before the screen to beyond the mark: it hides the wall and the screen's own edge."""
    return FLAG_FROM, round(2.0 * (subject.z + FLAG_BEYOND)) / 2.0


def _free_ids(plan: Plan) -> tuple[str, str]:
    taken = {flag.id for flag in plan.flags}
    first, second = [name for n in range(1, 130) if (name := f"f{n}") not in taken][:2]
    return first, second


def _flag(plan: Plan, subject: Subject, side: float, ident: str) -> dict[str, object]:
    """A frame of black cloth beside the mark, in half-metre steps so that small moves keep it in place."""
    reach = subject.envelope.left if side < 0.0 else subject.envelope.right
    x = subject.x + side * (math.ceil(2.0 * (reach + FLAG_ASIDE)) / 2.0)
    if plan.room.kind == "interior":
        x = min(max(x, plan.room.x_min + 0.05), plan.room.x_max - 0.05)
    z0, z1 = _flag_reach(subject)
    high = min(FLAG_HIGH, plan.room.height)
    corners = [[x, 0.0, z0], [x, high, z0], [x, high, z1], [x, 0.0, z1]]
    return {"id": ident, "corners": corners, "reflectance": BLACK}


def dimmed_screen(evaluation: Evaluation, factor: float = 0.7) -> list[Proposal]:
    lamps = [(i, lamp) for i, lamp in enumerate(evaluation.plan.lights) if lamp.role == "screen" and lamp.on]
    if not lamps:
        return []
    changes = tuple(edit.lamp(i).dimmer(round(lamp.dimmer * factor, 3)) for i, lamp in lamps)
    top = max(lamp.dimmer for _, lamp in lamps)
    text = tell("do/screen-lamps-down", by=-math.log2(factor), to=100.0 * factor * top)
    return [Proposal(text, changes, tell("cost/noisier-screen"))]


def dulled_metal(evaluation: Evaluation) -> list[Proposal]:
    """All metal that is held made dull, which shows the screen no longer."""
    subject = evaluation.plan.subject
    metal = [] if subject is None else [prop for prop in subject.props if prop.kind == "metal"]
    if subject is None or not metal:
        return []
    # It keeps the shape that it was drawn with: a dull thing without one is another.
    dull = [
        prop.model_copy(update={"kind": "matt", "shape": prop.formed} if prop in metal else {}).model_dump(
            mode="json"
        )
        for prop in subject.props
    ]
    text = tell("do/dulled", names=tuple(prop.name for prop in metal))
    return [Proposal(text, (edit.subject.props(dull),), tell("cost/dulled"))]
