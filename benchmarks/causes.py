"""How far a stated certainty can be trusted, on stand-in sets with one fault or two and decoys.

python benchmarks/causes.py [sets] [first seed]

A set is one of the demo's, built with one or two faults and with what every set has: a crease, another figure, a lens
that darkens its corners, small errors of exposure and balance, the plan's own codec. Of each fifth of the stated
certainty the share that is right is printed; an answer is right when the first thing it names is one of the faults
(kind and lamp), or when it says as planned and no fault can be seen.
"""

from __future__ import annotations

import json
import sys
from concurrent.futures import ProcessPoolExecutor
from dataclasses import asdict, dataclass, replace

import numpy as np

from ausblick.core.colour.curves import rec709
from ausblick.core.diagnosis.cause import Cause, cause_of_light
from ausblick.core.diagnosis.light_model import shifted
from ausblick.core.diagnosis.observed_light import observed_light
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.frames.frame import Frame, linear_of
from ausblick.core.frames.reading import read_frame
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.standin.as_built import AsBuilt, built_from
from ausblick.core.standin.standin_camera import standin_capture, standin_signal
from ausblick.demo.fern_house import scree, seed_vault
from ausblick.demo.fern_house_2 import gardeners, potting_shed, seed_jar
from ausblick.formats.recording import through

PLANS = (seed_vault, scree, potting_shed, seed_jar, gardeners)
KINDS = ("none", "dimmer", "off", "moved", "colour", "exposure", "white-balance", "obstacle")
WEIGHTS = (0.16, 0.2, 0.14, 0.18, 0.12, 0.06, 0.07, 0.07)
OPEN_LENSES = 0.25
LEAST = 0.04
"""A lamp that gives less of the screen's light than this is no fault that a frame can show."""


@dataclass(frozen=True)
class Fault:
    story: str
    lamp: str | None


@dataclass(frozen=True)
class Outcome:
    plan: str
    faults: tuple[Fault, ...]
    cause: str
    lamp: str | None
    certainty: float
    right: bool


def fault(plan: Plan, kind: str, rng: np.random.Generator, shares: dict[str, float]) -> tuple[list[Change], Fault]:
    seen = [i for i, lamp in enumerate(plan.lights) if shares.get(lamp.id, 0.0) > LEAST]
    i = int(rng.choice(seen))
    lamp, (x, y, z) = plan.lights[i], plan.lights[i].position
    if kind == "dimmer":
        by = float(rng.uniform(0.4, 0.8)) if rng.random() < 0.75 else float(rng.uniform(1.2, 1.5))
        return [Change(f"lights[{i}].dimmer", round(min(1.0, by * lamp.dimmer), 4))], Fault(kind, lamp.name)
    if kind == "off":
        return [Change(f"lights[{i}].on", False)], Fault(kind, lamp.name)
    if kind == "moved":
        turn, far = rng.uniform(0, 2 * np.pi), rng.uniform(0.35, 0.9)
        place = [x + 0.7 * far * np.cos(turn), y + 0.3 * far * rng.normal(), max(0.4, z + far * np.sin(turn))]
        return [Change(f"lights[{i}].position", [round(float(v), 3) for v in place])], Fault(kind, lamp.name)
    if kind == "colour":
        mired = float(rng.uniform(50, 140)) * rng.choice([1, -0.6])
        return [Change(f"lights[{i}].fixture.cct", round(shifted(lamp.fixture.cct, mired)))], Fault(kind, lamp.name)
    if kind == "exposure":
        return [
            Change(
                "camera.iso",
                plan.camera.iso * 2.0 ** float(rng.choice([rng.uniform(-0.8, -0.2), rng.uniform(0.15, 0.3)])),
            )
        ], Fault(kind, None)
    if kind == "white-balance":
        mired = float(rng.uniform(40, 110)) * rng.choice([1, -1])
        return [Change("camera.white_balance_k", round(shifted(plan.camera.white_balance_k, mired)))], Fault(
            kind, None
        )
    aim = np.array(lamp.aim)
    middle = np.array([x, y, z]) + float(rng.uniform(0.35, 0.65)) * (aim - (x, y, z))
    wide, high = rng.uniform(0.12, 0.3), rng.uniform(0.3, 0.6)
    corners = [
        [middle[0] + a * wide, middle[1] + b * high, middle[2]] for a, b in ((-1, -1), (1, -1), (1, 1), (-1, 1))
    ]
    cloth = {"id": "cloth", "reflectance": [0, 0, 0], "corners": [[round(float(v), 3) for v in c] for c in corners]}
    flags = [*(flag.model_dump(mode="json") for flag in plan.flags), cloth]
    return [Change("flags", flags)], Fault("obstacle", lamp.name)


