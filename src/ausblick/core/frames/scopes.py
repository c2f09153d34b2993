"""The instruments: waveform, vectorscope and histogram, as counts that anything can draw."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..geometry.vectors import Bools, Bytes, Floats32
from .frame import chroma_of, luma_of

WAVE_COLUMNS, WAVE_BINS = 240, 128
WAVE_TOP = 110.0
VECTOR_BINS, VECTOR_REACH = 128, 0.6


@dataclass(frozen=True)
class Scopes:
    """Brightness 0..255 of each cell.

    waveform, waveform_key (bins, columns), row 0 at WAVE_TOP %: luma, and the key channel; parade (3, bins, columns):
    red, green and blue.
    vectorscope (bins, bins): Cb from -reach to reach to the right, Cr upwards.
    histogram (101,): share of the screen's pixels at each whole % of luma, 0..1 of the tallest.
    """

    waveform: Bytes
    waveform_key: Bytes
    parade: Bytes
    vectorscope: Bytes
    histogram: Floats32


def scopes_of(sample: Floats32, on_screen: Bools, channel: int) -> Scopes:
    """Scopes of sampled signal (h, w, 3); `on_screen` (h, w) marks the screen's pixels."""
    luma = luma_of(sample)
    cb, cr = chroma_of(sample, luma)
    levels = np.clip(100.0 * luma[on_screen], 0, 100).astype(np.int64)
    counts = np.bincount(levels, minlength=101).astype(np.float32)
    return Scopes(
        waveform=_waveform(luma),
        waveform_key=_waveform(sample[..., channel]),
        parade=np.stack([_waveform(sample[..., c]) for c in range(3)]),
        vectorscope=_vectorscope(cb, cr),
        histogram=counts / max(1.0, float(counts.max())),
    )


def _waveform(trace: Floats32) -> Bytes:
    height, width = trace.shape
    column = np.broadcast_to(np.arange(width) * WAVE_COLUMNS // width, trace.shape)
    level = np.clip((1.0 - trace * 100.0 / WAVE_TOP) * WAVE_BINS, 0, WAVE_BINS - 1).astype(np.int64)
    counts = np.bincount((level * WAVE_COLUMNS + column).ravel(), minlength=WAVE_BINS * WAVE_COLUMNS)
    return _glow(counts.reshape(WAVE_BINS, WAVE_COLUMNS), height * width / WAVE_COLUMNS / 6.0)


def _vectorscope(cb: Floats32, cr: Floats32) -> Bytes:
    scale = VECTOR_BINS / (2.0 * VECTOR_REACH)
    column = np.clip((cb + VECTOR_REACH) * scale, 0, VECTOR_BINS - 1).astype(np.int64)
    row = np.clip((VECTOR_REACH - cr) * scale, 0, VECTOR_BINS - 1).astype(np.int64)
    counts = np.bincount((row * VECTOR_BINS + column).ravel(), minlength=VECTOR_BINS**2)
    return _glow(counts.reshape(VECTOR_BINS, VECTOR_BINS), cb.size / 300.0)


def _glow(counts: np.ndarray[tuple[int, ...], np.dtype[np.int64]], bright: float) -> Bytes:
    """Counts as brightness: a single hit is just seen, a crowd doesn't drown the rest."""
    lit = np.log1p(counts * 8.0 / max(bright, 1.0)) / np.log1p(8.0)
    return np.asarray(np.clip(255.0 * lit, 0.0, 255.0), dtype=np.uint8)
