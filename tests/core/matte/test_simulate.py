"""The simulated test key: exact truth, real codecs, trends that every set knows, and one number last."""

from __future__ import annotations

from dataclasses import replace
from functools import cache
from typing import Any

import numpy as np
import pytest

from ausblick.core.camera.sensor_noise import full_well, noise_linear, noise_percent
from ausblick.core.colour.curves import rec709
from ausblick.core.damage.scale import PARTS
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import read_frame
from ausblick.core.light.basis import BasisStore
from ausblick.core.matte.both_formulas import keyed, measure_all
from ausblick.core.matte.capture import Capture, capture_of
from ausblick.core.matte.key_windows import crop_windows
from ausblick.core.matte.levers import Lever, levers_of
from ausblick.core.matte.pixel_window import PixelWindow
from ausblick.core.matte.quality import Measures
from ausblick.core.matte.render import draw
from ausblick.core.matte.simulation import SimulatedKey, quick, simulate
from ausblick.core.matte.window_shot import NoScreen
from ausblick.core.plan import Change, Plan, apply_changes, plan_from
from ausblick.core.sentences import say
from ausblick.formats.recording import codec_class, pixel_format, through
from tests.core.matte.faultless import ideal_of, tinted
from tests.stores import STORE

SENSOR = {"width_mm": 23.5, "height_mm": 13.2, "px_w": 1920, "px_h": 1080, "base_iso": 400}
RAW = {"codec": "raw", "chroma": "raw", "bits": 12, "mbit_s": 800}
LONG_GOP = {"codec": "long-gop", "chroma": "4:2:0", "bits": 8, "mbit_s": 25}


def plan(recording: dict[str, Any] = RAW, subject: dict[str, Any] | None = None, **camera: Any) -> Plan:
    pair = [
        {"position": [x, 1.4, 2.6], "aim": [-0.2 * x, 1.4, 0], "fixture": {"flux_lm": 24000.0}} for x in (-2.4, 2.4)
    ]
    key = {"role": "key", "position": [-1.2, 2.2, 4.6], "aim": [0, 1.5, 2.4], "fixture": {"flux_lm": 16000.0}}
    grey = {"walls": [0.2, 0.2, 0.2], "ceiling": [0.2, 0.2, 0.2], "floor": [0.1, 0.1, 0.1]}
    return plan_from({
        "format": "ausblick-plan", "version": 1, "lights": [*pair, key], "room": {"reflectance": grey},
        "screen": {"wrinkle_slope": 0.0, "gloss": 0.0},
        "subject": {"framing": "waist", "hair": [0.3, 0.2, 0.1], "hair_kind": "fine", **(subject or {})},
        "camera": {"sensor": SENSOR, "focal_mm": 50, "z": 6.6, "recording": recording, **camera},
    })  # fmt: skip


@cache
def captured(shutter: float = 0.01, **camera: Any) -> Capture:
    return capture_of(evaluate(plan(shutter_s=shutter, **camera), STORE), STORE)


def measures(capture: Capture) -> Measures:
    return measure_all(capture, crop_windows(capture), through)[0]


def test_the_true_matte_is_exact() -> None:
    capture = captured()
    for window in (PixelWindow(0, 0, 480, 270, 4.0), *crop_windows(capture).values()):
        drawn = draw(capture, window)
        composite = drawn.foreground + (1.0 - drawn.alpha[..., None]) * drawn.background
        assert np.abs(drawn.frame - composite).max() < 1e-6
        assert drawn.alpha.min() >= 0.0
        assert drawn.alpha.max() <= 1.0 + 1e-6
        assert ((drawn.alpha > 0.01) & (drawn.alpha < 0.99)).any()


def test_the_same_plan_gives_the_same_key() -> None:
    one, two = (quick(plan(LONG_GOP), BasisStore(), through) for _ in range(2))
    assert one.pulled is not None
    assert two.pulled is not None
    assert np.array_equal(one.linear, two.linear)
    assert np.array_equal(one.pulled.matte, two.pulled.matte)


def test_the_simulated_frame_measures_what_check_says() -> None:
    even = plan(subject={"z": 2.6}, iso=400, f_number=5.6)
    evaluation = evaluate(even, STORE)
    assert evaluation.screen is not None
    shot = quick(even, STORE, through)
    signal = rec709(shot.linear.astype(np.float64))
    frame = Frame(np.round(65535.0 * signal).astype(np.uint16), 65535.0)
    reading = read_frame(frame)
    assert reading.level_luma is not None
    assert reading.hue == "green"
    # The frame shows more of the screen than is judged: the same within a point and a half.
    assert reading.level_luma.mean == pytest.approx(evaluation.screen.level_luma, abs=1.5)


