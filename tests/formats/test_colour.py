"""Files with other primaries and curves are led to the working signal, and say what was found and what assumed."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
import OpenImageIO as oiio
import PyOpenColorIO as ocio
import pytest
from click.testing import CliRunner
from PIL import Image, ImageCms

from ausblick.cli.commands import app
from ausblick.core.colour.gamut import PRIMARIES, linear_by, matrix_to_709, pq_linear, srgb, srgb_linear, to_working
from ausblick.core.geometry.vectors import Floats
from ausblick.core.plan import Camera
from ausblick.formats.clips import LOOKED_AT, RANGE_TAG, is_clip, open_clip
from ausblick.formats.images import ImageError, read_image
from ausblick.formats.still_colour import of_profile

GREEN, GREY = np.array([0.06, 0.34, 0.10]), np.array([0.18, 0.18, 0.18])
"""Scene light in Rec.709 primaries."""
LUMA = np.array([0.2126, 0.7152, 0.0722])


def rec709(light: Floats) -> Floats:
    return np.asarray(1.099 * np.clip(light, 0.018, 1.0) ** 0.45 - 0.099)


def reference(name: str) -> Floats:
    """(3, 3) by another library: linear of a named space to linear Rec.709."""
    config = ocio.Config.CreateFromBuiltinConfig("studio-config-latest")
    way = config.getProcessor(name, "Linear Rec.709 (sRGB)").getDefaultCPUProcessor()
    return np.array([way.applyRGB([float(v) for v in row]) for row in np.eye(3)]).T


@pytest.mark.parametrize(("ours", "theirs"), [("2020", "Linear Rec.2020"), ("P3", "Linear P3-D65")])
def test_matrices_are_those_of_another_library(ours: str, theirs: str) -> None:
    assert matrix_to_709(PRIMARIES[ours]) == pytest.approx(reference(theirs), abs=2e-4)


def test_another_white_is_adapted_and_stays_white() -> None:
    (red, green, blue, _) = PRIMARIES["709"]
    warm = matrix_to_709((red, green, blue, (0.3457, 0.3585)))
    assert warm @ np.ones(3) == pytest.approx(np.ones(3), abs=1e-6)
    assert np.abs(warm - np.eye(3)).max() > 0.005


def test_published_values_of_the_curves() -> None:
    # ITU-R BT.2408: diffuse white of 203 cd/m2 is 58 % of PQ and 75 % of HLG, mid-grey of 26 cd/m2 38 %.
    assert float(pq_linear(np.array(0.5807))) == pytest.approx(1.0, rel=0.01)
    assert float(linear_by(np.array(0.75), "HLG")) == pytest.approx(1.0, rel=1e-3)
    assert float(pq_linear(np.array(0.38))) * 203.0 == pytest.approx(26.0, rel=0.05)
    assert float(linear_by(np.array(685.0 / 1023.0), "log")) == pytest.approx(1.0)
    assert float(linear_by(np.array(95.0 / 1023.0), "log")) == pytest.approx(0.0, abs=1e-6)
    assert float(srgb_linear(np.array(0.5))) == pytest.approx(0.21404, abs=1e-5)


@pytest.mark.parametrize("transfer", ["709", "HLG", "PQ", "linear", "log"])
def test_a_picture_is_led_to_the_same_light(transfer: Any) -> None:
    """Whatever the curve: grey of 18 % reads what Rec.709 makes of it, to a twentieth of a point."""
    levels = np.linspace(0.0, 1.0, 200_001)
    light = linear_by(levels, transfer)
    code = float(levels[np.argmin(np.abs(light - 0.18))])
    made = to_working(np.full((2, 2, 3), code, np.float32), None, transfer)
    assert 100.0 * made[0, 0] == pytest.approx(100.0 * rec709(GREY), abs=0.05)


PRINT = "a printer's"


def own_or_reference(name: str) -> Floats:
    """(3, 3) to linear Rec.709; a printer's primaries have a green of their own and no other library's name."""
    if name != PRINT:
        return reference(name)
    return matrix_to_709(((0.64, 0.33), (0.21, 0.71), (0.15, 0.06), (0.3127, 0.3290)))


def wide(light: Floats, name: str) -> Floats:
    return np.asarray(np.linalg.solve(matrix_to_709(PRIMARIES[name]), light))


ENCODERS = {"libx264": {"qp": "8"}, "libx265": {"x265-params": "qp=8:log-level=none"}, "libsvtav1": {"crf": "4"}}


def filmed(path: Path, signal: Floats, tags: dict[str, int], codec: str = "libx265", frames: int = 4) -> Path:
    """Ten bits of one colour with a grey figure, written with BT.2020's matrix and the tags given."""
    kr, kb = 0.2627, 0.0593
    with av.open(str(path), "w") as container:
        stream: Any = container.add_stream(codec, rate=25, options=ENCODERS[codec])
        stream.width, stream.height, stream.pix_fmt = 320, 180, "yuv420p10le"
        for name, value in tags.items():
            setattr(stream.codec_context, name, value)
        for _ in range(frames):
            picture = np.empty((180, 320, 3))
            picture[:] = signal
            picture[60:, 140:190] = 0.4
            luma = picture @ [kr, 1.0 - kr - kb, kb]
            cb, cr = (picture[..., 2] - luma) / (2 * (1 - kb)), (picture[..., 0] - luma) / (2 * (1 - kr))
            frame = av.VideoFrame(320, 180, "yuv420p10le")
            values = (64 + 876 * luma, (512 + 896 * cb)[::2, ::2], (512 + 896 * cr)[::2, ::2])
            for plane, codes in zip(frame.planes, values, strict=True):
                rows = np.zeros((plane.height, plane.line_size // 2), np.uint16)
                rows[:, : plane.width] = np.round(codes)
                plane.update(rows.tobytes())
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))
    return path


