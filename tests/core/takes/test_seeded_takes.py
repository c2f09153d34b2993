"""Takes as a camera would have brought them: what has really changed is told, and nothing that has not."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

import numpy as np
import pytest

from ausblick.app.frame_import import import_frame
from ausblick.app.services import Services, open_services
from ausblick.app.take_log import log_take, shot_logs, take_findings
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.production.production_document import Production, production_from
from ausblick.core.standin.as_built import AsBuilt
from ausblick.core.standin.standin_camera import standin_capture, standin_signal
from ausblick.core.takes.take_document import take_from
from ausblick.demo.fern_house import scree
from ausblick.formats.images import png_bytes
from tests.stores import STORE

WIDTH = 1280


def as_planned() -> Plan:
    """Scree from further off and higher: room beside the screen is in the picture, the feet are on the screen."""
    wide = {"camera.focal_mm": 24.0, "subject.z": 1.6, "subject.framing": "full"}
    return apply_changes(scree(), [Change(path, value) for path, value in wide.items()])


@dataclass(frozen=True)
class Seeded:
    """How the set was at the take, and the rules that must say so; `void`: the clean plate no longer fits."""

    name: str
    change: Callable[[Plan, np.random.Generator], list[Change]]
    tells: frozenset[str]
    void: bool


def _dimmed(plan: Plan, dice: np.random.Generator) -> list[Change]:
    share = float(dice.uniform(0.6, 0.75))
    return [Change(f"lights[{i}].dimmer", lamp.dimmer * share) for i, lamp in enumerate(plan.lights)]


def _turned(plan: Plan, dice: np.random.Generator) -> list[Change]:
    return [Change("camera.pan", plan.camera.pan + float(dice.choice([-1.0, 1.0]) * dice.uniform(1.0, 1.8)))]


def _balanced(plan: Plan, dice: np.random.Generator) -> list[Change]:
    mired = 1e6 / plan.camera.white_balance_k + float(dice.choice([-1.0, 1.0]) * dice.uniform(35.0, 50.0))
    return [Change("camera.white_balance_k", round(1e6 / mired))]


def _noisy(plan: Plan, dice: np.random.Generator) -> list[Change]:
    stops = float(dice.uniform(2.5, 3.5))
    return [
        Change("camera.iso", plan.camera.iso * 2.0**stops),
        Change("camera.nd_stops", plan.camera.nd_stops + stops),
    ]


def _nothing(plan: Plan, dice: np.random.Generator) -> list[Change]:
    """The person stands a little elsewhere, as between any two takes."""
    assert plan.subject is not None
    return [Change("subject.x", plan.subject.x + float(dice.uniform(-0.08, 0.08)))]


def _outside(plan: Plan, dice: np.random.Generator) -> list[Change]:
    """The raised hand goes over the screen's edge."""
    return [Change("subject.x", plan.screen.width / 2.0 - float(dice.uniform(0.3, 0.38)))]


FAULTS = (
    Seeded("as before", _nothing, frozenset(), False),
    Seeded("lamps dimmed", _dimmed, frozenset({"take.level"}), True),
    Seeded("camera turned", _turned, frozenset({"take.camera-turned"}), True),
    Seeded("white balance", _balanced, frozenset({"take.white-balance", "take.hue"}), True),
    Seeded("higher ISO", _noisy, frozenset({"take.noise"}), False),
    Seeded("left the screen", _outside, frozenset({"take.breach"}), False),
)


def shot_on(services: Services, plan: Plan, seed: int, name: str, place: Path) -> int:
    built = AsBuilt(plan, (), 1.0)
    signal = standin_signal(standin_capture(built, STORE), WIDTH, seed)
    path = place / f"{name}.png"
    path.write_bytes(png_bytes(np.asarray(np.round(255.0 * signal), dtype=np.uint8)))
    return import_frame(services.frames, 1, path.name, path, plan).id


def told(services: Services, production: Production, key: str) -> tuple[set[str], str]:
    takes = services.takes.of_production(1)
    plate = shot_logs(services, production, takes)[0].clean_plate
    assert plate is not None
    return {one.id for one in take_findings(services, production, takes, key)}, plate.state


def log(services: Services, key: str, number: int, frame: int, **fields: object) -> None:
    at = f"2027-03-16T10:{number:02d}:00Z"
    log_take(services, 1, take_from({"key": key, "shot": "s", "number": number, "at": at, "setup": 1, "frame": frame,
                                     **fields}))  # fmt: skip


def seeded(place: Path, seeds: range) -> list[str]:
    """What was told wrongly, take by take."""
    services = open_services(place / "data")
    plan = as_planned()
    services.setups.create(plan)
    production = production_from({"format": "ausblick-production", "version": 1, "shots": [{"id": "s", "setup": 1}]})
    services.productions.create(production)
    empty = plan.model_copy(update={"subject": None})
    log(services, "the-clean-plate", 1, shot_on(services, empty, 99, "plate", place), kind="clean-plate")
    log(services, "the-reference", 2, shot_on(services, plan, 98, "first", place))
    wrong = []
    for seed in seeds:
        fault, key = FAULTS[seed % len(FAULTS)], f"take-of-seed-{seed}"
        now = apply_changes(plan, fault.change(plan, np.random.default_rng(seed)))
        log(services, key, 3 + seed, shot_on(services, now, seed, key, place), status="keep")
        rules, plate = told(services, production, key)
        # A picture that is darker is noisier too, and one that turned has another part of the screen in it.
        extra = rules - fault.tells - ({"take.noise", "take.evenness"} if fault.tells else set())
        if not fault.tells <= rules or extra or (plate != "holds") != fault.void:
            wrong.append(f"{seed} {fault.name}: {sorted(rules)}, plate {plate}")
    services.close()
    return wrong


@pytest.mark.torture
def test_each_kind_of_change_is_told_once(tmp_path: Path) -> None:
    assert seeded(tmp_path, range(len(FAULTS))) == []


@pytest.mark.torture
def test_at_least_nineteen_of_twenty_takes_are_told_rightly(tmp_path: Path) -> None:
    assert len(seeded(tmp_path, range(20, 40))) <= 1
