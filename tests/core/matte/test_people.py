"""Two people drawn: each as alone, and who is nearer hides the other."""

from __future__ import annotations

from functools import cache
from typing import Any

import numpy as np

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.matte.capture import capture_of
from ausblick.core.matte.render import Drawn, draw
from ausblick.core.matte.simulation import overview_window
from ausblick.core.plan import plan_from
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
    """Wide open, 1.2 m behind a mark 4 m from the lens: a disc of 3.7 px, by hand. Who is on the mark stays sharp.

    c = f^2 / (N (s - f)) * |D - s| / D = 784 / 3972 * 1.2 / 5.2 = 0.0455 mm of 23.5.
    """
    sharp, soft = (drawn(1.0, z=1.4, f_number=f, px=1920) for f in (16.0, 1.0))
    half = sharp.alpha.shape[1] // 2

    def edge(picture: Drawn, side: slice) -> int:
        return int(((picture.alpha > 0.02) & (picture.alpha < 0.98))[:, side].sum())

    hers, subjects = slice(half + 260, None), slice(half - 60)
    assert edge(soft, hers) > 1.5 * edge(sharp, hers)
    assert edge(soft, subjects) == edge(sharp, subjects)
    assert abs(soft.alpha.sum() / sharp.alpha.sum() - 1.0) < 0.01
