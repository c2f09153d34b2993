"""One more lamp into a set: what the set still lacks, in a place of its own, mirrored to its partner, under its own
name. And what of the kit's lamps is still free."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from ..advice.search.lamp_roles import as_light, inside, place_back, place_on_face, place_screen_lamps
from ..camera.coverage import coverage_of
from ..camera.view import view_of
from ..kit import Kit
from ..kit.kit_document import KitLamp
from ..plan import Fixture, Light, Plan, PlanError
from ..plan.document import MOST_LAMPS
from ..plan.lamps import WINDOW_LUMINANCE, WindowEmitter
from .answers_given import LampSaid
from .kit_of_said import lamp_of_said
from .presets import WINDOW_CCT

Spot = tuple[float, float, float]
APART = 0.35
"""Two stands need this much between them, m."""


@dataclass(frozen=True)
class FreeLamp:
    """A lamp of the kit: how many there are, and how many the plan does not use yet."""

    name: str
    count: int
    free: int


def free_lamps(plan: Plan, kit: Kit) -> tuple[FreeLamp, ...]:
    """A lamp of the plan is the kit's that its fixture is."""
    used = [lamp.fixture for lamp in plan.lights]
    return tuple(FreeLamp(lamp.name, lamp.count, max(0, lamp.count - used.count(lamp.fixture))) for lamp in kit.lamps)


def one_more_lamp(plan: Plan, said: LampSaid, kit: Kit) -> Light:
    """The lamp where the set lacks one most: the screen's first two, then key, fill, back.

    Raises PlanError for a lamp that the kit does not have, or where a plan holds no more lamps.
    """
    if len(plan.lights) >= MOST_LAMPS:
        raise PlanError("lights", f"a plan holds at most {MOST_LAMPS} lamps")
    if said.kind == "window":
        return window_in(plan)
    lamp = lamp_of_said(said, kit)
    light = _placed(plan, lamp)
    x, y, z = _apart(plan, light["position"])
    place = {"position": (round(x, 2), round(y, 2), round(z, 2))}
    return Light.model_validate(light | named(plan, lamp.name) | place)


def named(plan: Plan, name: str) -> dict[str, str]:
    """An id and a name that no lamp of the plan has yet."""
    names, ids = {one.name for one in plan.lights}, {one.id for one in plan.lights}
    own = name if name not in names else next(f"{name} {n}" for n in range(2, 99) if f"{name} {n}" not in names)
    return {"id": next(f"l{n}" for n in range(1, len(ids) + 2) if f"l{n}" not in ids), "name": own}


WINDOW_SILL = 0.9
"""Usual height of a window's sill, m."""


def window_in(plan: Plan) -> Light:
    """A window in the right wall beside the mark, its usual size and sky; where it really is, hands put it.

    Raises PlanError outdoors, where a sun and ambient light are the daylight.
    """
    room = plan.room
    if room.kind == "exterior":
        raise PlanError("lights", "a window is of a room, and this set is outdoors")
    emitter = WindowEmitter()
    y = min(WINDOW_SILL + emitter.height / 2.0, room.height - emitter.height / 2.0)
    z = plan.subject.z if plan.subject is not None else 0.5 * room.z_max
    fixture = Fixture(
        emitter=emitter, luminance=WINDOW_LUMINANCE, cct=WINDOW_CCT, cri=100.0, watts=0.0, flicker="free"
    )
    where = {"position": (room.x_max, round(y, 2), z), "aim": (room.x_max - 1.0, round(y, 2), z)}
    return Light.model_validate({"role": "other", "fixture": fixture, **where, **named(plan, "window")})


def _placed(plan: Plan, lamp: KitLamp) -> dict[str, Any]:
    """As an entry of the plan document."""
    by_role = {role: [one for one in plan.lights if one.role == role] for role in ("screen", "key", "fill", "back")}
    screen = by_role["screen"]
    if len(screen) == 1:
        return _mirrored(plan, lamp, screen[0])
    view = view_of(plan.camera, plan.subject)
    light: dict[str, Any] | None = None
    if not screen:
        # As the left one of a pair: its partner comes on the other side.
        light = next(iter(place_screen_lamps(plan, view, coverage_of(plan, view), (lamp, lamp))), None)
    elif plan.subject is not None:
        azimuth = max(-75.0, min(75.0, plan.plate.key_azimuth))
        if not by_role["key"]:
            light = place_on_face(plan, view, lamp, "key", azimuth, max(10.0, min(50.0, plan.plate.key_elevation)))
        elif not by_role["fill"]:
            light = place_on_face(plan, view, lamp, "fill", -0.8 * azimuth or 40.0, 8.0)
        elif not by_role["back"]:
            light = place_back(plan, view, lamp)
    if light is not None:
        return light
    role = "screen" if not screen else "other"
    middle = (plan.screen.x_centre, plan.screen.bottom + plan.screen.height / 2.0)
    return as_light(lamp, role, (middle[0] - 0.5 * plan.screen.width, middle[1], 1.5), (middle[0], middle[1], 0.0))


def _mirrored(plan: Plan, lamp: KitLamp, partner: Light) -> dict[str, Any]:
    """Across the screen's middle from its partner, aimed and dimmed alike."""
    middle, (x, y, z) = plan.screen.x_centre, partner.position
    aim_x, aim_y, aim_z = partner.aim
    there = (2.0 * middle - x, y, z)
    light = as_light(lamp, "screen", there, (2.0 * middle - aim_x, aim_y, aim_z))
    given = partner.model_dump(mode="json", include={"modifier", "beyond"})
    return light | {"dimmer": partner.dimmer, **given}


def _apart(plan: Plan, at: Sequence[float]) -> Spot:
    """The place, or the next along the set where no other stand is: away from the screen first."""

    place: Spot = (at[0], at[1], at[2])

    def free(at: Spot) -> bool:
        near = (abs(one.position[0] - at[0]) + abs(one.position[2] - at[2]) for one in plan.lights)
        return all(away >= APART for away in near)

    tried = [place] + [
        (place[0] + side, place[1], place[2] + step * APART) for step in range(1, 9) for side in (0.0, 0.5, -0.5)
    ]
    allowed = [at for at in tried if free(at) and (at is place or inside(plan, at))]
    return allowed[0] if allowed else place
