"""What a cause is in words, what to do about it, and the changes that make the plan as it was built."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np

from ..plan import Change, Plan, edit
from .light_model import LightModel, shifted
from .stories import Culprit
from .story_fit import Fit

AS_PLANNED = "The lamps that this frame can judge stand and burn as planned."
NOTHING_SHOWN = "Nothing stands out from the plan; a small fault would not show beside the errors of this frame."
SURE, LIKELY = 0.85, 0.5
SEEN_CORNER = 0.2
"""Stops at the picture's corner below which a lens is not spoken of."""
DARK = 0.08
"""A lamp that gives less than this of what was planned is off."""


@dataclass(frozen=True)
class Told:
    """`lamp`: its name; numbers as `Cause` has them."""

    says: str
    cure: str = ""
    changes: tuple[Change, ...] = ()
    lamp: str | None = None
    factor: float | None = None
    moved: tuple[float, float] | None = None
    mired: float | None = None


def told_as_planned(fit: Fit, certainty: float) -> Told:
    """With what the lens takes of the corners, where that can be seen."""
    says = AS_PLANNED if certainty >= LIKELY else NOTHING_SHOWN
    corner = float(fit.by.camera[3] + fit.by.camera[4]) / math.log(2.0)
    return Told(f"{says} The lens darkens its corners by {corner:.1f} stops." if corner > SEEN_CORNER else says)


def told_of(model: LightModel, fit: Fit, part: Culprit) -> Told:
    """One part of a story."""
    plan = model.plan
    if part.kind == "exposure":
        return _exposure(float(np.exp(fit.by.camera[0])))
    if part.kind == "white balance":
        return _balance(plan, float(fit.by.camera[1]))
    if part.kind == "stranger" or part.lamp is None:
        return told_strange(model, fit)
    i, index = part.lamp, model.lamps[part.lamp]
    if part.kind == "dimmer" and float(fit.by.level[i]) >= DARK:
        return _dimmer(plan, index, float(fit.by.level[i]))
    if part.kind in ("dimmer", "off"):
        return _off(plan, index)
    if part.kind == "colour":
        return _colour(plan, index, float(fit.by.mired[i]))
    if part.kind == "moved":
        return _moved(plan, index, float(fit.by.place[i, 0]), float(fit.by.place[i, 2]), fit.by.place[i, 1])
    return _obstacle(model, fit, index)


def told_unsure(told: Told, part: Culprit, certainty: float, rival: str | None) -> tuple[Told, str]:
    """Words as sure as the frame is, and the frame that would decide."""
    if certainty >= SURE:
        return told, ""
    if rival is None or part.lamp is None:
        return (replace(told, says=f"Probably: {told.says}"), "") if certainty >= LIKELY else (
            replace(told, says=f"Perhaps: {told.says}"), "Measure again with one lamp at a time")  # fmt: skip
    decide = f"Switch {told.lamp} off and take another frame: the difference is its own light"
    if certainty >= LIKELY:
        return replace(told, says=f"Probably: {told.says}"), decide
    both = f"It may be {told.lamp} or {rival}: switch {rival} off and take another frame"
    return replace(told, says=f"{told.says}, but that is not certain", cure=both), both


def _exposure(gain: float) -> Told:
    off = abs(math.log2(max(gain, 1e-6)))
    word, way = ("brighter", "down") if gain > 1.0 else ("darker", "up")
    return Told(
        f"Everything is {off:.1f} stops {word} than planned, evenly: the exposure, or all lamps",
        f"Set shutter, aperture, ISO and ND as planned; else all screen lamps {way} {off:.1f} stops",
        factor=gain,
    )


def _balance(plan: Plan, mired: float) -> Told:
    """What the camera is set to is as much colder as the picture is warmer."""
    camera, word = plan.camera, "warmer" if mired > 0 else "colder"
    really = round(shifted(camera.white_balance_k, -mired) / 50.0) * 50.0
    return Told(
        f"Everything is {abs(mired):.0f} mired {word} than planned: the white balance, or all lamps",
        f"Set white balance to {camera.white_balance_k:.0f} K and lock it; it stands near {really:.0f} K",
        (edit.camera.white_balance_k(really),),
        mired=mired,
    )


