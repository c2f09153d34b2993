"""What a frame of the plan would read: its own drawing, measured with the same ruler as a real one."""

from __future__ import annotations

import numpy as np

from ..camera.turned import side_turns, upright
from ..colour.curves import encode
from ..evaluation.results import Evaluation
from ..frames.frame import Frame
from ..frames.reading import FrameReading, read_frame
from ..light.basis import BasisStore
from ..matte.capture import capture_of
from ..matte.key_windows import overview_window
from ..matte.render import draw

WIDTH = 960


def expected_reading(evaluation: Evaluation, store: BasisStore) -> FrameReading:
    """The reading of the frame that the plan would give, without noise or codec."""
    camera = evaluation.plan.camera
    linear = draw(capture_of(evaluation, store), overview_window(evaluation.plan, WIDTH)).frame
    signal = np.asarray(encode(np.maximum(linear, 0.0), camera.curve, camera.curve_table), dtype=np.float32)
    frame = Frame(upright(signal, side_turns(camera)), 1.0)
    return read_frame(frame, evaluation.plan.targets.level_trace, (), evaluation.plan.screen.hue)
