"""What the keyed figure is laid over: the plate's picture where there is one, else its level and colour."""

from __future__ import annotations

import cv2
import numpy as np

from ..camera.turned import side_turns, upright
from ..colour.curves import rec709_linear
from ..colour.white_point import light_rgb
from ..frames.frame import Frame, linear_of
from ..geometry.vectors import Floats, Floats32
from ..plan import Plan
from .pixel_window import PixelWindow


def plate_ground(plan: Plan, plate: Frame | None, window: PixelWindow) -> Floats32:
    """Linear light (H, W, 3) or (3,) behind a window: the plate, upright as people see it, fills the frame as it
    would behind the figure and is turned as the sensor is."""
    if plate is None:
        level = float(rec709_linear(np.array(plan.plate.mean_level / 100.0)))
        tone: Floats = light_rgb(plan.plate.cct, 0.0, plan.camera.white_balance_k, plan.camera.tint)
        return np.asarray(level * tone, dtype=np.float32)
    sensor = plan.camera.sensor
    plate = Frame(upright(plate.pixels, -side_turns(plan.camera)), plate.white)
    # The plate covers the frame; what is too wide or too high for it is cut on both sides alike.
    cover = max(sensor.px_w / plate.width, sensor.px_h / plate.height)
    left = (plate.width - sensor.px_w / cover) / 2.0
    top = (plate.height - sensor.px_h / cover) / 2.0
    step = window.scale / cover
    move = np.array(
        [[step, 0.0, left + window.x / cover - 0.5], [0.0, step, top + window.y / cover - 0.5]], dtype=np.float64
    )
    signal = cv2.warpAffine(
        plate.reduced(max(plate.width, plate.height)), move, (window.width, window.height),
        flags=cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP, borderMode=cv2.BORDER_REPLICATE,
    )  # fmt: skip
    return linear_of(np.asarray(signal, dtype=np.float32))
