"""A capture with its faults taken out, to put one of them back in."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np

from ausblick.core.colour.rec709 import LUMA
from ausblick.core.geometry.vectors import Floats, Floats32
from ausblick.core.light.body_light import BodyLight
from ausblick.core.matte.capture import Capture


def _white(light: Floats | Floats32) -> Any:
    """Light (..., 3) without a colour, as bright."""
    return np.broadcast_to((light @ LUMA.astype(light.dtype))[..., None], light.shape)


def in_light(body: BodyLight, changed: Callable[[Floats32], Any]) -> BodyLight:
    return replace(body, lux=changed(body.lux), gloss=changed(body.gloss), around=changed(body.around))


def tinted(capture: Capture, tint: tuple[float, float, float]) -> Capture:
    """The figure in light of another colour."""
    assert capture.body is not None
    ink = np.array(tint, dtype=np.float32)
    return replace(
        capture,
        light={name: rgb * np.array(tint) for name, rgb in capture.light.items()},
        body=in_light(capture.body, lambda light: light * ink),
    )


def ideal_of(capture: Capture) -> Capture:
    """The same scene without a fault: even, no spill, no smear, no noise, nothing lost in recording."""
    mean = capture.screen.mean(axis=(0, 1))
    toned = tuple(
        replace(sheet, look=np.broadcast_to(mean, sheet.look.shape), folds=np.zeros_like(sheet.folds))
        for sheet in capture.beside
    )
    return replace(
        capture,
        screen=np.broadcast_to(mean, capture.screen.shape),
        folds=np.zeros_like(capture.folds),
        beside=toned,
        in_pane=(),
        light={name: _white(rgb) for name, rgb in capture.light.items()},
        body=None if capture.body is None else in_light(capture.body, _white),
        smear_px=0.0,
        defocus_px=0.0,
        noise=0.0,
        recording=None,
        sharpening=False,
    )
