"""Material as it comes: right, or refused in one clear line."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
import OpenImageIO as oiio
import pytest
from PIL import Image

from ausblick.core.colour.curves import rec709
from ausblick.core.frames.reading import read_frame
from ausblick.core.plan import Recording
from ausblick.formats import images
from ausblick.formats.clips import open_clip, read_clip
from ausblick.formats.images import ImageError, read_image
from ausblick.formats.recording import write_clip
from tests.formats.test_clips import GREEN, write

LONG = Recording.model_validate({"codec": "long-gop", "chroma": "4:2:0", "bits": 8, "mbit_s": 20})


def still(width: int, height: int) -> np.ndarray[Any, Any]:
    picture = np.empty((height, width, 3), np.uint8)
    picture[:] = [round(255 * v) for v in GREEN]
    return picture


@pytest.mark.parametrize(("width", "height"), [(16_000, 64), (641, 359), (333, 777)])
def test_wide_and_odd_pictures(tmp_path: Path, width: int, height: int) -> None:
    path = tmp_path / "odd.png"
    cv2.imwrite(str(path), still(width, height)[..., ::-1])
    reading = read_frame(read_image(path))
    assert (reading.width, reading.height, reading.hue) == (width, height, "green")
    assert reading.level_key_channel is not None
    assert reading.level_key_channel.mean == pytest.approx(100 * round(255 * GREEN[1]) / 255, abs=0.3)


def test_what_is_too_wide_is_refused_in_a_line(tmp_path: Path) -> None:
    path = tmp_path / "wide.png"
    cv2.imwrite(str(path), still(20_000, 64))
    with pytest.raises(ImageError, match="20000 × 64 px; at most"):
        read_image(path)


def test_cmyk(tmp_path: Path) -> None:
    path = tmp_path / "print.jpg"
    Image.fromarray(still(320, 200)).convert("CMYK").save(path, quality=95)
    assert read_frame(read_image(path)).hue == "green"


def test_a_wrong_ending_does_not_decide(tmp_path: Path) -> None:
    path = tmp_path / "really-a-png.jpg"
    path.write_bytes(cv2.imencode(".png", still(320, 200))[1].tobytes())
    assert read_image(path).width == 320
    clip = write(tmp_path / "take.mp4", frames=5)
    renamed = clip.rename(tmp_path / "take.mkv")
    assert read_clip(renamed)[0].container == "mov"


@pytest.mark.parametrize("drop", [0.35, 0.6, 0.9])
def test_a_truncated_clip_is_read_as_far_as_it_goes_or_refused(tmp_path: Path, drop: float) -> None:
    whole = write(tmp_path / "whole.mkv", frames=40).read_bytes()
    path = tmp_path / "cut.mkv"
    path.write_bytes(whole[: round(drop * len(whole))])
    if drop < 0.5:
        with pytest.raises(ImageError, match=r"before its first frame|can't be decoded"):
            read_clip(path)
        return
    _, reading = read_clip(path)
    assert 1 <= reading.frames <= 40
    assert reading.frame.hue == "green"


def test_a_clip_without_a_frame_and_one_without_a_picture(tmp_path: Path) -> None:
    path = tmp_path / "empty.mkv"
    with av.open(str(path), "w") as container:
        stream: Any = container.add_stream("libx264", rate=25)
        stream.width, stream.height, stream.pix_fmt = 320, 180, "yuv420p"
    with pytest.raises(ImageError):
        read_clip(path)
    sound = tmp_path / "sound.mkv"
    with av.open(str(sound), "w") as container:
        track: Any = container.add_stream("pcm_s16le", rate=48_000)
        frame = av.AudioFrame.from_ndarray(np.zeros((1, 480), np.int16), format="s16", layout="mono")
        frame.sample_rate = 48_000
        container.mux(track.encode(frame))
    with pytest.raises(ImageError, match="no picture"):
        read_clip(sound)


def test_mxf(tmp_path: Path) -> None:
    path = tmp_path / "take.mxf"
    with av.open(str(path), "w") as container:
        stream: Any = container.add_stream("mpeg2video", rate=25, options={"b": "30000000"})
        stream.width, stream.height, stream.pix_fmt = 640, 360, "yuv422p"
        for _ in range(12):
            container.mux(stream.encode(av.VideoFrame.from_ndarray(still(640, 360), format="rgb24")))
        container.mux(stream.encode(None))
    facts, reading = read_clip(path)
    assert (facts.container, facts.codec, facts.chroma) == ("mxf", "mpeg2video", "4:2:2")
    assert reading.frame.hue == "green"
    assert reading.frames == 12


def test_a_variable_frame_rate_is_read(tmp_path: Path) -> None:
    path = tmp_path / "phone.mp4"
    with av.open(str(path), "w") as container:
        stream: Any = container.add_stream("libx264", rate=30)
        stream.width, stream.height, stream.pix_fmt = 640, 360, "yuv420p"
        at = 0
        for i in range(20):
            frame = av.VideoFrame.from_ndarray(still(640, 360), format="rgb24")
            at += 1 + (i % 3)
            frame.pts = at
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))
    facts, reading = read_clip(path)
    assert reading.frames == 20
    assert 5.0 < facts.fps < 31.0


@pytest.mark.parametrize("turn", [90, -90, 180])
def test_a_rotation_flag_stands_the_picture_up(tmp_path: Path, turn: int) -> None:
    path = tmp_path / "phone.mov"
    with av.open(str(path), "w") as container:
        stream: Any = container.add_stream("libx264", rate=25)
        stream.width, stream.height, stream.pix_fmt = 640, 360, "yuv420p"
        stream.set_display_rotation(turn)
        picture = still(640, 360)
        # What is recorded on the left is a wall: after the turn it must be at the top, below, or on the right.
        picture[:, :200] = 90
        for _ in range(8):
            container.mux(stream.encode(av.VideoFrame.from_ndarray(picture, format="rgb24")))
        container.mux(stream.encode(None))
    with av.open(str(path)) as container:
        flag = next(container.decode(video=0)).rotation
    clip = open_clip(path)
    upright = np.rot90(picture, round(flag / 90) % 4)
    assert clip.middle.pixels.shape == upright.shape
    assert np.abs(clip.middle.pixels - upright / 255.0).mean() < 0.02
    assert (clip.reading.frame.width, clip.reading.frame.height) == (upright.shape[1], upright.shape[0])


def test_the_subject_leaves_the_screen_in_the_right_frames(tmp_path: Path) -> None:
    """A figure walks off to the right; the screen ends before the frame does."""

    def walk(i: int) -> np.ndarray[Any, Any]:
        signal = np.full((360, 640, 3), 0.35, np.float32)
        signal[:, 60:520] = GREEN
        left = 250 if i < 24 else 460 if i < 40 else 250
        signal[110:, left : left + 90] = (0.45, 0.36, 0.31)
        return signal

    path = tmp_path / "walk.mov"
    write_clip(path, (walk(i) for i in range(60)), LONG, 25.0)
    _, reading = read_clip(path)
    out = [b for b in reading.breaches if "right" in b.sides]
    assert len(out) == 1
    assert out[0].begins == pytest.approx(24 / 25, abs=1.01 / 25)
    assert out[0].ends == pytest.approx(39 / 25, abs=1.01 / 25)


def test_no_alarm_on_clean_material(tmp_path: Path) -> None:
    def standing(i: int) -> np.ndarray[Any, Any]:
        signal = np.full((360, 640, 3), 0.0, np.float32)
        signal[:] = GREEN
        sway = round(6 * np.sin(i / 4))
        signal[110:, 270 + sway : 370 + sway] = (0.45, 0.36, 0.31)
        return signal

    path = tmp_path / "clean.mov"
    write_clip(path, (standing(i) for i in range(40)), LONG, 25.0)
    _, reading = read_clip(path)
    assert reading.breaches == ()
    assert reading.timing.flicker_hz is None
    assert reading.frame.hot_spots == ()
    assert abs(reading.timing.drift_percent) < 0.2


def test_progress_is_told_and_raising_from_it_cancels(tmp_path: Path) -> None:
    path = write(tmp_path / "long.mp4", frames=60)
    told: list[float] = []
    open_clip(path, progress=told.append)
    assert told[0] == 0.0
    assert told == sorted(told)

    class Enough(Exception):
        pass

    def stop(_: float) -> None:
        raise Enough

    with pytest.raises(Enough):
        open_clip(path, progress=stop)


def sparse_exr(path: Path, width: int, height: int, channels: int) -> Path:
    """All nought: a small file of a large picture."""
    spec = oiio.ImageSpec(width, height, channels, "float")
    spec.attribute("compression", "zip")
    out = oiio.ImageOutput.create(str(path))
    out.open(str(path), spec)
    strip = np.zeros((64, width, channels), np.float32)
    for y in range(0, height, 64):
        out.write_scanlines(y, min(y + 64, height), 0, strip[: height - y])
    out.close()
    return path


@pytest.mark.torture
def test_more_than_a_camera_writes_is_refused_before_a_pixel_is_decoded(tmp_path: Path) -> None:
    with pytest.raises(ImageError, match="16 channels would take 4"):
        read_image(sparse_exr(tmp_path / "layers.exr", 2560, 2560, 16))
    with pytest.raises(ImageError, match="no camera writes that"):
        read_image(sparse_exr(tmp_path / "nought.exr", 2560, 2560, 3))
    assert read_image(sparse_exr(tmp_path / "plain.exr", 1280, 720, 3)).pixels.shape == (720, 1280, 3)


def test_a_jpeg_of_very_many_scans_is_refused(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "progressive.jpg"
    Image.fromarray(still(320, 200)).save(path, progressive=True)
    whole = path.read_bytes()
    assert read_image(path).width == 320
    last_scan = whole[whole.rindex(b"\xff\xda") : -2]
    path.write_bytes(whole[:-2] + 400 * last_scan + b"\xff\xd9")
    # Opening it goes over them all.
    monkeypatch.setattr(images, "_opened", None)
    with pytest.raises(ImageError, match=r"in 41\d scans"):
        read_image(path)


def test_strips_and_tiles_give_the_same_picture(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    signal = np.random.default_rng(5).random((150, 200, 3)).astype(np.float32)
    found = []
    for name, tile in (("rows.exr", 0), ("tiles.exr", 64)):
        spec = oiio.ImageSpec(200, 150, 3, "float")
        spec.tile_width = spec.tile_height = tile
        out = oiio.ImageOutput.create(str(tmp_path / name))
        out.open(str(tmp_path / name), spec)
        out.write_image(signal)
        out.close()
        whole = read_image(tmp_path / name).pixels
        monkeypatch.setattr(images, "STRIP", 2000)
        found += [whole, read_image(tmp_path / name).pixels]
        monkeypatch.undo()
    assert all(np.array_equal(found[0], other) for other in found[1:])
    assert found[0] == pytest.approx(rec709(signal), abs=1e-6)
