from __future__ import annotations

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ausblick.core.plan import (
    Change,
    PlanError,
    apply_changes,
    dump_plan,
    plan_from,
    range_at,
    read_plan,
    unknown_fields,
)

MINIMAL = {"format": "ausblick-plan", "version": 1}


def refusal(**parts: object) -> PlanError:
    with pytest.raises(PlanError) as caught:
        plan_from({**MINIMAL, **parts})
    return caught.value


def test_smallest_plan_has_the_documented_defaults() -> None:
    plan = read_plan(json.dumps(MINIMAL))
    assert (plan.screen.width, plan.screen.height, plan.screen.reflectance) == (3.0, 2.6, (0.06, 0.34, 0.10))
    assert (plan.camera.z, plan.camera.focal_mm, plan.camera.iso) == (6.4, 35.0, 400.0)
    assert plan.subject is not None
    assert plan.subject.envelope.front == 0.4
    assert plan.lights == ()
    assert plan.targets.level_school == "below-face"


def test_round_trip_keeps_everything_and_unknown_fields_are_reported() -> None:
    data = {**MINIMAL, "crew": ["two"], "screen": {"width": 4.0, "dye": "batch 7"}, "lights": [{"gaffer": 1}]}
    plan = plan_from(data)
    assert unknown_fields(plan) == ["crew", "lights[0].gaffer", "screen.dye"]
    assert plan_from(dump_plan(plan)) == plan
    assert dump_plan(plan)["screen"]["dye"] == "batch 7"


def test_no_figure_is_a_plan() -> None:
    assert plan_from({**MINIMAL, "subject": None}).subject is None


@pytest.mark.parametrize(
    ("parts", "path", "word"),
    [
        ({"screen": {"width": float("nan")}}, "screen.width", "finite"),
        ({"camera": {"iso": float("inf")}}, "camera.iso", "finite"),
        ({"notes": [1.0, float("-inf")]}, "notes[1]", "finite"),
        ({"screen": {"width": -3}}, "screen.width", "allowed: 0.1 to 50"),
        ({"screen": {"width": 1e9}}, "screen.width", "1000000000"),
        ({"camera": {"focal_mm": "35"}}, "camera.focal_mm", "number"),
        ({"camera": {"iso": True}}, "camera.iso", "number"),
        ({"lights": [{"position": [0, "a", 1]}]}, "lights[0].position[1]", "number"),
        ({"lights": [{"position": [0, 1]}]}, "lights[0].position[2]", "required"),
        ({"lights": [{"position": [1, 1, 1], "aim": [1, 1, 1]}]}, "lights[0]", "1 mm apart"),
        ({"lights": [{"fixture": {"flux_lm": 1, "peak_cd": 1}}]}, "lights[0].fixture", "exactly one"),
        (
            {"lights": [{"fixture": {"emitter": {"shape": "rect", "width": -1}}}]},
            "lights[0].fixture.emitter.width",
            "0.001",
        ),
        ({"lights": [{"id": "a"}, {"id": "a"}]}, "plan", "share the id 'a'"),
        ({"room": {"x_min": 3, "x_max": -3}}, "room", "x_min must be less"),
        ({"targets": {"level_school": "brightest"}}, "targets.level_school", "below-face"),
        ({"camera": {"sensor": {"px_w": 1920.5}}}, "camera.sensor.px_w", "integer"),
        ({"version": 2}, "version", "version 1"),
        ({"version": True}, "version", "version 1"),
        ({"format": "other"}, "format", "ausblick-plan"),
        ({"screen": 10**30}, "screen", "digits"),
    ],
)
def test_what_is_wrong_is_named(parts: dict[str, object], path: str, word: str) -> None:
    error = refusal(**parts)
    assert error.path == path
    assert word in str(error)
    assert "\n" not in str(error)


