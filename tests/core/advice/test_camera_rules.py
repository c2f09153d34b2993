"""Recording, picture and noise: what the camera rules say of a plan and what their remedies do."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.advice.findings import find
from ausblick.core.advice.rule import Finding
from ausblick.core.advice.rule_set import CRAFT
from ausblick.core.advice.search.recorders import recorders_of
from ausblick.core.camera.sensor_noise import noise_percent
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.evaluation.numbers import numbers
from ausblick.core.kit.catalogue import full_kit
from ausblick.core.plan import Plan, apply_changes, plan_from
from ausblick.core.sentences import say
from tests.stores import STORE

KEY = {"role": "key", "position": [-1, 2.1, 4.6], "aim": [0, 1.5, 2.4], "fixture": {"flux_lm": 9000.0, "cct": 3200}}


def plan(medium: str = "video", **camera: Any) -> Plan:
    return plan_from(
        {"format": "ausblick-plan", "version": 1, "medium": medium, "lights": [{}, KEY], "camera": camera}
    )


def finding(own: Plan, rule: str) -> Finding | None:
    return next(iter(find(own, STORE, only=(rule,))[1]), None)


@pytest.mark.parametrize(
    ("camera", "rule", "severity"),
    [
        ({"f_number": 16.0}, "camera.diffraction", "consider"),
        ({"f_number": 4.0}, "camera.diffraction", "fine"),
        ({"white_balance_k": 5600}, "camera.white-balance", "consider"),
        ({"white_balance_k": 3200}, "camera.white-balance", "fine"),
        ({"fps": 50, "playback_fps": 25}, "camera.speed", "consider"),
        ({"recording": {"chroma": "4:2:2", "bits": 10, "codec": "intra", "mbit_s": 500}}, "recording.chroma", "fine"),
        ({"recording": {"mbit_s": 5}}, "recording.rate", "consider"),
        ({"recording": {"mbit_s": 100}}, "recording.rate", "fine"),
        ({"curve": "acescct"}, "recording.log", "consider"),
        ({"noise_reduction": True}, "recording.noise-reduction", "fix"),
        ({"recording": {"codec": "long-gop", "bits": 10, "mbit_s": 400}}, "recording.playback", "consider"),
    ],
)
def test_what_each_rule_says(camera: dict[str, Any], rule: str, severity: str) -> None:
    found = finding(plan(**camera), rule)
    assert found is not None
    assert found.judgement.severity == severity
    if severity != "fine" and rule not in ("recording.playback",):
        assert found.remedies, rule


def test_no_word_of_log_for_a_display_curve_and_no_codec_for_stills() -> None:
    assert finding(plan(), "recording.log") is None
    assert finding(plan("stills"), "recording.rate") is None
    [rule] = CRAFT.only(["recording.chroma"])
    assert "raw" in say(rule.propose(evaluate(plan("stills"), STORE), STORE)[0].text)


def test_white_balance_is_led_to_the_key() -> None:
    found = finding(plan(white_balance_k=5600), "camera.white-balance")
    assert found is not None
    assert found.judgement.value == pytest.approx(1e6 / 3200 - 1e6 / 5600, rel=0.01)
    assert found.remedies[0].changes[0].value == 3200.0


def test_slow_motion_costs_a_stop_for_twice_the_rate() -> None:
    found = finding(plan(fps=50, playback_fps=25), "camera.speed")
    assert found is not None
    assert "50 % of its speed, 1.0 stops less light" in say(found.judgement.says)


def test_a_measured_frame_takes_the_place_of_the_noise_model() -> None:
    own = plan().camera
    x = np.full(3, 0.18)
    model = float(noise_percent(x, own)[1])
    reading = {"percent": 2.0 * model, "level": 40.9, "iso": own.iso}
    measured = plan(noise=reading).camera
    assert noise_percent(x, measured)[1] == pytest.approx(2.0 * model, rel=0.02)
    # Two stops more ISO than it was measured at: twice as much again, as light has it.
    faster = measured.model_copy(update={"iso": 4.0 * own.iso})
    assert noise_percent(x, faster)[1] == pytest.approx(4.0 * model, rel=0.05)


def test_recorders_of_the_kit_are_ranked_by_what_they_keep() -> None:
    rows = recorders_of(plan(), full_kit())
    assert [r.recording.chroma for r in rows] == ["raw", "4:2:2", "4:2:0"]
    assert [r.chosen for r in rows] == [False, False, True]
    assert rows[1].gb_minute == pytest.approx(3.75)
    assert rows[1].card_minutes == pytest.approx(256.0 / 3.75)
    assert rows[1].bits_a_pixel == pytest.approx(500e6 / (3840 * 2160 * 25), rel=1e-6)


def test_data_says_what_follows_the_day() -> None:
    from ausblick.core.evaluation.evaluate import evaluate

    data = next(n for n in numbers(evaluate(plan(recording={"mbit_s": 100}), STORE)) if n.id == "data")
    said = {i.name: i.value for i in data.inputs}
    assert said["an hour of takes"] == pytest.approx(45.0)
    assert said["offload of it at 250 MB/s"] == pytest.approx(3.0)


def test_only_what_moves_has_a_shutter_angle() -> None:
    from ausblick.core.evaluation.evaluate import evaluate

    told = {medium: {n.id: n.value for n in numbers(evaluate(plan(medium), STORE))} for medium in ("video", "stills")}
    assert told["video"]["angle"] == pytest.approx(360.0 * 0.01 * 25.0)
    assert "angle" not in told["stills"]


def test_in_the_sun_a_slower_shutter_comes_with_a_filter_that_keeps_the_exposure() -> None:
    sun = {"role": "key", "position": [-6, 8, 9], "aim": [0, 1, 0],
           "fixture": {"emitter": {"shape": "sun"}, "normal_lux": 70000}}  # fmt: skip
    outdoors = plan_from({
        "format": "ausblick-plan", "version": 1, "room": {"kind": "exterior", "ambient_lux": 12000}, "lights": [sun],
        "camera": {"shutter_s": 0.001, "f_number": 8.0, "iso": 400, "z": 7.5},
    })  # fmt: skip
    found = finding(outdoors, "camera.shutter-angle")
    assert found is not None
    with_filter = next(one for one in found.remedies if "ND" in say(one.text))
    after = evaluate(apply_changes(outdoors, with_filter.changes), STORE)
    assert after.plan.camera.nd_stops == 4.0
    assert after.blur.shutter_angle == pytest.approx(180.0)
    assert after.exposure.stops_over == pytest.approx(evaluate(outdoors, STORE).exposure.stops_over, abs=0.35)


@pytest.mark.parametrize(("hz", "slow"), [(50, 1 / 50), (60, 1 / 60)])
def test_under_lamps_that_flicker_the_faster_shutter_is_one_that_cuts_no_flash(hz: int, slow: float) -> None:
    """The nearest time is 1/100 or 1/120 s, and one of them cuts flashes: nobody is to choose between them."""
    own = plan_from({
        "format": "ausblick-plan", "version": 1, "room": {"mains": {"hz": hz}}, "subject": {"speed": 0.73},
        "lights": [{"fixture": {"flicker": "mains"}}, KEY], "camera": {"shutter_s": slow, "fps": 25},
    })  # fmt: skip
    smear = finding(own, "camera.smear")
    assert smear is not None
    assert smear.judgement.severity != "fine"
    shutters = {round(1.0 / apply_changes(own, one.changes).camera.shutter_s) for one in smear.remedies}
    assert shutters == {2 * hz}