TAG = "colour_".replace("ou", "o", 1)


def tags(primaries: int, transfer: int) -> dict[str, int]:
    return {f"{TAG}primaries": primaries, f"{TAG}trc": transfer, f"{TAG}range": 1, "colorspace": 9}


HLG_A, HLG_B, HLG_C = 0.17883277, 0.28466892, 0.55991073
WHITE = (np.exp((0.75 - HLG_C) / HLG_A) + HLG_B) / 12.0


def hlg(light: Floats) -> Floats:
    e = np.clip(light * WHITE, 0.0, 1.0)
    return np.where(e <= 1 / 12, np.sqrt(3 * e), HLG_A * np.log(np.maximum(12 * e - HLG_B, 1e-9)) + HLG_C)


def test_hlg_of_wide_primaries_reads_as_the_light_it_was(tmp_path: Path) -> None:
    clip = open_clip(filmed(tmp_path / "a.mp4", hlg(wide(GREEN, "2020")), tags(9, 18)))
    assert (clip.facts.colour.primaries, clip.facts.colour.transfer, clip.facts.matrix) == ("2020", "HLG", "2020")
    assert clip.facts.colour.assumed == ()
    level = clip.reading.frame.level_luma
    assert level is not None
    assert level.mean == pytest.approx(100.0 * float(rec709(GREEN) @ LUMA), abs=0.6)
    plain = open_clip(filmed(tmp_path / "b.mp4", rec709(GREEN), tags(1, 1)))
    assert clip.reading.frame.hue_deg == pytest.approx(plain.reading.frame.hue_deg, abs=1.5)
    # By a plan that records HLG levels are told in HLG, of the same light.
    own = open_clip(filmed(tmp_path / "a.mp4", hlg(wide(GREEN, "2020")), tags(9, 18)), camera=Camera(curve="hlg"))
    assert own.reading.frame.level_luma is not None
    assert own.reading.frame.level_luma.mean == pytest.approx(100.0 * float(hlg(GREEN) @ LUMA), abs=0.6)


@pytest.mark.parametrize(("tag", "name"), [(6, "601"), (7, "601"), (5, "601-625")])
def test_primaries_of_standard_definition_read_as_the_light_it_was(tmp_path: Path, tag: int, name: str) -> None:
    """A camcorder's: 525 lines have another red and green; hue and level are those of the same light."""
    plain = open_clip(filmed(tmp_path / "b.mp4", rec709(GREEN), tags(1, 1))).reading.frame
    found = open_clip(filmed(tmp_path / "a.mp4", rec709(wide(GREEN, name)), tags(tag, 1)))
    assert found.facts.colour.primaries == name
    assert found.reading.frame.hue_deg == pytest.approx(plain.hue_deg, abs=0.7)
    assert found.reading.frame.level_luma is not None
    assert found.reading.frame.level_luma.mean == pytest.approx(100.0 * float(rec709(GREEN) @ LUMA), abs=0.4)
    # Taken as Rec.709's the same codes are another hue or another level.
    unled = open_clip(filmed(tmp_path / "c.mp4", rec709(wide(GREEN, name)), tags(1, 1))).reading.frame
    assert unled.level_luma is not None
    off = abs(unled.hue_deg - plain.hue_deg) + abs(unled.level_luma.mean - found.reading.frame.level_luma.mean)
    assert off > 1.0


