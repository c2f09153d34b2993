"""Camera frames for the demo: the set as it was really built, recorded through a real codec.

The frame is computed from a plan (light on the screen, the figure where it stands), given the faults
that only a set has (a crease, a shadow, grain), then encoded and decoded as H.264 4:2:0, 8 bit.
"""

from __future__ import annotations

import io
from dataclasses import dataclass

import av
import cv2
import numpy as np

from ausblick.core.arrays import Bytes, Floats
from ausblick.core.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.optics.picture import picture_of
from ausblick.core.plan import Plan
from ausblick.core.results import Evaluation
from ausblick.core.signal.exposure import signal

WIDTH, HEIGHT = 1920, 1080
WALL = (0.62, 0.61, 0.58)
FLOOR = (0.24, 0.23, 0.22)


@dataclass(frozen=True)
class Blemish:
    """A soft-edged patch on the screen: centre and size in parts of the frame, share of light kept."""

    x: float
    y: float
    w: float
    h: float
    light: float


def record(plan: Plan, blemishes: tuple[Blemish, ...], grain: float, seed: int) -> Bytes:
    """The recorded frame (1080, 1920, 3), uint8 RGB, of a plan as built. `grain` in % of signal."""
    frame = _render(evaluate(plan, BasisStore()), blemishes)
    noise = np.random.default_rng(seed).normal(0.0, grain, frame.shape)
    return through_codec(np.clip(np.round((frame + noise) * 2.55), 0, 255).astype(np.uint8))


def _render(evaluation: Evaluation, blemishes: tuple[Blemish, ...]) -> Floats:
    """Signal (H, W, 3) in %: room, screen with its light, floor run, figure."""
    plan, picture = evaluation.plan, picture_of(evaluation.plan, evaluation.view, evaluation.coverage)
    face = evaluation.subject_light
    frame = np.empty((HEIGHT, WIDTH, 3))
    frame[:] = signal(np.array(WALL), 0.35 * face, plan.camera)
    floor_line = _floor_line(evaluation)
    frame[floor_line:] = signal(np.array(FLOOR), 0.35 * face, plan.camera)
    screen = _screen_signal(evaluation, picture.plane, blemishes)
    for _, outline in picture.surfaces:
        _lay(frame, outline, screen)
    for name, outline in picture.figure:
        _lay(frame, outline, np.broadcast_to(_paint(plan, name, face), frame.shape))
    return frame


def _lay(frame: Floats, outline: Floats, over: Floats) -> None:
    """Lay `over` onto the frame (both (H, W, 3)) inside an outline, only where that reaches."""
    if len(outline) < 3:
        return
    low = np.clip(np.floor(outline.min(axis=0) * (WIDTH, HEIGHT)) - 4, 0, (WIDTH, HEIGHT)).astype(int)
    high = np.clip(np.ceil(outline.max(axis=0) * (WIDTH, HEIGHT)) + 4, 0, (WIDTH, HEIGHT)).astype(int)
    box = slice(low[1], high[1]), slice(low[0], high[0])
    cover = _cover(outline)[box]
    frame[box] += (over[box] - frame[box]) * cover


def _floor_line(evaluation: Evaluation) -> int:
    """Row of the picture where the back wall meets the floor."""
    foot = np.array([[0.0, 0.0, evaluation.plan.room.z_min]])
    return int(np.clip(evaluation.view.project(foot)[0][0, 1], 0.0, 1.0) * HEIGHT)


def _cover(outline: Floats) -> Floats:
    """Antialiased coverage (H, W, 1) of an outline in the picture."""
    mask = np.zeros((HEIGHT, WIDTH), dtype=np.uint8)
    points = np.round(outline * (WIDTH * 16, HEIGHT * 16)).astype(np.int32)
    cv2.fillPoly(mask, [points], 255, lineType=cv2.LINE_AA, shift=4)
    return cv2.GaussianBlur(mask, (0, 0), 0.8).astype(np.float64)[..., None] / 255.0


