"""Scopes and deviation of a frame as plain data: counts in base64, maps rounded."""

from __future__ import annotations

from base64 import b64encode
from typing import Any

import numpy as np

from ausblick.core.frames.reading import FrameReading
from ausblick.core.frames.scopes import VECTOR_BINS, VECTOR_REACH, WAVE_BINS, WAVE_COLUMNS, WAVE_TOP, Scopes


def scopes_data(scopes: Scopes) -> dict[str, Any]:
    return {
        "waveform": b64encode(scopes.waveform.tobytes()).decode(),
        "waveform_key": b64encode(scopes.waveform_key.tobytes()).decode(),
        "parade": [b64encode(part.tobytes()).decode() for part in scopes.parade],
        "wave_columns": WAVE_COLUMNS,
        "wave_rows": WAVE_BINS,
        "top": WAVE_TOP,
        "vectorscope": b64encode(scopes.vectorscope.tobytes()).decode(),
        "vector_side": VECTOR_BINS,
        "vector_reach": VECTOR_REACH,
        "histogram": np.round(scopes.histogram, 4).tolist(),
    }


def deviation_data(reading: FrameReading) -> dict[str, Any] | None:
    if reading.deviation is None:
        return None
    rounded = np.round(reading.deviation, 1)
    return {"values": [[None if np.isnan(v) else float(v) for v in row] for row in rounded]}