def test_a_clip_without_tags_says_what_was_assumed(tmp_path: Path) -> None:
    path = filmed(tmp_path / "a.mp4", rec709(GREEN), {})
    report = json.loads(CliRunner().invoke(app, ["measure", str(path), "--json"]).output)
    assert (report["primaries"], report["transfer"], report["matrix"]) == ("709", "709", "601")
    assert report["full_range"] is False
    assert report["assumed"][0] == "Rec.601 matrix, by the picture's 180 lines"
    assert report["assumed"][-2:] == ["Rec.709 primaries", "Rec.709 curve"]
    assert report["codec_name"] == "H.265"
    printed = CliRunner().invoke(app, ["measure", str(path)]).output
    assert "assumed: Rec.601 matrix" in printed


def profile_of(name: str, gamma: float | None = None) -> bytes:
    """A profile with those primaries, written by hand (ICC.1:2022): three colorants and a curve under D50."""
    import struct

    bradford = np.array([[0.8951, 0.2664, -0.1614], [-0.7502, 1.7135, 0.0367], [0.0389, -0.0685, 1.0296]])
    d65, d50 = np.array([0.95047, 1.0, 1.08883]), np.array([0.9642, 1.0, 0.8249])
    adapt = np.linalg.inv(bradford) @ np.diag((bradford @ d50) / (bradford @ d65)) @ bradford
    to_xyz = np.array([[0.4124, 0.3576, 0.1805], [0.2126, 0.7152, 0.0722], [0.0193, 0.1192, 0.9505]])
    columns = adapt @ to_xyz @ own_or_reference(name)

    def fixed(values: Any) -> bytes:
        return b"".join(struct.pack(">i", round(float(v) * 65536)) for v in values)

    def xyz(values: Any) -> bytes:
        return b"XYZ \0\0\0\0" + fixed(values)

    if gamma is None:
        curve = b"para\0\0\0\0" + struct.pack(">HH", 3, 0)
        curve += fixed((2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045))
    else:
        curve = b"para\0\0\0\0" + struct.pack(">HH", 0, 0) + fixed((gamma,))
    text = "Wide".encode("utf-16-be")
    words = b"mluc\0\0\0\0" + struct.pack(">II", 1, 12) + b"enUS" + struct.pack(">II", len(text), 28) + text
    parts = {b"desc": words, b"cprt": words, b"wtpt": xyz(d50), b"rXYZ": xyz(columns[:, 0]),
             b"gXYZ": xyz(columns[:, 1]), b"bXYZ": xyz(columns[:, 2]), b"rTRC": curve, b"gTRC": curve,
             b"bTRC": curve}  # fmt: skip
    head, body = b"", b""
    begin = 128 + 4 + 12 * len(parts)
    for tag, data in parts.items():
        data += b"\0" * (-len(data) % 4)
        head += tag + struct.pack(">II", begin + len(body), len(data))
        body += data
    header = struct.pack(">I4sI4s4s4s", begin + len(body), b"lcms", 0x04300000, b"mntr", b"RGB ", b"XYZ ")
    header += struct.pack(">6H4s", 2027, 1, 1, 0, 0, 0, b"acsp") + b"\0" * 28 + fixed(d50)
    return (header + b"\0" * (128 - len(header))) + struct.pack(">I", len(parts)) + head + body


@pytest.mark.parametrize(
    ("space", "gamma", "told"),
    [("Linear P3-D65", None, "P3"), ("Linear Rec.2020", None, "2020"), (PRINT, 2.2, "Wide")],
)
def test_a_stills_profile_is_applied(tmp_path: Path, space: str, gamma: float | None, told: str) -> None:
    light = np.linalg.solve(own_or_reference(space), GREEN)
    written = srgb(light) if gamma is None else light ** (1.0 / gamma)
    pixels = np.empty((64, 96, 3), np.uint8)
    pixels[:] = np.round(255.0 * written)
    path = tmp_path / "a.png"
    Image.fromarray(pixels).save(path, icc_profile=profile_of(space, gamma))
    frame = read_image(path)
    assert frame.colour.primaries == told
    assert 100.0 * frame.signal(frame.pixels)[32, 48] == pytest.approx(100.0 * srgb(GREEN), abs=0.6)


def test_a_profile_that_changes_nothing_leaves_the_pixels_their_bits(tmp_path: Path) -> None:
    pixels = np.random.default_rng(1).integers(0, 255, (64, 96, 3), dtype=np.uint8)
    plain = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes()
    Image.fromarray(pixels).save(tmp_path / "a.png", icc_profile=plain)
    frame = read_image(tmp_path / "a.png")
    assert frame.pixels.dtype == np.uint8
    assert np.array_equal(frame.pixels, pixels)
    assert frame.colour.assumed == ()
    broken = of_profile(b"\0" * 200)
    assert broken.as_it_is
    assert broken.told.assumed == ("its colour profile can't be read: taken as sRGB",)