def _screen_signal(evaluation: Evaluation, plane: Floats, blemishes: tuple[Blemish, ...]) -> Floats:
    """Signal (H, W, 3) in % of the screen, its light looked up through each pixel's ray."""
    u, v = np.meshgrid((np.arange(WIDTH) + 0.5) / WIDTH, (np.arange(HEIGHT) + 0.5) / HEIGHT)
    back = np.linalg.inv(plane) @ np.stack([u.ravel(), v.ravel(), np.ones(u.size)])
    grid, lux = evaluation.screen_map.grid, evaluation.screen_map.lux.astype(np.float32)
    column = (back[0] / back[2] - grid.x[0]) / (grid.x[1] - grid.x[0])
    row = (back[1] / back[2] - grid.y[0]) / (grid.y[1] - grid.y[0])
    light = cv2.remap(
        lux,
        column.reshape(u.shape).astype(np.float32),
        row.reshape(u.shape).astype(np.float32),
        cv2.INTER_LINEAR,
        borderMode=cv2.BORDER_REPLICATE,
    ).astype(np.float64)
    for b in blemishes:
        light *= 1.0 + (b.light - 1.0) * np.exp(-(((u - b.x) / b.w) ** 2) - ((v - b.y) / b.h) ** 2)
    return signal(np.array(evaluation.plan.screen.reflectance), light[..., None], evaluation.plan.camera)


def _paint(plan: Plan, part: str, light: Floats) -> Floats:
    assert plan.subject is not None
    worn = plan.subject.wardrobe[0].reflectance if plan.subject.wardrobe else (0.2, 0.2, 0.2)
    colours = {
        "hair": plan.subject.hair,
        "head": plan.subject.skin,
        "hands": plan.subject.skin,
        "feet": (0.08, 0.07, 0.06),
    }
    shade = {"legs": 0.6, "arms": 0.85}.get(part, 1.0)
    return signal(np.array(colours.get(part, worn)), shade * light, plan.camera)


def through_codec(rgb: Bytes) -> Bytes:
    """Encode and decode as H.264, 4:2:0, 8 bit, BT.709 limited range; the last of five equal frames."""
    memory = io.BytesIO()
    with av.open(memory, "w", format="mp4") as container:
        stream = container.add_stream("libx264", rate=25, options={"crf": "18", "preset": "veryfast"})
        stream.width, stream.height, stream.pix_fmt = rgb.shape[1], rgb.shape[0], "yuv420p"
        for _ in range(5):
            container.mux(stream.encode(_as_yuv(rgb)))
        container.mux(stream.encode(None))
    memory.seek(0)
    with av.open(memory, "r") as recording:
        *_, last = recording.decode(video=0)
    return _as_rgb(last)


def _as_yuv(rgb: Bytes) -> av.VideoFrame:
    """BT.709 limited range by our own matrix, so that levels are exact."""
    signal_ = rgb.astype(np.float32) / 255.0
    luma = signal_ @ np.array([0.2126, 0.7152, 0.0722], dtype=np.float32)
    cb, cr = (signal_[..., 2] - luma) / 1.8556, (signal_[..., 0] - luma) / 1.5748
    half = (rgb.shape[1] // 2, rgb.shape[0] // 2)
    planes = [
        16.0 + 219.0 * luma,
        *(128.0 + 224.0 * cv2.resize(c, half, interpolation=cv2.INTER_AREA) for c in (cb, cr)),
    ]
    stacked = np.concatenate([np.clip(np.round(p), 0, 255).astype(np.uint8).ravel() for p in planes])
    return av.VideoFrame.from_ndarray(stacked.reshape(rgb.shape[0] * 3 // 2, rgb.shape[1]), format="yuv420p")


def _as_rgb(frame: av.VideoFrame) -> Bytes:
    flat = frame.to_ndarray().ravel()
    size, quarter = frame.width * frame.height, frame.width * frame.height // 4
    luma = (flat[:size].reshape(frame.height, frame.width).astype(np.float32) - 16.0) / 219.0
    cb, cr = (
        (
            cv2.resize(
                flat[start : start + quarter].reshape(frame.height // 2, frame.width // 2).astype(np.float32),
                (frame.width, frame.height),
                interpolation=cv2.INTER_LINEAR,
            )
            - 128.0
        )
        / 224.0
        for start in (size, size + quarter)
    )
    red, blue = luma + 1.5748 * cr, luma + 1.8556 * cb
    green = (luma - 0.2126 * red - 0.0722 * blue) / 0.7152
    return np.clip(np.round(255.0 * np.stack([red, green, blue], axis=-1)), 0, 255).astype(np.uint8)
