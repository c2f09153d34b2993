"""After any change of a single field a store that remembers the set before gives what a fresh one gives."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest

from ausblick.core.advice.check_report import check_report
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.light.floor_shadow import floor_shadow
from ausblick.core.plan import Change, Plan, PlanError, apply_changes, dump_plan, plan_from, range_at
from ausblick.core.standards.plain import plain

SET = plan_from(
    {
        "format": "ausblick-plan",
        "version": 1,
        # A small room has few surfaces: every field is tried against a fresh store.
        "room": {
            "kind": "interior",
            "x_min": -2,
            "x_max": 2,
            "z_min": -0.2,
            "z_max": 5,
            "height": 2.6,
            "ambient_lux": 20.0,
        },
        "screen": {"width": 2.0, "height": 2.0, "floor_run": 1.0, "wing_left": 0.6, "behind_lux": 50.0},
        "subject": {"z": 1.6},
        "camera": {"z": 4.4, "focal_mm": 24.0},
        "window": {"x": 0.4, "z": 1.0, "y": 1.4},
        "flags": [{"corners": [[-1.2, 0, 0.8], [-1.2, 1.6, 0.8], [-1.2, 1.6, 1.8], [-1.2, 0, 1.8]]}],
        "lights": [
            {
                "position": [-1.5, 1.3, 1.6],
                "aim": [0.3, 1.0, 0.0],
                "modifier": {"kind": "softbox", "width": 0.6, "height": 0.6},
            },
            {
                "role": "key",
                "position": [0.9, 1.9, 3.2],
                "aim": [0, 1.5, 1.6],
                "fixture": {
                    "emitter": {"shape": "disc", "diameter": 0.3},
                    "flux_lm": 3000.0,
                    "beam": {"kind": "beam", "deg": 50.0},
                },
                "modifier": {"kind": "grid", "deg": 40.0},
            },
            {
                "role": "back",
                "position": [0.6, 2.1, 0.7],
                "aim": [0, 1.6, 1.6],
                "fixture": {"emitter": {"shape": "point"}, "peak_cd": 900.0, "beam": {"kind": "cosine", "n": 4.0}},
                "modifier": {"kind": "doors", "deg": 50.0},
            },
        ],
    }
)
WARM = BasisStore()
ASIDE = (
    "title",
    "mains",
    "targets",
    "plate",
    "recording",
    ".name",
    "circuit",
    "curve_table",
    "photometry",
    "format",
    "version",
)
"""Words and wishes: no light depends on them, and the rules that do remember nothing."""


def leaves(value: Any, path: str = "") -> Iterator[tuple[str, Any]]:
    if isinstance(value, dict):
        for key, item in value.items():
            yield from leaves(item, f"{path}.{key}" if path else key)
    elif isinstance(value, list):
        for index, item in enumerate(value):
            yield from leaves(item, f"{path}[{index}]")
    else:
        yield path, value


def changed(path: str, value: Any) -> Plan | None:
    """The set with one field changed a little; None where it is not one that can be."""
    tries: list[Any] = []
    if isinstance(value, bool):
        tries = [not value]
    elif isinstance(value, int | float):
        low, high = range_at(path) or (value, value)
        step = max(0.05 * abs(value), 0.01)
        kind = int if isinstance(value, int) and not isinstance(value, float) else float
        tries = [kind(min(max(value + by, low), high)) for by in (step, -step, 1)]
    for attempt in tries:
        if attempt == value:
            continue
        try:
            return apply_changes(SET, [Change(path, attempt)])
        except PlanError:
            continue
    return None


FIELDS = [
    path
    for path, value in leaves(dump_plan(SET))
    if not any(word in f".{path}" for word in ASIDE) and changed(path, value) is not None
]
WORDS: list[tuple[str, Any]] = [
    ("room.kind", "exterior"),
    ("screen.hue", "blue"),
    ("subject", None),
    ("window", None),
    ("flags", []),
    ("lights[0].modifier.kind", "diffusion"),
    ("lights[0].modifier.kind", "umbrella"),
    ("lights[1].modifier.kind", "none"),
    ("lights[0].fixture.emitter", {"shape": "disc", "diameter": 0.5}),
    ("lights[0].fixture.beam", {"kind": "cosine", "n": 2.0}),
    ("subject.framing", "full"),
    ("subject.feet_seen", True),
    ("lights[0].role", "key"),
    ("lights[2].on", False),
]


def said(plan: Plan, store: BasisStore) -> Any:
    shadow = floor_shadow(plan, store)
    floor = None if shadow is None else float(shadow.lost.sum())
    return {**plain(check_report(evaluate(plan, store), [])), "floor": floor}


def alike(a: Any, b: Any, path: str = "") -> Iterator[str]:
    if isinstance(a, dict) and isinstance(b, dict):
        for key in a.keys() | b.keys():
            yield from alike(a.get(key), b.get(key), f"{path}.{key}")
    elif isinstance(a, list) and isinstance(b, list) and len(a) == len(b):
        for index, (x, y) in enumerate(zip(a, b, strict=True)):
            yield from alike(x, y, f"{path}[{index}]")
    elif isinstance(a, float) and isinstance(b, float):
        if a != pytest.approx(b, rel=1e-7, abs=1e-9):
            yield f"{path}: {a} remembered, {b} fresh"
    elif a != b:
        yield f"{path}: {a} remembered, {b} fresh"


def test_fields_enough_are_tried() -> None:
    assert len(FIELDS) > 110
    assert set(FIELDS) >= QUICK


QUICK = {
    "room.x_min",
    "room.reflectance.walls[0]",
    "screen.width",
    "screen.floor_run",
    "screen.transmittance",
    "subject.z",
    "camera.x",
    "lights[0].position[0]",
    "lights[0].modifier.width",
    "lights[0].dimmer",
    "lights[2].fixture.cct",
    "flags[0].corners[2][1]",
}
"""One of each kind at every run; the others take long and say the same of the same keys."""


@pytest.mark.parametrize(
    "path", [path if path in QUICK else pytest.param(path, marks=pytest.mark.torture) for path in FIELDS]
)
def test_one_number_changed(path: str) -> None:
    said(SET, WARM)
    value = dict(leaves(dump_plan(SET)))[path]
    plan = changed(path, value)
    assert plan is not None
    assert list(alike(said(plan, WARM), said(plan, BasisStore()))) == []


SOME_WORDS = ("room.kind", "window", "flags", "lights[1].modifier.kind", "subject.framing")


@pytest.mark.parametrize(
    ("path", "value"),
    [one if one[0] in SOME_WORDS else pytest.param(*one, marks=pytest.mark.torture) for one in WORDS],
    ids=[f"{path}={value}"[:50] for path, value in WORDS],
)
def test_one_word_or_part_changed(path: str, value: Any) -> None:
    said(SET, WARM)
    plan = apply_changes(SET, [Change(path, value)])
    assert list(alike(said(plan, WARM), said(plan, BasisStore()))) == []


def test_a_store_that_forgets_at_once_says_the_same() -> None:
    assert list(alike(said(SET, BasisStore(most=2)), said(SET, BasisStore()))) == []