def test_chromaticities_of_an_exr_are_applied(tmp_path: Path) -> None:
    spec = oiio.ImageSpec(96, 64, 3, "half")
    spec.attribute(
        "chromaticities", oiio.TypeDesc("float[8]"), (0.708, 0.292, 0.170, 0.797, 0.131, 0.046, 0.3127, 0.3290)
    )
    out = oiio.ImageOutput.create(str(tmp_path / "a.exr"))
    out.open(str(tmp_path / "a.exr"), spec)
    out.write_image(np.broadcast_to(wide(GREEN, "2020").astype(np.float32), (64, 96, 3)).copy())
    out.close()
    frame = read_image(tmp_path / "a.exr")
    assert (frame.colour.primaries, frame.colour.transfer) == ("2020", "linear")
    assert 100.0 * frame.pixels[32, 48] == pytest.approx(100.0 * rec709(GREEN), abs=0.2)


@pytest.mark.parametrize("orientation", range(1, 9))
def test_every_orientation_of_a_still_is_upright(tmp_path: Path, orientation: int) -> None:
    """What a camera wrote for each of the eight is set so that the bright corner is at the upper left."""
    upright = np.full((48, 80, 3), 60, np.uint8)
    upright[:16, :16] = 220
    stored = Image.fromarray(upright)
    back = {2: Image.Transpose.FLIP_LEFT_RIGHT, 3: Image.Transpose.ROTATE_180, 4: Image.Transpose.FLIP_TOP_BOTTOM,
            5: Image.Transpose.TRANSPOSE, 6: Image.Transpose.ROTATE_90, 7: Image.Transpose.TRANSVERSE,
            8: Image.Transpose.ROTATE_270}  # fmt: skip
    stored = stored.transpose(back[orientation]) if orientation in back else stored
    exif = Image.Exif()
    exif[274] = orientation
    stored.save(tmp_path / "a.jpg", exif=exif, quality=95)
    seen = read_image(tmp_path / "a.jpg").pixels
    assert seen.shape == (48, 80, 3)
    assert float(seen[4:12, 4:12].mean()) > 200.0 > 80.0 > float(seen[24:, 24:].mean())


