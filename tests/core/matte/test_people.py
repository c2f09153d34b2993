"""Two people drawn: each as alone, and who is nearer hides the other."""

from __future__ import annotations

from functools import cache
from typing import Any

import numpy as np
import pytest

from ausblick.core.advice.check_report import check_report
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.matte.both_formulas import keyed
from ausblick.core.matte.capture import capture_of
from ausblick.core.matte.key_report import test_key_report as key_report
from ausblick.core.matte.key_windows import crop_windows, overview_window
from ausblick.core.matte.render import Drawn, draw
from ausblick.core.matte.simulation import SimulatedKey
from ausblick.core.plan import Plan, plan_from
from ausblick.formats.recording import through
from tests.stores import STORE

RED, BLUE = [0.5, 0.02, 0.02], [0.02, 0.02, 0.5]


@cache
def drawn(x: float | None, z: float = 2.0, nearest: float = 2.6, f_number: float = 8.0, px: int = 480) -> Drawn:
    """The subject in red, and a companion in blue at x."""
    blue = {"name": "visitor", "x": x, "z": z, "wardrobe": [{"reflectance": BLUE}], "hair_kind": "none"}
    parts: dict[str, Any] = {
        "lights": [{"position": [-1.5, 2.4, 6.8], "aim": [0, 1.2, 0], "fixture": {"flux_lm": 20000.0}}],
        "subject": {"z": nearest, "wardrobe": [{"reflectance": RED}], "hair_kind": "none"},
        "companions": [] if x is None else [blue],
        "camera": {"z": 6.6, "y": 0.9, "focal_mm": 20.0 if px == 480 else 28.0, "f_number": f_number},
    }
    plan = plan_from({"format": "ausblick-plan", "version": 1, **parts})
    return draw(capture_of(evaluate(plan, STORE), STORE), overview_window(plan, px))


def share_of(picture: Drawn, channel: int) -> float:
    """How much of the picture is a garment in which one channel leads."""
    light = picture.foreground / np.maximum(picture.alpha, 1e-6)[..., None]
    leads = light[..., channel] > 3.0 * np.delete(light, channel, axis=-1).max(axis=-1)
    return float((leads & (picture.alpha > 0.9)).mean())


