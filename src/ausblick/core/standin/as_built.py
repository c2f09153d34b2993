"""A set as somebody built it: the plan with hidden, seeded deviations, for a stand-in camera to look at."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..plan import Change, Plan, apply_changes, edit

Kind = Literal["dimmer", "stand", "crease", "lamp colour", "white balance", "noise"]
FIRST_SEED = 272
"""The set that a stand-in builds first, and that the demo's first frame was shot on."""
KINDS: tuple[Kind, ...] = ("dimmer", "stand", "crease", "lamp colour", "white balance", "noise")


@dataclass(frozen=True)
class Crease:
    """A soft line on the cloth: its middle in m on the screen, half length and half width in m, angle in degrees from
    the vertical, and the share of light that it takes."""

    x: float
    y: float
    half_length: float
    half_width: float
    angle: float
    lost: float


@dataclass(frozen=True)
class AsBuilt:
    """`plan` as it stands; `noise`: that of this camera over the model's; `truth`: what was changed, in words."""

    plan: Plan
    creases: tuple[Crease, ...] = ()
    noise: float = 1.0
    truth: tuple[str, ...] = ()


def faults_of(seed: int) -> tuple[Kind, ...]:
    """What goes wrong on a set of this seed: one thing that a hand can cure, a crease, and a noisier camera."""
    return (("dimmer", "stand", "lamp colour", "white balance")[seed % 4], "crease", "noise")


def built_from(plan: Plan, seed: int, kinds: tuple[Kind, ...] = KINDS) -> AsBuilt:
    """The same plan and seed give the same set. Lamps of the screen are the ones that go wrong."""
    rng = np.random.default_rng(seed)
    lamps = [i for i, lamp in enumerate(plan.lights) if lamp.role == "screen" and lamp.on and lamp.dimmer > 0.0]
    changes: list[Change] = []
    truth: list[str] = []
    creases: tuple[Crease, ...] = ()
    noise = 1.0
    if "dimmer" in kinds and lamps:
        i = int(rng.choice(lamps))
        lamp = plan.lights[i]
        share = float(rng.uniform(0.5, 0.78)) if rng.random() < 0.6 else float(rng.uniform(1.25, 1.5))
        value = round(min(1.0, lamp.dimmer * share), 3)
        changes.append(edit.lamp(i).dimmer(value))
        truth.append(f"{lamp.name}: dimmer at {100 * value:.0f} % instead of {100 * lamp.dimmer:.0f} %")
    if "stand" in kinds and lamps:
        i = int(rng.choice(lamps))
        lamp, away = plan.lights[i], float(rng.uniform(0.35, 0.8)) * (1.0 if rng.random() < 0.7 else -0.6)
        x, y, z = lamp.position
        changes.append(edit.lamp(i).position([x, y, round(max(0.4, z + away), 3)]))
        truth.append(f"{lamp.name}: {abs(away):.2f} m {'further from' if away > 0 else 'nearer to'} the screen")
    if "lamp colour" in kinds and lamps:
        i = int(rng.choice(lamps))
        kelvin = float(round(plan.lights[i].fixture.cct * rng.uniform(0.72, 0.84) / 50.0) * 50.0)
        changes.append(edit.lamp(i).cct(kelvin))
        truth.append(f"{plan.lights[i].name}: {kelvin:.0f} K")
    if "white balance" in kinds:
        kelvin = float(round(plan.camera.white_balance_k * rng.choice([0.82, 1.2]) / 50.0) * 50.0)
        changes.append(edit.camera.white_balance_k(kelvin))
        truth.append(f"white balance at {kelvin:.0f} K")
    if "crease" in kinds:
        creases = (_crease(plan, rng),)
        truth.append(f"a crease {creases[0].y:.1f} m up")
    if "noise" in kinds:
        noise = float(rng.uniform(1.1, 1.5))
    return AsBuilt(apply_changes(plan, changes), creases, noise, tuple(truth))


def _crease(plan: Plan, rng: np.random.Generator) -> Crease:
    screen = plan.screen
    side = 1.0 if rng.random() < 0.5 else -1.0
    return Crease(
        x=screen.x_centre + side * float(rng.uniform(0.2, 0.3)) * screen.width,
        y=screen.bottom + float(rng.uniform(0.45, 0.7)) * screen.height,
        half_length=float(rng.uniform(0.25, 0.4)),
        half_width=float(rng.uniform(0.02, 0.035)),
        angle=float(rng.uniform(-25.0, 25.0)),
        lost=float(rng.uniform(0.2, 0.35)),
    )