@pytest.mark.parametrize("kind", ["heic", "avif", "webp"])
def test_phones_pictures_are_read_whole(tmp_path: Path, kind: str) -> None:
    import pillow_heif

    pillow_heif.register_heif_opener()
    pixels = np.full((512, 768, 3), 60, np.uint8)
    pixels[300:, 500:] = (60, 160, 80)
    path = tmp_path / f"a.{kind}"
    Image.fromarray(pixels).save(path, quality=95)
    assert not is_clip(path.read_bytes()[:LOOKED_AT])
    frame = read_image(path)
    assert (frame.height, frame.width) == (512, 768)
    assert frame.pixels[400, 600] == pytest.approx(np.array([60, 160, 80]), abs=4)
    path.write_bytes(path.read_bytes()[: len(path.read_bytes()) // 2])
    with pytest.raises(ImageError, match=r"damaged|cut short|can't be read"):
        read_image(path)


def test_a_deep_avif_keeps_its_bits_and_its_colour(tmp_path: Path) -> None:
    """Ten bits of BT.2020 and PQ, as phones write them."""
    levels = np.linspace(0.0, 1.0, 200_001)
    code = np.interp(wide(GREEN, "2020"), pq_linear(levels), levels)
    tags = {"colorspace": 9, "color_primaries": 9, "color_trc": 16, RANGE_TAG: 1}
    frame = read_image(filmed(tmp_path / "a.avif", code, tags, "libsvtav1", frames=1))
    assert (frame.colour.primaries, frame.colour.transfer, frame.colour.assumed) == ("2020", "PQ", ())
    assert 100.0 * np.median(frame.pixels[:50], axis=(0, 1)) == pytest.approx(100.0 * rec709(GREEN), abs=0.4)
    tags = {"colorspace": 9, "color_primaries": 1, "color_trc": 1}
    plain = read_image(filmed(tmp_path / "b.avif", np.full(3, 0.5004), tags, "libsvtav1", frames=1))
    # Half a step of eight bits is two of ten.
    assert plain.white == 1023.0
    assert float(np.median(plain.pixels[:50])) == pytest.approx(512, abs=1)


@pytest.mark.parametrize("orientation", [3, 6, 7])
def test_an_avif_is_upright(tmp_path: Path, orientation: int) -> None:
    upright = np.full((48, 80, 3), 60, np.uint8)
    upright[:16, :16] = 220
    back = {3: Image.Transpose.ROTATE_180, 6: Image.Transpose.ROTATE_90, 7: Image.Transpose.TRANSVERSE}[orientation]
    exif = Image.Exif()
    exif[274] = orientation
    Image.fromarray(upright).transpose(back).save(tmp_path / "a.avif", exif=exif, quality=95)
    seen = read_image(tmp_path / "a.avif").pixels
    assert seen.shape == (48, 80, 3)
    assert float(seen[4:12, 4:12].mean()) > 200.0 > 80.0 > float(seen[24:, 24:].mean())


def sensor_file(path: Path, light: Floats) -> Path:
    """A raw picture of one colour, as a filter array of 12 bits in a DNG written by hand."""
    import struct

    width, height, white = 128, 96, 4095
    mosaic = np.zeros((height, width), "<u2")
    mosaic[0::2, 0::2], mosaic[1::2, 1::2] = np.round(white * light[0]), np.round(white * light[2])
    mosaic[0::2, 1::2] = mosaic[1::2, 0::2] = np.round(white * light[1])
    from_xyz = np.array([[3.2404542, -1.5371385, -0.4985314], [-0.969266, 1.8760108, 0.041556],
                         [0.0556434, -0.2040259, 1.0572252]])  # fmt: skip

    def rationals(values: Any) -> bytes:
        return b"".join(struct.pack("<ii", round(float(v) * 10_000), 10_000) for v in values)

    entries: list[tuple[int, int, int, bytes]] = [
        (254, 4, 1, struct.pack("<I", 0)), (256, 4, 1, struct.pack("<I", width)),
        (257, 4, 1, struct.pack("<I", height)), (258, 3, 1, struct.pack("<H", 16)),
        (259, 3, 1, struct.pack("<H", 1)), (262, 3, 1, struct.pack("<H", 32803)), (271, 2, 5, b"Made\0"),
        (272, 2, 5, b"Made\0"), (273, 4, 1, b"DATA"), (274, 3, 1, struct.pack("<H", 1)),
        (277, 3, 1, struct.pack("<H", 1)), (278, 4, 1, struct.pack("<I", height)),
        (279, 4, 1, struct.pack("<I", mosaic.nbytes)), (33421, 3, 2, struct.pack("<HH", 2, 2)),
        (33422, 1, 4, bytes([0, 1, 1, 2])), (50706, 1, 4, bytes([1, 4, 0, 0])), (50708, 2, 5, b"Made\0"),
        (50714, 4, 1, struct.pack("<I", 0)), (50717, 4, 1, struct.pack("<I", white)),
        (50721, 10, 9, rationals(from_xyz.ravel())), (50728, 5, 3, rationals((1.0, 1.0, 1.0))),
        (50778, 3, 1, struct.pack("<H", 21)),
    ]  # fmt: skip
    begin = 8 + 2 + 12 * len(entries) + 4
    more, table = b"", b""
    for tag, kind, count, data in entries:
        if len(data) > 4:
            table += struct.pack("<HHII", tag, kind, count, begin + len(more))
            more += data + b"\0" * (len(data) % 2)
        else:
            table += struct.pack("<HHI", tag, kind, count) + data.ljust(4, b"\0")
    table = table.replace(b"DATA", struct.pack("<I", begin + len(more)))
    head = b"II*\0" + struct.pack("<I", 8) + struct.pack("<H", len(entries))
    path.write_bytes(head + table + struct.pack("<I", 0) + more + mosaic.tobytes())
    return path


def test_a_raw_picture_is_developed_and_no_thumbnail_is_measured(tmp_path: Path) -> None:
    frame = read_image(sensor_file(tmp_path / "a.dng", GREEN))
    assert frame.colour.transfer == "linear"
    assert "developed from raw" in frame.colour.assumed[0]
    middle = np.median(frame.pixels[20:-20, 20:-20].reshape(-1, 3), axis=0)
    assert 100.0 * middle == pytest.approx(100.0 * rec709(GREEN), abs=3.0)
    cut = tmp_path / "cut.dng"
    cut.write_bytes((tmp_path / "a.dng").read_bytes()[:300])
    with pytest.raises(ImageError, match=r"raw picture that can't be developed"):
        read_image(cut)


def test_a_plain_tiff_is_no_raw(tmp_path: Path) -> None:
    cv2.imwrite(str(tmp_path / "a.tif"), np.full((64, 96, 3), 128, np.uint8))
    assert read_image(tmp_path / "a.tif").pixels.dtype == np.uint8
