"""What is predicted of a key: against closed forms, and against a key that is drawn."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from ausblick.core.camera.sensor_noise import noise_linear
from ausblick.core.damage.matte_loss import Lit, losses_of
from ausblick.core.damage.moving_hand import MovingHand, causes_of_motion
from ausblick.core.damage.needed_clip import clips_of, needed_clip
from ausblick.core.damage.screen_signal import ScreenPatch, ScreenSignal, signal_of
from ausblick.core.damage.smeared_hand import COVERS, SmearedHand
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.evaluation.numbers import numbers
from ausblick.core.light.basis import BasisStore
from ausblick.core.matte.simulation import simulate
from ausblick.core.plan import plan_from
from ausblick.formats.recording import through

GREEN = np.array([0.06, 0.34, 0.10])
CAMERA = plan_from({"format": "ausblick-plan", "version": 1}).camera
QUANTILE = 2.5758
"""Of the normal distribution at 99.5 %."""


def screen(light: Any, folds: float = 0.0, opened: float = 1.0) -> ScreenPatch:
    lit = np.asarray(light, dtype=float)
    ones = np.ones(lit.shape)
    return ScreenPatch(GREEN * lit[:, None], opened * ones, folds * ones, ones)


def signal(*patches: ScreenPatch, formula: Any = "mean") -> ScreenSignal:
    found = signal_of(patches, 1, CAMERA, formula)
    assert found is not None
    return found


def quiet(found: ScreenSignal) -> ScreenSignal:
    return replace(found, noise=np.zeros_like(found.noise))


def test_an_even_screen_needs_a_clip_for_its_noise_alone() -> None:
    found = signal(screen(np.ones(400)))
    sigma = noise_linear(GREEN, CAMERA)
    of_d = math.sqrt(sigma[1] ** 2 + 0.25 * (sigma[0] ** 2 + sigma[2] ** 2))
    assert found.noise_share == pytest.approx(of_d / (0.34 - 0.08), rel=1e-6)
    assert needed_clip(found) == pytest.approx(QUANTILE * found.noise_share, rel=1e-2)


def test_folds_cost_half_their_contrast_by_the_quantile() -> None:
    assert needed_clip(quiet(signal(screen(np.ones(400), folds=0.1)))) == pytest.approx(QUANTILE * 0.05, rel=1e-2)


def test_the_dark_side_costs_what_it_lacks_and_a_hot_spot_costs_nothing() -> None:
    dark = np.concatenate([np.ones(350), np.full(50, 0.6)])
    hot = np.concatenate([np.ones(350), np.full(50, 1.6)])
    assert needed_clip(quiet(signal(screen(dark)))) == pytest.approx(0.4, abs=0.005)
    assert needed_clip(quiet(signal(screen(hot)))) == pytest.approx(0.0, abs=0.005)


def test_what_a_shadow_adds_is_told_apart_from_unevenness() -> None:
    lit, shaded = screen(np.ones(350)), screen(np.full(50, 0.6), opened=1.0 / 0.6)
    found = quiet(signal(lit, shaded))
    (clip,) = clips_of([found])
    causes = clip.causes
    assert clip.needed == pytest.approx(needed_clip(found), abs=1e-9)
    assert causes["shadow"] == pytest.approx(0.4, abs=0.005)
    assert causes["unevenness"] == pytest.approx(0.0, abs=0.005)


def test_what_clips_is_told_by_the_difference_that_is_lost() -> None:
    """Four times the light: 0.24, 1.36 and 0.40; of 1.36 - 0.32 there is 1 - 0.32 left."""
    found = signal(screen(np.full(10, 4.0)))
    assert found.clipped == pytest.approx(1.04 / 0.68 - 1.0)
    assert signal(screen(np.full(10, 2.0))).clipped == pytest.approx(0.0)
    assert signal(screen(np.full(10, 40.0))).clipped > 100.0, "at white in every channel nothing is left"


def lost(thing: Lit, before: ScreenSignal) -> float:
    return losses_of({"thing": thing}, before, 1, black=0.0)["thing"]


EVEN = np.ones((1, 3))
"""White light on all of a thing."""


@pytest.mark.parametrize(
    ("ink", "mean", "larger"),
    [((0.5, 0.5, 0.5), 0.0, 0.0), (tuple(GREEN), 100.0, 100.0), ((0.30, 0.30, 0.04), 48.0, 0.0)],
)
def test_cloth_is_lost_by_the_colour_it_shares(ink: tuple[float, float, float], mean: float, larger: float) -> None:
    """Grey has none of it, the screen's own cloth has all; yellow shares it with red: d is 0.13 of 0.26, so the matte
    is 0.5 / 0.96 by the mean of the others, and whole by the larger of them."""
    thing = Lit(np.array(ink), EVEN)
    assert lost(thing, quiet(signal(screen(np.ones(9))))) == pytest.approx(mean, abs=0.5)
    assert lost(thing, quiet(signal(screen(np.ones(9)), formula="larger"))) == pytest.approx(larger, abs=0.5)


def test_the_same_cloth_is_kept_before_a_brighter_screen() -> None:
    leaf = Lit(np.array([0.10, 0.20, 0.10]), EVEN)
    dim, bright = (lost(leaf, signal(screen(np.full(9, lit)))) for lit in (0.7, 2.0))
    assert dim > bright + 20.0


DARK_GREY = Lit(np.full(3, 0.2), EVEN)


def seen_hand(melts: float) -> SmearedHand:
    """So many cm2 of hand, and half of sleeve, at every cover alike beside what is solid, and their outlines."""
    even = np.append(np.full(len(COVERS) - 1, melts / (len(COVERS) - 1)), 60.0)
    return SmearedHand(even, 0.5 * even, 70.0, 20.0)


MOVING = MovingHand(
    hand=DARK_GREY, sleeve=DARK_GREY, screen=GREEN, d=0.26, formula="mean", key=1, noise=0.0, folds=0.0, clipped=0.0,
    chroma="4:4:4", pixel_cm=0.1, seen=seen_hand(40.0),
)  # fmt: skip


def motion(**change: Any) -> dict[str, float]:
    return causes_of_motion(replace(MOVING, **change))


@pytest.mark.parametrize(
    ("change", "cause"),
    [
        ({"chroma": "4:2:0"}, "recording"),
        ({"noise": 0.05}, "noise"),
        ({"seen": seen_hand(120.0)}, "smear"),
        ({"hand": Lit(np.array([0.7, 0.3, 0.25]), 1.5 * EVEN)}, "dark screen"),
        ({"sleeve": Lit(np.array([0.10, 0.20, 0.10]), 1.5 * EVEN)}, "screen colour"),
        ({"screen": 5.0 * GREEN, "d": 1.0 - 0.4, "clipped": 1.17}, "clipping"),
    ],
)
def test_each_fault_costs_the_moving_hand_by_its_name(change: dict[str, Any], cause: str) -> None:
    assert motion(**change)[cause] > motion()[cause] + 0.15
    assert sum(motion(**change).values()) > sum(motion().values()) + 0.15


def test_a_hand_of_no_colour_before_a_clean_screen_errs_by_the_clips_alone() -> None:
    """Grey has no d: the matte is the cover between two clips. Its error, by hand: below the black clip the cover
    itself, above the white one what is left, between them the straight line's distance."""
    black, white = 0.005, 0.96
    crossing = black / (1.0 - (white - black))
    below, between = 0.5 * black**2, 0.5 * (crossing - black) * black
    above = 0.5 * (1.0 - crossing) * (1.0 - white)
    told = motion()
    melts = 40.0 + 20.0 + 0.58 * 0.1 * (70.0 + 20.0)
    assert sum(told.values()) == pytest.approx(melts * (below + between + above), rel=0.06)
    assert told["screen colour"] + told["dark screen"] + told["clipping"] == pytest.approx(0.0, abs=1e-9)