def test_two_apart_cover_what_each_covers_alone() -> None:
    both, one = drawn(1.0), drawn(None)
    extra = both.alpha - one.alpha
    assert extra.min() > -1e-6
    width = both.alpha.shape[1]
    assert extra[:, : width // 2].max() < 1e-6
    # The companion stands further away and covers less, by the square of the distance from the lens.
    ratio = float(extra.sum() / one.alpha.sum())
    assert abs(ratio / (4.0 / 4.6) ** 2 - 1.0) < 0.08
    assert np.allclose(both.frame, both.foreground + (1.0 - both.alpha[..., None]) * both.background, atol=1e-9)


def test_who_stands_nearer_hides_the_other() -> None:
    behind, before = drawn(0.0, z=2.0), drawn(0.0, z=3.4)
    assert share_of(behind, 0) > 10.0 * share_of(behind, 2)
    assert share_of(before, 2) > 10.0 * share_of(before, 0)


def test_a_companion_off_the_mark_is_out_of_focus_and_the_matte_still_true() -> None:
    """Wide open, 1.2 m behind a mark 4 m from the lens: a disc of 1.9 px, by hand. Who is on the mark stays sharp.

    c = f^2 / (N (s - f)) * |D - s| / D = 784 / 3972 * 1.2 / 5.2 = 0.0455 mm of 23.5.
    """
    sharp, soft = (drawn(1.0, z=1.4, f_number=f, px=960) for f in (16.0, 1.0))
    half = sharp.alpha.shape[1] // 2

    def edge(picture: Drawn, side: slice) -> int:
        return int(((picture.alpha > 0.02) & (picture.alpha < 0.98))[:, side].sum())

    hers, subjects = slice(half + 130, None), slice(half - 30)
    assert edge(soft, hers) > 1.5 * edge(sharp, hers)
    assert edge(soft, subjects) == edge(sharp, subjects)
    assert abs(soft.alpha.sum() / sharp.alpha.sum() - 1.0) < 0.01


def beside(ink: tuple[float, float, float], x: float = 0.5) -> Plan:
    """A subject in grey, and a visitor in `ink` beside them on an even screen."""
    panel = {"fixture": {"flux_lm": 20000.0, "emitter": {"shape": "rect", "width": 1.0, "height": 0.6}}}
    lamps = [{**panel, "position": [x, 1.6, 2.4], "aim": [-0.3 * x, 1.6, 0.0]} for x in (-3.2, 3.2)]
    key = {**panel, "role": "key", "position": [-1.6, 2.4, 6.4], "aim": [0.0, 1.5, 3.4]}
    grey = {"name": "grey coat", "reflectance": [0.2, 0.2, 0.21]}
    visitor = {"name": "visitor", "x": x, "z": 3.4, "wardrobe": [{"name": "coat", "reflectance": list(ink)}]}
    return plan_from({
        "format": "ausblick-plan", "version": 1, "lights": [*lamps, key],
        "screen": {"width": 5.0, "height": 3.2, "wrinkle_slope": 0.0, "gloss": 0.0},
        "subject": {"x": -0.5, "z": 3.4, "framing": "waist", "wardrobe": [grey]},
        "companions": [{**visitor, "framing": "waist"}],
        "camera": {"z": 7.6, "y": 1.4, "focal_mm": 40.0, "iso": 800.0, "f_number": 4.0,
                   "recording": {"codec": "raw", "chroma": "raw", "bits": 12, "mbit_s": 900}},
    })  # fmt: skip


MOSS, GREY = (0.09, 0.2, 0.06), (0.2, 0.2, 0.21)


@pytest.mark.torture
def test_the_key_is_that_of_whom_it_costs_most() -> None:
    """A companion in moss loses what a subject in moss would, however well the subject's own key is, and is told."""
    capture = capture_of(evaluate(beside(MOSS), STORE), STORE)
    moss, other = keyed(capture, crop_windows(capture), through)
    assert set(moss.shots) == {"hair", "hand", "hair2", "hand2"}
    assert all(float(moss.shots[name].drawn.hair.max()) > 0.5 for name in ("hair", "hair2"))
    assert moss.person == 1
    # Not thinned by the subject's, who loses nothing.
    assert moss.measures.matte_loss is not None
    assert moss.measures.matte_loss > 8.0
    predicted = evaluate(beside(MOSS), STORE).worst_damage
    assert predicted is not None
    assert abs(predicted.kinder.quality - moss.quality) < 8.0
    report = key_report(SimulatedKey(moss.shots["hair"], moss, other, None, None, capture))
    assert report.person == "visitor"


def test_who_is_well_in_grey_is_not_told_for_the_other() -> None:
    found = evaluate(beside(GREY), STORE)
    assert found.worst_damage is not None
    assert found.worst_damage.kinder.quality > 70.0
    moss = evaluate(beside(MOSS), STORE)
    assert moss.worst_person == 1
    assert moss.damage is not None
    assert moss.damage.kinder.quality > 70.0


def test_who_stands_beside_the_picture_costs_the_key_nothing() -> None:
    """A companion in moss, 3 m aside: predicted as without them, and the test key looks at nobody else."""
    aside = evaluate(beside(MOSS, x=2.6), STORE)
    alone = evaluate(beside(MOSS).model_copy(update={"companions": ()}), STORE)
    one, two = alone.worst_damage, aside.worst_damage
    assert one is not None
    assert two is not None
    assert abs(one.kinder.quality - two.kinder.quality) < 3.0
    assert aside.worst_person == 0
    assert check_report(aside, []).people[1].quality is None
    assert check_report(evaluate(beside(MOSS), STORE), []).people[1].quality is not None
    assert capture_of(aside, STORE).looked_at == (0,)
