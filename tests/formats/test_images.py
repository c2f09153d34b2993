from __future__ import annotations

import struct
import time
import zlib
from pathlib import Path

import cv2
import numpy as np
import OpenImageIO as oiio
import pytest

from ausblick.core.frames.reading import read_frame
from ausblick.formats.images import ImageError, read_image, write_gray_png
from tests.conftest import GREEN, frame, write_frame


@pytest.mark.parametrize("name", ["a.png", "a.16.png", "a.jpg", "a.tif", "renamed.dat"])
def test_the_same_frame_in_every_kind_of_file(tmp_path: Path, name: str) -> None:
    path = write_frame(tmp_path / name.replace("renamed.dat", "b.png"), frame(noise=0.5))
    if name == "renamed.dat":
        path = path.rename(tmp_path / name)
    level = read_frame(read_image(path)).level_luma
    assert level is not None
    assert level.mean == pytest.approx(0.2126 * GREEN[0] + 0.7152 * GREEN[1] + 0.0722 * GREEN[2], abs=0.5)


@pytest.mark.parametrize(("kind", "linear"), [("exr", True), ("dpx", False)])
def test_linear_exr_and_ten_bit_dpx(tmp_path: Path, kind: str, linear: bool) -> None:
    reflectance = np.array([0.06, 0.34, 0.10])
    values = reflectance if linear else np.array(GREEN) / 100
    pixels = np.broadcast_to(values.astype(np.float32), (120, 200, 3)).copy()
    path = tmp_path / f"a.{kind}"
    spec = oiio.ImageSpec(200, 120, 3, "half" if linear else "uint16")
    if not linear:
        spec.attribute("oiio:BitsPerSample", 10)
    out = oiio.ImageOutput.create(str(path))
    assert out.open(str(path), spec)
    assert out.write_image(pixels)
    out.close()
    level = read_frame(read_image(path)).level_key_channel
    assert level is not None
    assert level.mean == pytest.approx(57.7, abs=0.4)


def png_header(width: int, height: int) -> bytes:
    ihdr = b"IHDR" + struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + struct.pack(">I", 13) + ihdr + struct.pack(">I", zlib.crc32(ihdr))


def bad_files(folder: Path) -> dict[str, bytes]:
    whole = write_frame(folder / "whole.png", frame(size=(300, 400), noise=2.0)).read_bytes()
    photo = write_frame(folder / "whole.jpg", frame(size=(300, 400), noise=2.0)).read_bytes()
    return {
        "empty": b"",
        "text": b"this is a call sheet, not a frame",
        "cut.png": whole[: len(whole) // 2],
        "cut.jpg": photo[:300],
        "huge.png": png_header(60_000, 60_000),
        "headless.exr": b"\x76\x2f\x31\x01" + b"\0" * 40,
        "headless.dpx": b"SDPX" + b"\0" * 40,
        "headless.tif": b"II*\0" + b"\xff" * 40,
        "dot.png": cv2.imencode(".png", np.zeros((1, 1, 3), np.uint8))[1].tobytes(),
    }


def test_bad_files_are_refused_in_one_clear_line_and_at_once(tmp_path: Path) -> None:
    for name, data in bad_files(tmp_path).items():
        path = tmp_path / name
        path.write_bytes(data)
        begun = time.monotonic()
        with pytest.raises(ImageError) as caught:
            read_image(path)
        assert time.monotonic() - begun < 2.0, name
        assert "\n" not in str(caught.value), name
        assert str(tmp_path) not in str(caught.value), name


def test_what_is_not_there_is_said(tmp_path: Path) -> None:
    with pytest.raises(ImageError, match="no such file"):
        read_image(tmp_path / "nowhere.png")
    with pytest.raises(ImageError, match=r"ends in \.png"):
        write_gray_png(tmp_path / "nowhere" / "matte.png", np.zeros((4, 4)))


def test_gray_and_alpha_pictures(tmp_path: Path) -> None:
    cv2.imwrite(str(tmp_path / "gray.png"), np.full((64, 64), 100, np.uint8))
    assert read_image(tmp_path / "gray.png").pixels.shape == (64, 64, 3)
    rgba = np.zeros((64, 64, 4), np.uint8)
    rgba[..., 1], rgba[..., 3] = 200, 40
    cv2.imwrite(str(tmp_path / "alpha.png"), rgba)
    # The colour under a thin alpha is kept as it was recorded.
    assert read_image(tmp_path / "alpha.png").pixels[0, 0].tolist() == [0, 200, 0]
