"""From linear light to the recorded signal and back. 0..1 in, 0..1 out; % are made at the edges.

x is scene light relative to a white diffuse surface: 18 % grey, correctly exposed, has x = 0.18.
"""

from __future__ import annotations

from typing import Literal

import numpy as np

from ..geometry.vectors import AsGiven
from .cube_table import apply_table

Curve = Literal["rec709", "hlg", "acescct", "linear", "cube"]

HLG_A, HLG_B, HLG_C = 0.17883277, 0.28466892, 0.55991073
HLG_WHITE = float((np.exp((0.75 - HLG_C) / HLG_A) + HLG_B) / 12.0)
"""Scene light of diffuse white: ITU-R BT.2408 puts it at 75 % of HLG."""


def rec709(x: AsGiven) -> AsGiven:
    """ITU-R BT.709-6, 1.2: 4.5 L below 0.018, else 1.099 L^0.45 - 0.099. Clipped to 0..1."""
    x = np.clip(x, 0.0, 1.0)
    # In place: of a picture every array more is memory that has to be fetched anew.
    found = np.asarray(x**0.45)
    found *= 1.099
    found -= 0.099
    low = x < 0.018
    # Of a lit screen nothing is.
    if low.any():
        np.multiply(x, 4.5, out=found, where=low)
    return found


def rec709_linear(v: AsGiven) -> AsGiven:
    """The inverse of `rec709`: signal 0..1 to scene light."""
    v = np.clip(v, 0.0, None)
    return np.asarray(np.where(v < 0.081, v / 4.5, ((np.maximum(v, 0.081) + 0.099) / 1.099) ** (1.0 / 0.45)))


def hlg(x: AsGiven) -> AsGiven:
    """ITU-R BT.2100-2, table 5, with diffuse white at 75 % (BT.2408). Clipped to 0..1."""
    e = np.clip(x * HLG_WHITE, 0.0, 1.0)
    low = np.sqrt(3.0 * np.minimum(e, 1.0 / 12.0))
    return np.asarray(np.where(e <= 1.0 / 12.0, low, HLG_A * np.log(np.maximum(12.0 * e - HLG_B, 1e-9)) + HLG_C))


def hlg_linear(v: AsGiven) -> AsGiven:
    v = np.clip(v, 0.0, 1.0)
    e = np.where(v <= 0.5, v * v / 3.0, (np.exp((v - HLG_C) / HLG_A) + HLG_B) / 12.0)
    return np.asarray(e / HLG_WHITE)


def acescct(x: AsGiven) -> AsGiven:
    """Academy S-2016-001, per channel. May exceed 1 far above white; clipped to 0..1."""
    low = 10.5402377416545 * np.clip(x, 0.0, None) + 0.0729055341958355
    high = (np.log2(np.maximum(x, 0.0078125)) + 9.72) / 17.52
    return np.clip(np.where(x <= 0.0078125, low, high), 0.0, 1.0)


def acescct_linear(v: AsGiven) -> AsGiven:
    low = (v - 0.0729055341958355) / 10.5402377416545
    return np.where(v <= 0.155251141552511, np.maximum(low, 0.0), 2.0 ** (v * 17.52 - 9.72))


def encode(x: AsGiven, curve: Curve, table: str = "") -> AsGiven:
    """Signal 0..1 of scene light x by a plan's curve; `table`: the `.cube` text that leads a recording to Rec.709."""
    if curve == "cube":
        return np.clip(apply_table(table, rec709(np.asarray(x)), inverse=True), 0.0, 1.0)
    if curve == "linear":
        return np.clip(x, 0.0, 1.0)
    return {"rec709": rec709, "hlg": hlg, "acescct": acescct}[curve](x)


def decode(v: AsGiven, curve: Curve, table: str = "") -> AsGiven:
    """Scene light of a signal 0..1 recorded with a plan's curve."""
    if curve == "cube":
        return rec709_linear(apply_table(table, np.asarray(v)).astype(v.dtype))
    if curve == "linear":
        return np.clip(v, 0.0, None)
    return {"rec709": rec709_linear, "hlg": hlg_linear, "acescct": acescct_linear}[curve](v)


def held(x: AsGiven, curve: Curve, table: str = "") -> AsGiven:
    """Scene light x as far as a curve holds it: what is brighter clips."""
    if curve in ("rec709", "linear"):
        return np.clip(x, 0.0, 1.0)
    return decode(encode(x, curve, table), curve, table)
