"""A plan's recording as a real codec: frames encoded and decoded in memory, native planes both ways.

long-gop             H.264, I and P frames at the rate
intra                H.264, every frame by itself
raw, uncompressed    FFV1, nothing lost but the bits
Levels: BT.709 matrix, limited range, done in NumPy so that nothing is converted twice.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from fractions import Fraction
from functools import cache
from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
import numpy.typing as npt

from ausblick.core.frames.frame import chroma_of, luma_of
from ausblick.core.geometry.vectors import Floats32
from ausblick.core.plan import Recording

from .clips import RANGE_TAG
from .yuv import Coding, frame_signal

QP_RANGE = (6, 46)
BT709, LIMITED = 1, 1
"""FFmpeg's numbers of the matrix and of the range that every clip is tagged with."""
LOSSLESS = ("raw", "uncompressed", "ffv1", "lossless")
INTRA = ("intra", "vc-3")


def pixel_format(recording: Recording) -> str:
    """FFmpeg's name of the planes that a recording has: chroma and 8 or 10 bit."""
    chroma = {"4:2:0": "420", "4:2:2": "422", "4:4:4": "444", "raw": "444"}[recording.chroma]
    return f"yuv{chroma}p" + ("10le" if recording.bits > 8 or recording.chroma == "raw" else "")


def codec_class(recording: Recording) -> str:
    """long-gop, intra or lossless."""
    name = recording.codec.lower()
    if recording.chroma == "raw" or any(word in name for word in LOSSLESS):
        return "lossless"
    return "intra" if any(word in name for word in INTRA) else "long-gop"