@pytest.mark.torture
def test_a_faster_shutter_leaves_less_soft_edge_and_a_smaller_hand_error() -> None:
    slow, fast = (measures(replace(captured(), smear_px=px, noise=0.2)) for px in (24.0, 3.0))
    assert fast.soft_edge is not None
    assert slow.soft_edge is not None
    assert fast.soft_edge < 0.6 * slow.soft_edge
    assert (fast.motion_error or 0) < (slow.motion_error or 0)


def test_noise_lifts_the_clip_that_the_screen_needs() -> None:
    even = replace(captured(), screen=ideal_of(captured()).screen)
    low, high = (measures(replace(even, noise=n)) for n in (0.5, 12.0))
    assert (high.needed_clip or 0) > 1.5 * (low.needed_clip or 0)


@pytest.mark.torture
def test_chroma_subsampling_costs_edges() -> None:
    errors = {}
    for name, recording in {
        "4:2:0": LONG_GOP,
        "4:2:2": {"codec": "intra", "chroma": "4:2:2", "bits": 10, "mbit_s": 300},
        "4:4:4": RAW,
    }.items():
        capture = replace(captured(), recording=plan(recording).camera.recording)
        errors[name] = measures(capture)
    assert (errors["4:4:4"].edge_error or 1) < 0.6 * (errors["4:2:0"].edge_error or 0)
    assert (errors["4:4:4"].hair_error or 1) < (errors["4:2:2"].hair_error or 0) < (errors["4:2:0"].hair_error or 0)


@pytest.mark.torture
def test_unevenness_needs_a_harder_clip() -> None:
    flat = replace(captured(), screen=ideal_of(captured()).screen)
    slope = 1.0 + 0.5 * np.linspace(-0.5, 0.5, len(flat.xs))[None, :, None]
    even, uneven = measures(flat), measures(replace(flat, screen=flat.screen * slope))
    assert (uneven.needed_clip or 0) > (even.needed_clip or 0) + 0.03


@pytest.mark.torture
def test_spill_leaves_colour_and_holes() -> None:
    clean = ideal_of(captured())
    spilled = measures(tinted(clean, (1.0, 2.2, 1.0)))
    assert (spilled.edge_error or 0) > (measures(clean).edge_error or 0)
    assert (spilled.holes_percent or 0) >= (measures(clean).holes_percent or 0)


@pytest.mark.torture
def test_a_yellow_garment_brighter_than_the_screen_is_not_taken_for_it() -> None:
    """It has more of the key channel than a dark green wall; by its hue it is no screen, and it is lost or kept."""
    gown = [{"name": "gown", "reflectance": [0.75, 0.65, 0.10]}]
    dark = {"wrinkle_slope": 0.0, "gloss": 0.0, "reflectance": [0.02, 0.12, 0.035]}
    own = apply_changes(plan(), [Change("subject.wardrobe", gown), Change("screen", dark)])
    capture = capture_of(evaluate(own, STORE), STORE)
    kinder, other = keyed(capture, crop_windows(capture), through)
    assert kinder.formula == "larger channel"
    assert (kinder.measures.matte_loss or 0) < 10.0 < (other.measures.matte_loss or 0)
    shot = quick(own, STORE, through)
    assert shot.pulled is not None
    assert shot.pulled.screen[5, 5, 0] < 0.3 * shot.pulled.screen[5, 5, 1], "the screen that was found is green"


@pytest.mark.parametrize("share", [0.7, 0.45, 0.3])
def test_a_dark_part_of_the_screen_is_still_screen_and_the_clip_holds_it(share: float) -> None:
    """A third of the screen at 0.5, 1.2 and 1.7 stops less: one clip has to be 1 less that, and the local estimate
    keys it away."""
    flat = replace(ideal_of(captured()), noise=0.1)
    step = np.where(flat.xs < -0.55, share, 1.0)
    soft = np.convolve(np.pad(step, 4, mode="edge"), np.full(9, 1.0 / 9.0), mode="valid")
    kinder, _ = keyed(replace(flat, screen=flat.screen * soft[None, :, None]), crop_windows(flat), through)
    assert kinder.measures.needed_clip == pytest.approx(1.0 - share, abs=0.04)
    assert (kinder.measures.residue_percent or 0.0) < 5.0


@pytest.mark.torture
def test_a_codec_has_fewer_bits_for_each_frame_the_more_frames_there_are() -> None:
    given: list[float] = []

    def codec(frames: Any, recording: Any, bits: float) -> Any:
        given.append(bits)
        return through(frames, recording, bits)

    for fps in (25.0, 100.0):
        quick(plan(LONG_GOP, fps=fps), STORE, codec)
    assert given[0] == pytest.approx(4.0 * given[1])


