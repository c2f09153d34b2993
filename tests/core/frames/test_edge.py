"""The subject's edge: its width in px, spill on it and on skin, and what the plan says beside them."""

from __future__ import annotations

import cv2
import numpy as np
import pytest

from ausblick.core.colour.curves import rec709
from ausblick.core.diagnosis.comparison import compare
from ausblick.core.diagnosis.expected import expected_reading
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import read_frame
from ausblick.core.light.basis import BasisStore
from ausblick.demo.fern_house import seed_vault

GREEN = np.array([0.045, 0.25, 0.075])
SKIN = np.array([0.36, 0.22, 0.15])


def frame(blur: float = 0.0, spill: float = 0.0) -> Frame:
    """A figure of skin before green, its edge blurred by a Gaussian of `blur` px, green light added to it."""
    mask = np.zeros((720, 1280), np.float32)
    cv2.ellipse(mask, (640, 430), (150, 330), 0, 0, 360, 1.0, -1)
    if blur:
        mask = cv2.GaussianBlur(mask, (0, 0), blur)
    figure = SKIN * np.array([1.0, 1.0 + spill, 1.0])
    linear = mask[..., None] * figure + (1.0 - mask[..., None]) * GREEN
    signal = rec709(linear) + np.random.default_rng(1).normal(0.0, 0.002, linear.shape)
    return Frame(np.clip(signal, 0, 1).astype(np.float32), 1.0)


@pytest.mark.parametrize("blur", [3.0, 6.0])
def test_width_of_a_blurred_edge(blur: float) -> None:
    """10 to 90 % of a Gaussian edge is 2.56 sigma wide."""
    edge = read_frame(frame(blur)).edge
    assert edge is not None
    assert edge.width_px == pytest.approx(2.563 * blur, rel=0.25)


def test_a_sharp_edge_is_sharp() -> None:
    edge = read_frame(frame()).edge
    assert edge is not None
    assert edge.width_px is not None
    assert edge.width_px < 3.0


def test_spill_is_read_on_edge_and_skin() -> None:
    clean, green = read_frame(frame(1.0)).edge, read_frame(frame(1.0, 0.25)).edge
    assert clean is not None
    assert green is not None
    assert clean.spill_edge_percent is not None
    assert clean.spill_skin_percent is not None
    # 25 % more green is 0.055 of light on skin of luminance 0.3.
    added = 100.0 * 0.25 * 0.22 / (0.2126 * 0.36 + 0.7152 * 0.275 + 0.0722 * 0.15)
    assert (green.spill_skin_percent or 0) - clean.spill_skin_percent == pytest.approx(added, rel=0.25)
    assert (green.spill_edge_percent or 0) - clean.spill_edge_percent == pytest.approx(added, rel=0.3)


def test_every_reading_stands_beside_the_plan() -> None:
    evaluation = evaluate(seed_vault(), BasisStore())
    expected = expected_reading(evaluation, BasisStore())
    rows = {row.name: row for row in compare(evaluation, expected, read_frame(frame()))}
    assert {"Noise", "Hue", "Edge of the subject", "Spill on skin", "Screen in the frame"} <= set(rows)
    assert all(row.planned is not None for row in rows.values())
    assert expected.hue_deg is not None
    assert rows["Hue"].difference == pytest.approx((rows["Hue"].measured or 0) - expected.hue_deg, abs=1e-6)


def test_a_screen_with_a_floor_before_it_does_not_make_the_wall_a_subject() -> None:
    signal = np.full((720, 1280, 3), 0.5, np.float32)
    cv2.fillPoly(
        signal, [np.array([[293, 0], [985, 0], [985, 520], [1104, 640], [176, 640], [293, 520]])], (0.2, 0.6, 0.3)
    )
    signal[250:600, 600:700] = (0.5, 0.4, 0.35)
    contact = read_frame(Frame(signal, 1.0)).contact
    assert contact is not None
    assert contact.frame_sides == ()
    assert contact.figure.mean() < 0.08