def through(frames: Iterable[Floats32], recording: Recording, bits: float) -> list[Floats32]:
    """Frames (H, W, 3) of signal 0..1 after encoding and decoding at about so many bits for each of them."""
    kind = codec_class(recording)
    planes = [_planes(frame, recording) for frame in frames]
    if kind == "lossless":
        return _decoded("ffv1", _encoded(planes, recording, "ffv1", {}))
    shape = planes[0][0].shape
    wanted = bits / 8.0
    hint = (kind, pixel_format(recording), shape, round(wanted / 500.0))

    @cache
    def encoded(qp: int) -> Encoded:
        return _encoded(planes, recording, "libx264", _options(kind, qp))

    def fits(qp: int) -> bool:
        return _bytes_per_frame(encoded(qp).sizes, kind) <= wanted

    qp = _least(fits, _HINTS.get(hint, sum(QP_RANGE) // 2))
    _HINTS[hint] = qp
    return _decoded("h264", encoded(qp))


@dataclass(frozen=True, eq=False)
class Encoded:
    """Packets of all frames, and what a decoder must know before them."""

    width: int
    height: int
    header: bytes | None
    packets: list[Any]

    @property
    def sizes(self) -> list[int]:
        """Bytes of each encoded frame."""
        return [packet.size for packet in self.packets]


_HINTS: dict[tuple[str, str, tuple[int, ...], int], int] = {}
"""Where the last search for such a window ended: only where the next one begins, so no result depends on it."""


def _least(fits: Callable[[int], bool], start: int) -> int:
    """The least quantiser that fits, the largest where none does; `fits` turns true once as it grows."""
    low, high = QP_RANGE[0], QP_RANGE[1]
    step, at = 1, min(max(start, low), high)
    if fits(at):
        high = at
        while high > low and fits(max(low, high - step)):
            high, step = max(low, high - step), 2 * step
        low = max(low, high - step + 1)
    else:
        low = at + 1
        while low + step - 1 < high and not fits(low + step - 1):
            low, step = low + step, 2 * step
        high = min(high, low + step - 1)
    while low < high:
        middle = (low + high) // 2
        if fits(middle):
            high = middle
        else:
            low = middle + 1
    return min(low, QP_RANGE[1])


def _options(kind: str, qp: int) -> dict[str, str]:
    group = "1" if kind == "intra" else "250"
    return {"qp": str(qp), "preset": "veryfast", "g": group, "bf": "0", "threads": "1"}


def _encoded(
    planes: list[list[npt.NDArray[Any]]], recording: Recording, codec: str, options: dict[str, str]
) -> Encoded:
    height, width = planes[0][0].shape
    encoder: Any = av.CodecContext.create(codec, "w")
    encoder.width, encoder.height, encoder.pix_fmt = width, height, pixel_format(recording)
    encoder.time_base, encoder.options = Fraction(1, 25), options
    packets = [packet for own in planes for packet in encoder.encode(_frame(own, recording))]
    packets += encoder.encode(None)
    return Encoded(width, height, encoder.extradata, [packet for packet in packets if packet.size])


def _bytes_per_frame(sizes: list[int], kind: str) -> float:
    """A long group's I frame is spread over a dozen frames, as a rate control spreads it."""
    if kind == "intra" or len(sizes) < 2:
        return float(np.mean(sizes))
    return (sizes[0] + 11.0 * float(np.mean(sizes[1:]))) / 12.0


def _frame(own: list[npt.NDArray[Any]], recording: Recording) -> av.VideoFrame:
    height, width = own[0].shape
    frame = av.VideoFrame(width, height, pixel_format(recording))
    for plane, values in zip(frame.planes, own, strict=True):
        _fill(plane, values)
    return frame


def write_clip(path: Path, frames: Iterable[Floats32], recording: Recording, fps: float) -> None:
    """Write frames (H, W, 3) of signal 0..1 as what the recording says: Matroska for lossless, MOV else.

    Raises OSError where it can't be written, ValueError without a frame.
    """
    lossless = codec_class(recording) == "lossless"
    name = "ffv1" if lossless else "libx264"
    group = "1" if codec_class(recording) == "intra" else "24"
    options = {} if lossless else {"preset": "veryfast", "g": group}
    rate = Fraction(fps).limit_denominator(1001)
    stream: Any = None
    with av.open(str(path), "w", format="matroska" if lossless else "mov") as container:
        for signal in frames:
            own = _planes(signal, recording)
            if stream is None:
                stream = container.add_stream(name, rate=rate, options=options)
                stream.height, stream.width = own[0].shape
                stream.pix_fmt = pixel_format(recording)
                stream.codec_context.colorspace = BT709
                setattr(stream.codec_context, RANGE_TAG, LIMITED)
                if not lossless:
                    stream.bit_rate = round(1e6 * recording.mbit_s)
            container.mux(stream.encode(_frame(own, recording)))
        if stream is None:
            raise ValueError("a clip needs a frame")
        container.mux(stream.encode(None))


def _fill(plane: av.video.plane.VideoPlane, values: npt.NDArray[Any]) -> None:
    row = values.dtype.itemsize * values.shape[1]
    buffer = np.zeros((plane.height, plane.line_size), dtype=np.uint8)
    buffer[:, :row] = values.view(np.uint8).reshape(values.shape[0], row)
    plane.update(buffer.tobytes())


def _planes(signal: Floats32, recording: Recording) -> list[npt.NDArray[Any]]:
    """Y, Cb, Cr in code values, chroma averaged over what it stands for."""
    name = pixel_format(recording)
    ten = name.endswith("10le")
    unit, kind = (4.0, np.uint16) if ten else (1.0, np.uint8)
    even = signal[: signal.shape[0] // 2 * 2, : signal.shape[1] // 2 * 2]
    luma = luma_of(even)
    chroma: list[npt.NDArray[Any]] = list(chroma_of(even, luma))
    if "420" in name or "422" in name:
        size = (even.shape[1] // 2, even.shape[0] // (2 if "420" in name else 1))
        chroma = [cv2.resize(c, size, interpolation=cv2.INTER_AREA) for c in chroma]
    coded = [16.0 + 219.0 * luma, *(128.0 + 224.0 * c for c in chroma)]
    top = 255.0 * unit + (3.0 if ten else 0.0)
    return [np.ascontiguousarray(np.clip(np.round(unit * c), 0, top).astype(kind)) for c in coded]


def _decoded(codec: str, made: Encoded) -> list[Floats32]:
    decoder: Any = av.CodecContext.create(codec, "r")
    decoder.width, decoder.height, decoder.extradata = made.width, made.height, made.header
    return [signal_of(frame) for packet in (*made.packets, None) for frame in decoder.decode(packet)]


def signal_of(frame: av.VideoFrame) -> Floats32:
    """Signal 0..1 (H, W, 3) of a decoded frame's own planes: BT.709, limited range."""
    return frame_signal(frame, Coding(10 if frame.format.name.endswith("10le") else 8))
