"""Too much light: filters by daylight, what clipping hides, and lamps that are not dimmed to nothing for it."""

from __future__ import annotations

from typing import Any

import pytest

from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Finding
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Plan, apply_changes
from ausblick.core.sentences import say
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

SUN = {"id": "sun", "name": "sun", "role": "key", "position": [-6, 14, 10], "aim": [0, 1, 0],
       "fixture": {"emitter": {"shape": "sun"}, "normal_lux": 80_000, "cct": 5500, "watts": 0}}  # fmt: skip
FIELD = {"kind": "exterior", "x_min": -10, "x_max": 10, "z_min": -5, "z_max": 20, "height": 10,
         "ambient_lux": 12_000}  # fmt: skip


def field_at_noon(make: MakePlan, **camera: Any) -> Plan:
    return make(
        room=FIELD,
        screen={"width": 2.4, "height": 2.1, "bottom": 0.2, "material": "pop-up"},
        subject={"z": 1.5, "framing": "waist", "speed": 1.0},
        camera={"z": 4.5, "focal_mm": 50, "f_number": 2.8, "shutter_s": 0.02, "iso": 400, **camera},
        lights=[SUN],
    )


def found(plan: Plan, *only: str) -> dict[str, Finding]:
    _, findings = find(plan, STORE, only=only)
    return {one.rule.id: one for one in findings}


def test_at_noon_outdoors_a_filter_takes_what_is_too_much(make: MakePlan) -> None:
    plan = field_at_noon(make)
    face = found(plan, "subject.exposure")["subject.exposure"]
    [filtered] = [one for one in face.remedies if "ND" in say(one.text)]
    darker = apply_changes(plan, filtered.changes)
    assert darker.camera.nd_stops == pytest.approx(face.judgement.value, abs=0.5)
    assert darker.camera.f_number == plan.camera.f_number
    assert filtered.outcome == "cured"
    assert filtered is face.remedies[0]


def test_a_faster_shutter_takes_a_filter_out_before_it_opens_the_lens(make: MakePlan) -> None:
    plan = field_at_noon(make, nd_stops=6.0, f_number=5.6)
    offered = found(plan, "camera.smear")["camera.smear"].remedies
    [freed] = [one for one in offered if "of ND out" in say(one.text)]
    changed = apply_changes(plan, freed.changes).camera
    given = (plan.camera.shutter_s / changed.shutter_s, 2.0 ** (plan.camera.nd_stops - changed.nd_stops))
    assert changed.f_number == plan.camera.f_number
    assert given[1] == pytest.approx(given[0], rel=0.42)
    assert all(apply_changes(plan, one.changes).camera.f_number == plan.camera.f_number for one in offered)


def test_a_screen_at_white_is_told_as_clipping_and_not_as_uneven(make: MakePlan) -> None:
    clip = found(field_at_noon(make), "key.clip")["key.clip"]
    assert say(clip.judgement.says).endswith(": clipping")
    assert clip.remedies[0].after == pytest.approx(0.03, abs=0.02)


def test_to_show_what_clipping_hid_is_no_loss(make: MakePlan) -> None:
    """An uneven screen that clips where it is brightest needs a smaller clip than it does stopped down, and is none
    the better for it."""
    panels = [lamp(id=f"l{x}", position=[x, 2.3, 1.6], aim=[0.2 * x, 1.2, 0], flux_lm=9000.0) for x in (-1.5, 1.5)]
    plan = make(
        screen={"width": 3.4, "height": 2.6},
        subject={"z": 1.9, "framing": "waist"},
        camera={"f_number": 2.8, "iso": 800, "shutter_s": 0.02, "widest": 2.0},
        lights=[*panels, lamp(id="key", role="key", position=[-1.4, 2.2, 4.4], aim=[0, 1.5, 1.9])],
    )
    evaluation, findings = find(plan, BasisStore())
    told = {one.rule.id: one for one in findings}
    clip = told["key.clip"].judgement
    assert evaluation.damage is not None
    hides = evaluation.damage.kinder
    assert hides.unclipped_clip > hides.needed_clip + 0.03
    assert f"{hides.unclipped_clip:.2f} once the screen no longer clips" in say(clip.says)
    down = next(one for one in told["key.clipping"].remedies if say(one.text).startswith("Aperture"))
    assert down.gives
    assert "key.clip" not in down.worsens
    shown, _ = find(apply_changes(plan, down.changes), BasisStore(), with_remedies=False)
    assert shown.damage is not None
    assert shown.damage.kinder.needed_clip == pytest.approx(hides.unclipped_clip, abs=0.02)


def test_no_lamp_is_dimmed_to_nothing_because_the_lens_is_wide_open(make: MakePlan) -> None:
    plan = make(
        camera={"f_number": 2.0, "widest": 1.8, "iso": 800, "shutter_s": 0.02},
        subject={"z": 1.4, "framing": "chest"},
        lights=[
            lamp(position=[-1.6, 1.6, 1.0]),
            lamp(id="key", role="key", position=[-1.2, 2.0, 2.7], aim=[0, 1.5, 1.4]),
        ],
    )
    face = found(plan, "subject.exposure")["subject.exposure"]
    assert face.judgement.value is not None
    assert face.judgement.value > 2.0
    for one in face.remedies:
        after = apply_changes(plan, one.changes)
        assert all(light.dimmer >= 0.05 for light in after.lights), say(one.text)