def one(seed: int) -> Outcome:
    rng = np.random.default_rng(seed)
    plan, store = PLANS[seed % len(PLANS)](), BasisStore()
    lux = evaluate(plan, store).screen_by_lamp
    shares = {ident: value / sum(lux.values()) for ident, value in lux.items()}
    kinds = [str(rng.choice(KINDS, p=WEIGHTS))]
    if kinds[0] != "none" and rng.random() < 0.3:
        kinds.append(str(rng.choice(KINDS[1:5])))
    made = [fault(plan, kind, rng, shares) for kind in kinds if kind != "none"]
    if len({f.lamp for _, f in made}) < len(made):
        made = made[:1]
    changes = [change for some, _ in made for change in some]
    careless = apply_changes(plan, everyday(plan, rng))
    # Faults are told in the plan's own numbers: of what differs already they are the larger part.
    real = built_from(apply_changes(careless, changes), seed, ("crease", "noise"))
    frame = shot(real, rng, store)
    observed = observed_light(plan, frame, read_frame(frame, wanted=plan.screen.hue))
    cause = None if observed is None else cause_of_light(plan, observed, store)
    faults = tuple(f for _, f in made)
    if cause is None:
        return Outcome(plan.title, faults, "nothing seen", None, 0.0, False)
    return Outcome(plan.title, faults, cause.story, cause.lamp, cause.certainty, right(cause, faults))


def everyday(plan: Plan, rng: np.random.Generator) -> list[Change]:
    """What every set has: another figure, and hands that set exposure, balance and dimmers to a few per cent."""
    found = [Change("camera.iso", plan.camera.iso * float(np.exp(rng.normal(0, 0.03))))]
    found += [Change("camera.white_balance_k", round(shifted(plan.camera.white_balance_k, float(rng.normal(0, 2)))))]
    for i, lamp in enumerate(plan.lights):
        x, y, z = lamp.position
        place = [round(float(v + rng.normal(0, 0.02)), 3) for v in (x, y, z)]
        found.append(Change(f"lights[{i}].position", place))
        found.append(Change(f"lights[{i}].dimmer", float(np.clip(lamp.dimmer * (1 + rng.normal(0, 0.02)), 0, 1))))
    if plan.subject is not None:
        found.append(Change("subject.height", round(plan.subject.height * float(rng.uniform(0.94, 1.06)), 3)))
        found.append(Change("subject.x", round(plan.subject.x + float(rng.normal(0, 0.06)), 3)))
    return found


def shot(real: AsBuilt, rng: np.random.Generator, store: BasisStore) -> Frame:
    """A frame through a lens that darkens its corners, one in four wide open, and the plan's codec."""
    # The lens takes light before the sensor clips: two stops are kept above white until it has.
    dark = replace(real, plan=apply_changes(real.plan, [Change("camera.iso", real.plan.camera.iso / 4.0)]))
    signal = standin_signal(standin_capture(dark, store), 960, int(rng.integers(1000)))
    height, width = signal.shape[:2]
    y, x = np.mgrid[-1.0 : 1.0 : height * 1j, -1.0 : 1.0 : width * 1j]
    r2 = (x * x * width**2 + y * y * height**2) / (width**2 + height**2)
    stops = float(rng.uniform(0.0, 0.09))
    if rng.random() < OPEN_LENSES:
        stops = float(rng.uniform(0.3, 1.4))
    lost = 2.0 ** (-stops * (0.7 * r2 + 0.3 * r2 * r2))
    signal = np.clip(rec709(4.0 * linear_of(signal) * lost[..., None]), 0.0, 1.0).astype(np.float32)
    recording = real.plan.camera.recording
    return Frame(
        (65535.0 * through([signal] * 2, recording, 1e6 * recording.mbit_s / 25.0)[0]).astype(np.uint16), 65535.0
    )


def right(cause: Cause, faults: tuple[Fault, ...]) -> bool:
    if cause.story == "as-planned" or not faults:
        return cause.story == "as-planned" and all(f.lamp in cause.not_judged for f in faults)
    return any(cause.story == f.story and cause.lamp == f.lamp for f in faults)


def table(outcomes: list[Outcome]) -> str:
    lines = [f"{len(outcomes)} sets, {np.mean([o.right for o in outcomes]):.2f} right in the first thing named"]
    for low in (0.0, 0.2, 0.4, 0.6, 0.8):
        band = [o for o in outcomes if low <= o.certainty < low + 0.2 or (low == 0.8 and o.certainty >= 1.0)]
        if band:
            stated, found = np.mean([o.certainty for o in band]), np.mean([o.right for o in band])
            lines.append(
                f"certainty {low:.1f} to {low + 0.2:.1f}: {len(band):4d} sets, stated {stated:.2f}, right {found:.2f}"
            )
    sure = [o for o in outcomes if o.certainty >= 0.85]
    lines.append(f"told as sure: {len(sure)}, right {np.mean([o.right for o in sure]):.3f}")
    named = [o for o in sure if o.lamp is not None]
    of_lamp = [any(o.lamp == f.lamp for f in o.faults) for o in named]
    lines.append(f"told as sure with a lamp's name: {len(named)}, the lamp right {np.mean(of_lamp):.3f}")
    return "\n".join(lines)


def main(sets: int, first: int = 0) -> None:
    with ProcessPoolExecutor(2) as pool:
        outcomes = list(pool.map(one, range(first, first + sets), chunksize=4))
    print(table(outcomes))
    for one_of_them in outcomes:
        if not one_of_them.right or one_of_them.certainty < 0.8:
            print(json.dumps(asdict(one_of_them)))


if __name__ == "__main__":
    main(*(int(given) for given in sys.argv[1:] or ["300"]))
