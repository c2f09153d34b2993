"""Errors of edge and hair: what light and recording make of a line of pixels, against what a hand works out."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from ausblick.core.damage.edges import OF_EDGE, AtTheEdge, causes_of_edge, causes_of_hair
from ausblick.core.damage.moving_hand import causes_of_motion
from ausblick.core.damage.recorded_edge import PHASES, ROUND, KeyedBefore, RecordedError, recorded_errors

GREEN = np.array([0.06, 0.34, 0.10])
BEFORE = KeyedBefore(
    screen=GREEN, d=0.34 - 0.08, formula="mean", key=1, curve="linear", table="", subsampled=False
)  # fmt: skip
WIDTH = ROUND.stop - ROUND.start
GREY = np.full((1, 3), 0.2)


def error(light: Any, shape: Any = "edge", **change: Any) -> RecordedError:
    one = np.asarray(light, dtype=float).reshape(1, 3)
    edge, strand = recorded_errors(np.repeat(one, 2, axis=0), one[0], replace(BEFORE, **change))
    return edge if shape == "edge" else strand


@pytest.mark.parametrize("curve", ["linear", "rec709", "hlg", "acescct"])
def test_grey_before_a_clean_screen_costs_nothing_in_any_curve_with_all_its_chroma(curve: Any) -> None:
    """Its d is nought, light mixes and the curve is undone: the matte is the cover."""
    for shape in ("edge", "strand"):
        told = error(GREY, shape, curve=curve)
        assert told.light == pytest.approx(0.0, abs=1e-6)
        assert told.recording == 0.0


def test_screen_colour_costs_its_share_of_all_that_is_covered() -> None:
    """A cloth with a fifth of the screen's d loses a fifth of its cover everywhere."""
    cloth = GREY + 0.2 * 0.26 * np.array([[-0.5, 0.5, -0.5]])
    share = (cloth[0, 1] - 0.5 * (cloth[0, 0] + cloth[0, 2])) / 0.26
    covered = np.mean([3.0 + phase for phase in PHASES]) / WIDTH
    assert error(cloth).light == pytest.approx(share * covered, rel=1e-6)
    assert error(cloth, "strand").light == pytest.approx(share * 0.3 / WIDTH, rel=1e-6)


def test_what_is_as_far_below_nought_as_the_screen_is_above_melts_later() -> None:
    """Fuchsia: a pixel that is covered by c reads 2 c, and 1 at the most: off by c below a half, by 1 - c above."""
    fuchsia = np.array([[0.36, 0.10, 0.36]])
    off = np.mean([min(phase, 1.0 - phase) for phase in PHASES]) / WIDTH
    assert error(fuchsia).light == pytest.approx(off, rel=1e-6)


def test_where_the_screen_clips_half_of_a_cover_is_lost() -> None:
    """Four times over the clip, a dark thing covers a pixel by three quarters before its green comes below it."""
    burnt = {"screen": 4.0 * np.array([0.1, 1.0, 0.1]), "d": 1.0 - 0.4}
    assert error(np.zeros((1, 3)), **burnt).light > 0.5 * 0.5 * 0.25 / WIDTH
    assert error(np.zeros((1, 3)), screen=np.array([0.1, 0.9, 0.1]), d=0.8).light == pytest.approx(0.0, abs=1e-6)


def test_shared_chroma_costs_by_how_far_the_colours_are_apart() -> None:
    plain = error(GREY, curve="rec709", subsampled=True)
    grey_on_grey = error(GREY, curve="rec709", subsampled=True, screen=np.array([0.2, 0.205, 0.2]), d=0.005)
    assert plain.recording > 0.02
    assert plain.light == pytest.approx(0.0, abs=1e-6)
    # Of a line of linear light by hand: chroma is the mean of two, luma its own; green is luma less both.
    by_hand = error(GREY, curve="linear", subsampled=True).recording
    covers = []
    for phase in PHASES:
        cover = np.clip(7.0 + phase - np.arange(16), 0.0, 1.0)
        for first in (0, 1):
            pairs = cover[first : 16 - (16 - first) % 2].reshape(-1, 2).mean(axis=1)
            shared = np.interp(np.arange(16), first + 0.5 + 2.0 * np.arange(len(pairs)), pairs)
            # d is chroma alone where light is linear: it follows the shared cover.
            covers.append(np.abs(shared - cover)[ROUND].mean())
    assert by_hand == pytest.approx(np.mean(covers), rel=0.02)
    assert grey_on_grey.recording > 0.0


PLAIN = AtTheEdge(
    noise=0.0, clipped=0.0, shadow=0.0, folds=0.0, pixel_cm=0.1, arm=0.0, hair=0.0, hair_kind="smooth", mirrored=0.0,
    edge=RecordedError(0.0, 0.0), strand=RecordedError(0.0, 0.0),
)  # fmt: skip


def test_causes_of_an_edge_by_their_name() -> None:
    lit = replace(PLAIN, edge=RecordedError(0.10, 0.02), arm=0.15)
    told = causes_of_edge(lit)
    assert told["screen colour"] == pytest.approx(OF_EDGE * 0.075)
    assert told["dark screen"] == pytest.approx(OF_EDGE * 0.025)
    assert told["recording"] == pytest.approx(OF_EDGE * 0.02)
    clips = causes_of_edge(replace(lit, clipped=0.5))
    assert (clips["clipping"], clips["dark screen"]) == (told["dark screen"], 0.0)
    assert causes_of_edge(replace(PLAIN, noise=0.1))["noise"] > 0.02
    assert sum(causes_of_edge(PLAIN).values()) < 0.005


def test_light_hair_takes_on_the_screens_colour_where_chroma_is_shared() -> None:
    """A strand at white before a screen at a third, a head that fills the picture; from afar hardly at all."""

    def costs(light: float, subsampled: bool = True, pixel_cm: float = 0.04, kind: str = "smooth") -> float:
        strand = error(np.full((1, 3), light), "strand", curve="rec709", subsampled=subsampled)
        return causes_of_hair(replace(PLAIN, strand=strand, pixel_cm=pixel_cm, hair_kind=kind))["recording"]

    assert costs(0.9) > costs(0.05) + 0.01
    assert costs(0.9, kind="fine") > 1.2 * costs(0.9)
    assert costs(0.9, pixel_cm=0.2) < 0.4 * costs(0.9)
    assert costs(0.9, pixel_cm=0.01) == costs(0.9)
    assert costs(0.9, subsampled=False) == 0.0


def test_what_is_not_seen_costs_nothing() -> None:
    assert causes_of_hair(replace(PLAIN, hair_kind="none")) == {}
    assert causes_of_motion(None) == {}
    assert sum(causes_of_hair(replace(PLAIN, hair_kind="curly")).values()) > sum(causes_of_hair(PLAIN).values())
