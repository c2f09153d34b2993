"""The planned set as the camera would see it: drawn like the test key, without noise and codec."""

from __future__ import annotations

import numpy as np

from ..camera.turned import side_turns, upright
from ..colour.curves import encode
from ..evaluation.results import Evaluation
from ..geometry.vectors import Bytes
from ..light.basis import BasisStore
from ..matte.capture import capture_of
from ..matte.key_windows import overview_window
from ..matte.render import draw


def planned_picture(evaluation: Evaluation, width: int, store: BasisStore) -> Bytes:
    """The frame (H, W, 3), 8 bit, at most `width` px wide before it is set upright, in the plan's curve."""
    plan, capture = evaluation.plan, capture_of(evaluation, store)
    linear = draw(capture, overview_window(plan, width), again=True).frame
    signal = encode(np.maximum(linear, 0.0), plan.camera.curve, plan.camera.curve_table)
    return upright(np.round(255.0 * signal).astype(np.uint8), side_turns(plan.camera))