@pytest.fixture(scope="module")
def found() -> tuple[Plan, SimulatedKey]:
    own = plan(LONG_GOP, shutter_s=0.02, iso=1600, f_number=8.0)
    return own, simulate(own, STORE, through)


def test_the_whole_key_says_its_parts_first(found: tuple[Plan, SimulatedKey]) -> None:
    _, key = found
    assert set(key.crops) == {"hair", "hand"}
    assert [part.name for part in key.parts] == [part.name for part in PARTS]
    assert 0 < key.quality < 100


@pytest.fixture(scope="module")
def tried(found: tuple[Plan, SimulatedKey]) -> tuple[list[Lever], list[str]]:
    """Every lever of the plan, and a recorder of the kit; the steps that were told."""
    own, key = found
    raw = own.camera.recording.model_copy(update={"codec": "raw", "chroma": "raw", "bits": 12, "mbit_s": 800.0})
    steps: list[str] = []
    return levers_of(own, key.quality, STORE, through, steps.append, recorders=[("raw recorder", raw)]), steps


@pytest.mark.torture
def test_levers_are_ranked_and_sharpening_is_none_of_them(tried: tuple[list[Lever], list[str]]) -> None:
    levers, steps = tried
    assert [lever.gain for lever in levers] == sorted((lever.gain for lever in levers), reverse=True)
    assert len(levers) >= 6
    assert len(steps) >= len(levers)
    assert not any("harp" in say(lever.change) for lever in levers)
    winning = [say(lever.change) for lever in levers if lever.gain > 0.5]
    assert any("raw" in words for words in winning)
    assert "Shutter 1/100" in winning[0], "a hand that smears at 1/50 s costs most"


@pytest.mark.torture
def test_recorders_of_the_kit_are_compared_by_their_key(
    found: tuple[Plan, SimulatedKey], tried: tuple[list[Lever], list[str]]
) -> None:
    _, key = found
    by_name = {say(lever.change).split(":")[0]: lever for lever in tried[0]}
    assert by_name["raw recorder"].gain > 1.0
    assert "times the storage" in say(by_name["raw recorder"].cost)
    assert any("lifted afterwards" in say(lever.change) for lever in tried[0])
    assert key.second is not None
    assert key.flicker_percent is not None
    assert 0.0 < key.flicker_percent < 20.0
    assert key.second.hair_error != key.measures.hair_error


def test_a_lever_run_can_be_cancelled(found: tuple[Plan, SimulatedKey]) -> None:
    class Stopped(Exception):
        pass

    def stop(_: str) -> None:
        raise Stopped

    own, key = found
    with pytest.raises(Stopped):
        levers_of(own, key.quality, STORE, through, stop)


def test_nothing_to_key_is_said() -> None:
    away = plan(pan=180.0)
    with pytest.raises(NoScreen):
        simulate(away, STORE, through)


@pytest.mark.parametrize(
    ("recording", "name", "kind"),
    [
        ({"codec": "long-gop", "chroma": "4:2:0", "bits": 8}, "yuv420p", "long-gop"),
        ({"codec": "long-gop", "chroma": "4:2:0", "bits": 10}, "yuv420p10le", "long-gop"),
        ({"codec": "intra", "chroma": "4:2:2", "bits": 10}, "yuv422p10le", "intra"),
        ({"codec": "uncompressed", "chroma": "4:4:4", "bits": 8}, "yuv444p", "lossless"),
        (RAW, "yuv444p10le", "lossless"),
    ],
)
def test_a_recording_goes_through_the_codec_it_names(recording: dict[str, Any], name: str, kind: str) -> None:
    own = plan(recording).camera.recording
    assert (pixel_format(own), codec_class(own)) == (name, kind)
    ramp = np.zeros((64, 96, 3), dtype=np.float32)
    ramp[..., 0] = np.linspace(0.1, 0.9, 96, dtype=np.float32)
    ramp[..., 1] = 0.5
    ramp[..., 2] = 0.3
    decoded = through([ramp] * 3, own, 200_000.0)
    assert len(decoded) == 3
    assert np.abs(decoded[1] - ramp).mean() < (0.003 if kind == "lossless" else 0.02)


def test_noise_of_a_typical_sensor() -> None:
    camera = plan().camera
    assert full_well(camera) == pytest.approx(2500 * (1000 * 23.5 / 1920) ** 2)
    white = noise_linear(np.ones(3), camera)
    # At white and base ISO the well is full: shot noise of its electrons in green.
    assert white[1] == pytest.approx(full_well(camera) ** -0.5, rel=0.01)
    faster = camera.model_copy(update={"iso": 1600.0})
    assert noise_linear(np.ones(3), faster)[1] == pytest.approx(2.0 * white[1], rel=0.01)
    assert noise_percent(np.full(3, 0.18), camera)[0] > noise_percent(np.full(3, 0.18), camera)[1]