def test_where_a_screen_clips_a_half_covered_pixel_is_still_all_screen() -> None:
    """Grey at a tenth over a screen of four times white: half covered, every pixel is yet at white in the key
    channel, and the matte comes late."""
    late = motion(screen=np.array([0.4, 4.0, 0.4]), d=0.6, clipped=5.0)
    assert sum(late.values()) > 10.0 * sum(motion().values())
    assert late["clipping"] > 0.4 * sum(late.values())


@pytest.mark.torture
@pytest.mark.parametrize("apart", [0.9, 0.25])
def test_a_drawn_key_is_as_good_as_it_was_predicted(apart: float) -> None:
    """One lamp at less than the other: the clip within 0.03, the quality within ten points."""
    lights = [
        {"position": [x, 1.4, 2.6], "aim": [-0.2 * x, 1.4, 0], "dimmer": dimmer, "fixture": {"flux_lm": 24000.0}}
        for x, dimmer in ((-2.4, 0.9), (2.4, apart))
    ]
    key = {"role": "key", "position": [-1.2, 2.2, 4.6], "aim": [0, 1.5, 2.4], "fixture": {"flux_lm": 16000.0}}
    own = plan_from({
        "format": "ausblick-plan", "version": 1, "lights": [*lights, key],
        "subject": {"framing": "waist", "hair_kind": "fine", "speed": 0.5},
        "camera": {"focal_mm": 50, "z": 6.6, "shutter_s": 0.01, "sensor": {"px_w": 1920, "px_h": 1080},
                   "recording": {"codec": "raw", "chroma": "raw", "bits": 12, "mbit_s": 800}},
    })  # fmt: skip
    store = BasisStore()
    damage = evaluate(own, store).damage
    assert damage is not None
    drawn = simulate(own, store, through)
    assert damage.kinder.needed_clip == pytest.approx(drawn.measures.needed_clip, abs=0.03)
    assert damage.kinder.quality == pytest.approx(drawn.quality, abs=10.0)
    told = {number.id: number for number in numbers(evaluate(own, store))}
    assert told["quality"].value == damage.kinder.quality
    assert told["clip"].value == damage.kinder.needed_clip
    assert {part.name for part in told["clip"].inputs} == {"unevenness", "shadow", "folds", "noise"}