@pytest.mark.parametrize("text", ["", "{", "[1]", "nul", "[" * 100_000, '{"a":' * 5000, "\xff", '{"x": 1e99999}'])
def test_text_that_is_no_plan(text: str) -> None:
    with pytest.raises(PlanError):
        read_plan(text)


def test_sheer_size_and_depth_are_refused() -> None:
    assert "deep" in str(refusal(x=json.loads("[" * 40 + "]" * 40)))
    assert "values" in str(refusal(x=[0] * 300_000))
    with pytest.raises(PlanError, match="larger than"):
        read_plan(b" " * 5_000_000)


@pytest.mark.parametrize("ident", [[], {}, 3, None, True])
def test_an_id_that_is_no_text_is_named(ident: object) -> None:
    with pytest.raises(PlanError, match=r"lights\[1\]\.id"):
        plan_from({"format": "ausblick-plan", "version": 1, "lights": [{}, {"id": ident}]})


def test_very_many_lamps_without_id_are_refused_by_their_number() -> None:
    with pytest.raises(PlanError, match=r"lights: .* at most 32 items"):
        plan_from({"format": "ausblick-plan", "version": 1, "lights": [{}] * 10_000})


def test_facts_of_a_plate_that_nobody_gave_are_unknown_until_one_is_set() -> None:
    plan = plan_from({**MINIMAL, "plate": {"mean_level": 40, "tilt": 0.0}})
    assert (plan.plate.tells("tilt"), plan.plate.tells("focal_mm_ff")) == (True, False)
    assert not plan_from(MINIMAL).plate.tells("tilt", "key_azimuth")
    kept = plan_from(dump_plan(plan))
    assert kept == plan, "what is not known stays so when it is saved"
    told = apply_changes(kept, [Change("plate.focal_mm_ff", 50.0)])
    assert told.plate.tells("focal_mm_ff")
    assert not told.plate.tells("camera_height")
    assert not plan_from({**MINIMAL, "plate": {"known": False, "tilt": 3}}).plate.tells("tilt")


def test_lamps_without_id_get_free_ones() -> None:
    plan = plan_from({**MINIMAL, "lights": [{}, {"id": "l1"}, {}]})
    assert [lamp.id for lamp in plan.lights] == ["l2", "l1", "l3"]


def test_a_disc_may_give_its_radius() -> None:
    plan = plan_from({**MINIMAL, "lights": [{"fixture": {"emitter": {"shape": "disc", "radius": 0.25}}}]})
    emitter = plan.lights[0].fixture.emitter
    assert emitter.shape == "disc"
    assert emitter.diameter == 0.5


def test_changes_are_checked_and_leave_the_old_plan_alone() -> None:
    plan = plan_from({**MINIMAL, "lights": [{}]})
    changed = apply_changes(plan, [Change("lights[0].dimmer", 0.5), Change("subject.z", 3.0)])
    assert (changed.lights[0].dimmer, plan.lights[0].dimmer) == (0.5, 1.0)
    for path, value in (("lights[4].dimmer", 1.0), ("camera.zoom", 2), ("camera.iso", -1.0)):
        with pytest.raises(PlanError) as caught:
            apply_changes(plan, [Change(path, value)])
        assert caught.value.path == path


def test_ranges_are_read_off_the_models() -> None:
    assert range_at("screen.width") == (0.1, 50.0)
    assert range_at("lights[3].position[2]") == (-100.0, 100.0)
    assert range_at("lights[0].fixture.beam.n") == (0.0, 1000.0)
    assert range_at("title") is None


JSON = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=8),
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=8), inner, max_size=4),
    max_leaves=12,
)


@given(
    JSON, st.sampled_from(["room", "screen", "subject", "camera", "lights", "flags", "window", "plate", "targets"])
)
def test_any_json_is_a_plan_or_a_clear_refusal(value: object, part: str) -> None:
    try:
        plan = plan_from({**MINIMAL, part: value})
    except PlanError as error:
        assert error.path  # noqa: PT017 - either outcome is right
        return
    assert plan_from(dump_plan(plan)) == plan
