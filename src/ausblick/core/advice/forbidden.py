"""Changes that are never offered, whatever number they mend."""

from __future__ import annotations

from ..camera.built_in_lens import lens_is_built_in
from ..plan import Camera, Light, Plan
from .rule import RANK, Judgement

LEAST_DIMMER = 0.05
"""A lamp that is dimmed below this is off, and the set then hangs on what was not meant for it."""
FOR_THE_SCREEN = ("subject.above-screen", "subject.edge-gap", "light.level")
"""Rules of the screen's level, for which a face is not made worse."""
SAME_FACE = 0.1
"""Stops by which a face may change and nobody sees it: what a dimmed screen no longer returns is less."""

Judged = dict[str, Judgement]


def never_changed(rule_id: str, before: Plan, after: Plan) -> bool:
    """A lamp of the screen, the sun or the only key put out, any lamp dimmed to nothing; daylight changed; what the
    lens does not open to, another lens or opening where it is built in."""
    return (
        _puts_out(before, after)
        or (_has_key(before) and not _has_key(after))
        or (not rule_id.startswith("kit.") and _turns_what_is_built_in(before.camera, after.camera))
        or after.camera.f_number < min(before.camera.f_number, after.camera.widest) - 0.01
    )


def never_made_worse(rule_id: str, judged: Judged, then: Judged) -> bool:
    """A face exposed worse for the sake of the screen's level; a screen that is left without any light; what the kit
    does not have."""
    return (
        (rule_id in FOR_THE_SCREEN and _face_excess(then) > _face_excess(judged) + SAME_FACE)
        or (_lit(judged) and "light.level" in then and not _lit(then))
        or any(_is_worse(judged, then, kit) for kit in then if kit.startswith("kit.") and kit != rule_id)
    )


def _lit(judged: Judged) -> bool:
    """Is there screen in the picture with light on it? Without any, its level alone stops the shoot."""
    return "light.level" in judged and judged["light.level"].severity != "stop"


def _turns_what_is_built_in(before: Camera, after: Camera) -> bool:
    same = before.focal_mm == after.focal_mm and before.f_number == after.f_number
    return lens_is_built_in(before) and not same


def _puts_out(before: Plan, after: Plan) -> bool:
    now = {lamp.id: lamp for lamp in after.lights}
    return any(_spoils(lamp, now[lamp.id]) for lamp in before.lights if lamp.on and lamp.id in now)


def _has_key(plan: Plan) -> bool:
    return any(lamp.on and lamp.role == "key" for lamp in plan.lights)


def _spoils(lamp: Light, then: Light) -> bool:
    # Of daylight only one thing can be done: it is kept out.
    if lamp.is_daylight and then != lamp.model_copy(update={"on": then.on}):
        return True
    if then.on and then.dimmer < LEAST_DIMMER <= lamp.dimmer:
        return True
    return not then.on and (lamp.role == "screen" or lamp.fixture.emitter.shape == "sun")


def _face_excess(judged: Judged) -> float:
    """Stops that the face is off beyond what is asked."""
    return judged["subject.exposure"].excess if "subject.exposure" in judged else 0.0


def _is_worse(judged: Judged, then: Judged, rule_id: str) -> bool:
    old = judged[rule_id].severity if rule_id in judged else "fine"
    return RANK[then[rule_id].severity] < RANK[old]