def _dimmer(plan: Plan, index: int, factor: float) -> Told:
    lamp = plan.lights[index]
    now, off = lamp.dimmer * factor, abs(math.log2(max(factor, 1e-6)))
    word, verb = ("weaker", "Raise") if factor < 1.0 else ("stronger", "Lower")
    cure = f"{verb} {lamp.name} from about {100 * now:.0f} % to {100 * lamp.dimmer:.0f} %"
    if now > 1.0:
        cure = f"Lower {lamp.name} by {math.log2(factor):.1f} stops"
    return Told(
        f"{lamp.name} gives {100 * factor:.0f} % of what was planned: {word} by {off:.1f} stops",
        cure,
        (edit.lamp(index).dimmer(round(min(1.0, now), 3)),),
        lamp.name,
        factor,
    )


def _off(plan: Plan, index: int) -> Told:
    name = plan.lights[index].name
    cure = f"Look at {name}: switch, cable, lamp head, flag"
    return Told(f"{name} is off", cure, (edit.lamp(index).on(False),), name, 0.0)


def _colour(plan: Plan, index: int, mired: float) -> Told:
    lamp, word = plan.lights[index], "warmer" if mired > 0 else "colder"
    really = round(shifted(lamp.fixture.cct, mired) / 50.0) * 50.0
    return Told(
        f"{lamp.name} is {abs(mired):.0f} mired {word} than planned, near {really:.0f} K",
        f"Set {lamp.name} to {lamp.fixture.cct:.0f} K, or gel it",
        (edit.lamp(index).cct(really),),
        lamp.name,
        mired=mired,
    )


def _moved(plan: Plan, index: int, dx: float, dz: float, dy: float) -> Told:
    lamp = plan.lights[index]
    x, y, z = lamp.position
    ways = [
        f"{abs(dz):.2f} m {'further from' if dz > 0 else 'nearer to'} the screen" if abs(dz) > 0.05 else "",
        f"{abs(dx):.2f} m to the {'right' if dx > 0 else 'left'}" if abs(dx) > 0.05 else "",
        f"{abs(dy):.2f} m {'higher' if dy > 0 else 'lower'}" if abs(dy) > 0.1 else "",
    ]
    where = ", ".join(way for way in ways if way) or "a little off"
    place = [round(x + dx, 2), round(max(0.3, y + (dy if abs(dy) > 0.1 else 0.0)), 2), round(max(0.3, z + dz), 2)]
    return Told(
        f"{lamp.name} does not stand as planned: about {where}",
        f"Bring {lamp.name} back to {x:.2f} m across, {z:.2f} m from the screen, {y:.2f} m high",
        (edit.lamp(index).position(place),),
        lamp.name,
        moved=(round(dx, 3), round(dz, 3)),
    )


def _obstacle(model: LightModel, fit: Fit, index: int) -> Told:
    name = model.plan.lights[index].name
    where = _where(model, int(np.argmin(fit.field)) if fit.field is not None else 0)
    lost = 0.0 if fit.field is None else -100.0 * float(fit.field.min())
    return Told(
        f"Something stands in the beam of {name}: {lost:.0f} % less light {where}",
        f"Look from there toward {name}: a cloth, a stand, a cable",
        lamp=name,
    )


def told_strange(model: LightModel, fit: Fit) -> Told:
    """That no story of the planned lamps holds, and where it fails most."""
    off = fit.field
    if off is None:
        size = model.count
        off = (model.data(model.observed.rgb) - model.predicted(fit.by))[:size]
    worst = int(np.argmax(np.abs(off)))
    word = "brighter" if off[worst] > 0 else "darker"
    share = 100.0 * abs(math.expm1(float(np.clip(off[worst], -3.0, 3.0))))
    return Told(
        f"No change of the planned lamps explains this frame: {_where(model, worst)} it is {share:.0f} % {word} than "
        "any of them makes it. A light that is not in the plan, or another geometry",
        "Measure an empty screen, and check the plan against the set",
    )


def _where(model: LightModel, cell: int) -> str:
    x, y, z = model.observed.places[cell]
    if y < 0.02:
        return f"on the floor {x:.1f} m across, {z:.1f} m from the screen"
    return f"near {x:.1f} m across, {y:.1f} m up"
