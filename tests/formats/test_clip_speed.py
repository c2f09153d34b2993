"""What makes clips quick changes nothing: order, faults where they are read, small pictures that are means."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
import pytest

from ausblick.formats.ahead import ahead
from ausblick.formats.clips import read_clip
from ausblick.formats.one_thread import on_one_thread
from ausblick.formats.yuv import area_mean, row_mean


def test_all_of_it_in_order() -> None:
    assert list(ahead(iter(range(100)), most=3)) == list(range(100))
    assert list(ahead(iter(()))) == []


def test_what_goes_wrong_is_told_after_what_was_read_before_it() -> None:
    def cut() -> Iterator[int]:
        yield from range(5)
        raise ValueError("the file ends here")

    pictures = ahead(cut())
    assert [next(pictures) for _ in range(5)] == [0, 1, 2, 3, 4]
    with pytest.raises(ValueError, match="the file ends here"):
        next(pictures)


def test_who_stops_reading_leaves_nothing_running() -> None:
    made: list[int] = []

    def endless() -> Iterator[int]:
        for number in range(1_000_000):
            made.append(number)
            yield number

    before = threading.active_count()
    pictures = ahead(endless(), most=2)
    assert next(pictures) == 0
    pictures.close()
    assert threading.active_count() == before
    count = len(made)
    assert count < 10
    threading.Event().wait(0.1)
    assert len(made) == count


@pytest.mark.parametrize(
    ("shape", "size"), [((1080, 1920), (240, 135)), ((576, 720), (240, 192)), ((90, 100), (33, 31))]
)
@pytest.mark.parametrize("kind", [np.uint8, np.uint16])
def test_small_pictures_are_means_of_the_large_one(shape: tuple[int, int], size: tuple[int, int], kind: Any) -> None:
    """Of whole blocks exactly, at the top of what a code can say too; of others as a resampling does."""
    codes = np.random.default_rng(1).integers(0, np.iinfo(kind).max, shape, endpoint=True).astype(kind)
    codes[: shape[0] // 4] = np.iinfo(kind).max
    small = area_mean(codes, size)
    assert small.shape == (size[1], size[0])
    unit = (np.iinfo(kind).max + 1) / 256
    assert small[0, 0] == pytest.approx(float(np.iinfo(kind).max), abs=0.01 * unit)
    assert float(small.mean()) == pytest.approx(float(codes.mean()), abs=0.3 * unit)
    if shape[0] % size[1] == shape[1] % size[0] == 0:
        block = codes[-(shape[0] // size[1]) :, -(shape[1] // size[0]) :]
        assert small[-1, -1] == pytest.approx(float(block.mean()), abs=0.001 * unit)


@pytest.mark.parametrize("interlaced", [True, False])
def test_few_of_the_rows_tell_level_and_place_of_a_picture(interlaced: bool) -> None:
    """Both fields of an interlaced picture count alike, and a slope stays where it is."""
    slope = np.repeat(np.linspace(16.0, 215.0, 1080)[:, None], 1920, axis=1)
    slope[1::2] += 20.0 if interlaced else 0.0
    codes = slope.astype(np.uint8)
    rows = row_mean(codes, (240, 135), interlaced)
    assert np.abs(rows - area_mean(codes, (240, 135))).max() < 0.7
    assert float(rows.mean()) == pytest.approx(float(codes.mean()), abs=0.15)


def test_two_clips_read_at_once_leave_as_many_threads_as_before() -> None:
    before = cv2.getNumThreads()
    cv2.setNumThreads(2)
    try:
        first, second = on_one_thread(), on_one_thread()
        first.__enter__()
        second.__enter__()
        first.__exit__(None, None, None)
        assert cv2.getNumThreads() == 1
        second.__exit__(None, None, None)
        assert cv2.getNumThreads() == 2
    finally:
        cv2.setNumThreads(before)


@pytest.mark.parametrize(("first", "last"), [(9, 15), (10, 17), (12, 18), (19, 29)])
def test_a_touch_is_told_to_the_frame_although_not_every_frame_is_looked_at(
    tmp_path: Path, first: int, last: int
) -> None:
    """A hand goes over the picture's left edge and comes back."""
    with av.open(str(tmp_path / "hand.mkv"), "w") as container:
        stream: Any = container.add_stream("ffv1", rate=25)
        stream.width, stream.height, stream.pix_fmt = 320, 180, "yuv444p"
        for number in range(30):
            picture = np.full((180, 320, 3), (54, 148, 74), np.uint8)
            picture[60:, 140:190] = (115, 92, 79)
            if first <= number <= last:
                picture[80:110, :150] = (115, 92, 79)
            container.mux(stream.encode(av.VideoFrame.from_ndarray(picture, format="rgb24")))
        container.mux(stream.encode(None))
    [breach] = read_clip(tmp_path / "hand.mkv")[1].breaches
    assert (breach.begins, breach.ends) == (first / 25.0, last / 25.0)
    assert "left" in breach.sides