def test_who_stands_beside_a_window_loses_neither_hair_nor_hand_to_the_key() -> None:
    """Before the wall round it nothing is keyed: a set of an office, its speaker before the pane and beside it."""
    pane = {"x": 0.0, "y": 1.5, "z": 1.5, "width": 1.8, "height": 1.4, "in_wall": True}
    key = {"id": "k1", "role": "key", "position": [-1.0, 2.2, 5.6], "aim": [0.0, 1.6, 4.0]}

    def told(across: float, **parts: Any) -> tuple[float, float]:
        plan = plan_from({
            "format": "ausblick-plan", "version": 1, "screen": {"width": 4.0, "height": 2.8}, "window": pane,
            "subject": {"x": across, "z": 4.0, "framing": "waist", "speed": 1.5}, "camera": {"x": across, "z": 7.6},
            "lights": [{"id": "l1", "role": "screen", "position": [-2.4, 1.5, 1.1], "aim": [0.4, 1.5, 0.0]}, key],
            **parts,
        })  # fmt: skip
        damage = evaluate(plan, BasisStore()).damage
        assert damage is not None
        return sum(damage.mean.hair_causes.values()), sum(damage.mean.motion_causes.values())

    hair, motion = told(0.0)
    assert min(hair, motion) > 0.0
    assert told(2.6) == (0.0, 0.0)
    wide = {"width": 8.0, "height": 2.8}
    assert told(2.6, screen=wide) == (0.0, 0.0)
    assert min(told(2.6, screen=wide, window=None)) > 0.0
    assert told(2.6, window=None) == (0.0, 0.0), "beyond the screen"
