"""What every set knows about a key, and what the model says against set lore: each with a fixed seed."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest

from ausblick.core.colour.curves import rec709
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.matte.both_formulas import measure_all
from ausblick.core.matte.capture import Capture, capture_of
from ausblick.core.matte.drawn_place import figure_place
from ausblick.core.matte.ground import plate_ground
from ausblick.core.matte.key_windows import crop_windows
from ausblick.core.matte.pixel_window import PixelWindow
from ausblick.core.matte.pull import Keyer, pull
from ausblick.core.matte.render import draw
from ausblick.core.matte.shoot import shoot
from ausblick.core.matte.simulation import quick
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.formats.clips import read_clip
from ausblick.formats.recording import through, write_clip
from ausblick.formats.testkey_pictures import views
from tests.core.matte.faultless import ideal_of
from tests.core.matte.test_simulate import RAW, captured, measures, plan
from tests.stores import STORE


def changed(own: Plan, **values: object) -> Capture:
    moved = apply_changes(own, [Change(path.replace("__", "."), value) for path, value in values.items()])
    return capture_of(evaluate(moved, STORE), STORE)


def test_what_is_shot_without_noise_and_codec_is_the_composite_of_the_clean_layers() -> None:
    own = plan(curve="linear")
    capture = ideal_of(capture_of(evaluate(own, STORE), STORE))
    drawn = draw(capture, PixelWindow(0, 0, 480, 270, 4.0))
    composite = drawn.foreground + (1.0 - drawn.alpha[..., None]) * drawn.background
    assert np.abs(shoot(capture, drawn, 1.0, through)[0] - np.clip(composite, 0.0, 1.0)).max() < 1e-6


@pytest.mark.torture
def test_a_mark_further_from_the_screen_leaves_less_of_its_colour() -> None:
    near, far = (changed(plan(), subject__z=z, camera__z=z + 4.2, lights=_moved(z)) for z in (0.9, 3.0))
    close, away = measures(near), measures(far)
    assert (away.edge_error or 0) < 0.7 * (close.edge_error or 0)
    assert (away.screen_left or 0) < (close.screen_left or 0)


def _moved(z: float) -> list[object]:
    lamps = [lamp.model_dump(mode="json") for lamp in plan().lights]
    lamps[2]["position"], lamps[2]["aim"] = [-1.2, 2.2, z + 2.2], [0.0, 1.5, z]
    return lamps


@pytest.mark.torture
def test_a_shadow_on_the_screen_needs_a_harder_clip() -> None:
    flat = replace(captured(), screen=ideal_of(captured()).screen, noise=0.2)
    x, y = np.meshgrid(flat.xs, flat.ys)
    dark = 1.0 - 0.4 * np.exp(-(((x - 0.6) / 0.25) ** 2) - ((y - 1.4) / 0.3) ** 2)
    shadowed = replace(flat, screen=flat.screen * dark[..., None])
    assert (measures(shadowed).needed_clip or 0) > (measures(flat).needed_clip or 0) + 0.1


def test_dark_green_cloth_keys_with_holes_until_the_screen_is_brighter() -> None:
    cloth = [{"name": "apron", "reflectance": [0.05, 0.08, 0.05], "gloss": 0.0}]
    own = apply_changes(plan(), [Change("subject.wardrobe", cloth)])
    capture = ideal_of(capture_of(evaluate(own, STORE), STORE))
    dim, bright = (replace(capture, screen=capture.screen * k) for k in (0.6, 1.5))
    holes = [measure_all(c, {"body": _body(c)}, through)[0].holes_percent or 0.0 for c in (dim, bright)]
    assert holes[0] > 20.0
    assert holes[1] < 0.7 * holes[0]


def _body(capture: Capture) -> PixelWindow:
    sensor = capture.plan.camera.sensor
    return PixelWindow(0.25 * sensor.px_w, 0.3 * sensor.px_h, 480, 270, 2.0)


@pytest.mark.torture
def test_folds_out_of_focus_need_a_softer_clip() -> None:
    flat = replace(captured(), screen=ideal_of(captured()).screen, noise=0.2)
    folded = replace(flat, folds=np.full_like(flat.folds, 0.3), defocus_px=0.0)
    melted = replace(folded, defocus_px=100.0)
    sharp, soft = measures(folded), measures(melted)
    assert (soft.needed_clip or 0) < 0.8 * (sharp.needed_clip or 0)
    # The figure itself stays where it is in focus: its edge must not get worse.
    assert (soft.hair_error or 0) < 1.1 * (sharp.hair_error or 0)


@pytest.mark.torture
def test_a_turned_camera_gives_a_standing_figure_more_pixels() -> None:
    lying = plan(subject={"framing": "full"}, focal_mm=28)
    turned = apply_changes(lying, [Change("camera.roll", 90.0), Change("camera.focal_mm", 49.8)])
    areas = []
    for own in (lying, turned):
        capture = capture_of(evaluate(own, STORE), STORE)
        drawn = draw(capture, next(iter(crop_windows(capture).values())))
        areas.append(drawn.cm2)
    assert areas[1] < 0.4 * areas[0]


@pytest.mark.torture
def test_lifting_a_dark_picture_is_no_better_than_the_same_light_at_higher_iso() -> None:
    """Set lore says it is; the same photons carry the same noise, and the product says so."""
    own = plan(iso=1600, f_number=8.0)
    straight = capture_of(evaluate(own, STORE), STORE)
    lifted = replace(capture_of(evaluate(apply_changes(own, [Change("camera.iso", 800.0)]), STORE), STORE), lift=2.0)
    a, b = measures(straight), measures(lifted)
    assert b.needed_clip == pytest.approx(a.needed_clip, rel=0.05)
    assert b.hair_error == pytest.approx(a.hair_error or 0, rel=0.1)


@pytest.mark.torture
def test_all_keyers_cut_a_clean_edge() -> None:
    shot = quick(plan(), STORE, through)
    capture = captured()
    names: tuple[Keyer, ...] = ("colour difference", "larger channel", "chroma distance")
    for name in names:
        pulled = pull(shot.linear, capture.key, capture.picked, 30.0, name)
        assert pulled is not None
        solid = shot.drawn.alpha > 0.999
        assert pulled.matte[solid].mean() > 0.97
        assert pulled.matte[pulled.flat].mean() < 0.02


def test_the_keyed_figure_over_a_plate() -> None:
    shot = quick(plan(), STORE, through)
    dull = plate_ground(plan(), None, shot.window)
    assert dull.shape == (3,)
    found = views(shot, captured().key, dull)
    corner = found["plate"][10, 40].astype(float) / 255.0
    assert np.allclose(corner, rec709(dull.astype(np.float64)), atol=0.03)
    assert {"matte", "second", "deviation", "plate"} - set(found) == {"second"}


@pytest.mark.parametrize(
    ("recording", "codec", "chroma", "bits"),
    [
        ({"codec": "long-gop", "chroma": "4:2:0", "bits": 8, "mbit_s": 20}, "h264", "4:2:0", 8),
        pytest.param(
            {"codec": "intra", "chroma": "4:2:2", "bits": 10, "mbit_s": 120},
            "h264",
            "4:2:2",
            10,
            marks=pytest.mark.torture,
        ),
        pytest.param(RAW, "ffv1", "4:4:4", 10, marks=pytest.mark.torture),
    ],
)
def test_a_written_clip_is_what_the_plan_records_and_measures_what_check_says(
    tmp_path: Path, recording: dict[str, object], codec: str, chroma: str, bits: int
) -> None:
    far = [{"position": [x, 1.4, 6.5], "aim": [0, 1.4, 0], "fixture": {"flux_lm": 60000.0}} for x in (-4.5, 4.5)]
    key = plan().lights[2].model_dump(mode="json")
    wide = {"width": 4.0, "height": 3.0, "wrinkle_slope": 0.0, "gloss": 0.0}
    own = apply_changes(plan(recording), [Change("lights", [*far, key]), Change("screen", wide)])
    evaluation = evaluate(own, STORE)
    shot = quick(own, STORE, through)
    signal = rec709(shot.drawn.frame).astype(np.float32)
    path = tmp_path / "take.mov"
    write_clip(path, [signal] * 6, own.camera.recording, own.camera.fps)
    facts, reading = read_clip(path)
    assert (facts.codec, facts.chroma, facts.bits, facts.fps) == (codec, chroma, bits, 25.0)
    assert evaluation.screen is not None
    mean = reading.frame.level_luma
    assert mean is not None
    assert mean.mean == pytest.approx(evaluation.screen.level_luma, rel=0.01)


def test_glass_is_seen_through_and_metal_mirrors_the_screen() -> None:
    """Held before the screen: the middle of a jar is mostly screen, a scoop's rim has the screen's colour."""
    found = {}
    for kind in ("glass", "metal", "matt"):
        own = apply_changes(plan(), [Change("subject.props", [{"name": kind, "kind": kind}])])
        capture = ideal_of(capture_of(evaluate(own, STORE), STORE))
        at = figure_place(capture, -0.228, 0.856)
        window = PixelWindow(float(at[0]) - 80.0, float(at[1]) - 60.0, 160, 120, 1.0)
        found[kind] = draw(capture, window)
    row = 60
    assert found["glass"].alpha[row, 80] < 0.4
    assert found["matt"].alpha[row, 80] == pytest.approx(1.0)
    # Its other side is behind the fingers.
    rim = np.nonzero(found["metal"].alpha[row] > 0.99)[0][-1]
    red, green, _ = found["metal"].foreground[row, rim]
    assert green > 1.3 * red
    red, green, _ = found["matt"].foreground[row, 80]
    assert green == pytest.approx(red, rel=0.1)
