"""What a still says of its colour: an embedded profile, chromaticities, a tag; and its pixels led to Rec.709.

Profiles are opened by LittleCMS. Their primaries are read from the colorants, their curve from what the engine makes
of a grey ramp; the pixels keep all their bits.
"""

from __future__ import annotations

import io
from dataclasses import dataclass
from typing import Any, get_args

import numpy as np
from PIL import Image, ImageCms

from ausblick.core.colour.curves import rec709
from ausblick.core.colour.gamut import (
    BRADFORD,
    PRIMARIES,
    Chromaticities,
    Transfer,
    from_named,
    matrix_to_709,
    srgb,
    srgb_linear,
    to_working,
)
from ausblick.core.frames.file_colour import UNTAGGED, FileColour
from ausblick.core.geometry.vectors import Floats, Floats32

D50 = np.array([0.9642, 1.0, 0.8249])
"""The white of profiles: ICC.1:2022, 7.2.16."""
ALIKE = 0.004
"""Matrices that differ by less are one and the same set of primaries."""


@dataclass(frozen=True)
class StillColour:
    """`matrix` of linear light to Rec.709's, None where it has them; `curve` (256,): what of the profile's values the
    sRGB curve would have had, None where it is that; `transfer` where it is none of a display's."""

    told: FileColour
    matrix: Floats | None = None
    curve: Floats | None = None
    transfer: Transfer = "sRGB"

    @property
    def as_it_is(self) -> bool:
        return self.matrix is None and self.curve is None and self.transfer in ("sRGB", "709")

    def working(self, signal: Floats32) -> Floats32:
        """A picture's signal (..., 3) as Rec.709's, or as sRGB's where it is a display's."""
        if self.as_it_is:
            return signal
        if self.transfer == "linear":
            return np.asarray(rec709(self._in_709(signal)), dtype=np.float32)
        if self.transfer != "sRGB":
            return to_working(signal, self.matrix, self.transfer)
        values = signal if self.curve is None else np.interp(signal, np.linspace(0.0, 1.0, 256), self.curve)
        light = srgb_linear(np.asarray(values, dtype=np.float32))
        return np.asarray(srgb(self._in_709(light)), dtype=np.float32)

    def _in_709(self, light: Any) -> Any:
        return light if self.matrix is None else light @ self.matrix.T.astype(light.dtype)


def as_said(said: FileColour) -> StillColour:
    """A person knows better than the file."""
    matrix = from_named(said.primaries)
    transfer: Transfer = next((one for one in get_args(Transfer) if one == said.transfer), "709")
    return StillColour(said, matrix, transfer=transfer)


def still_colour(spec: Any, kind: str) -> StillColour:
    """Of an OpenImageIO header. A profile that can't be opened is told as assumed away."""
    profile = spec.getattribute("ICCProfile")
    if profile is not None:
        return of_profile(bytes(bytearray(profile)))
    places = spec.getattribute("chromaticities")
    if places is not None and len(places) == 8:
        pairs = [(round(float(x), 4), round(float(y), 4)) for x, y in zip(places[::2], places[1::2], strict=True)]
        return _by_chromaticities((pairs[0], pairs[1], pairs[2], pairs[3]), kind)
    if kind == "dpx":
        return _of_dpx(spec)
    if kind == "openexr":
        return StillColour(FileColour("709", "linear", ("Rec.709 primaries",)), transfer="linear")
    tagged = spec.get_string_attribute("oiio:ColorSpace").lower()
    if "linear" in tagged or tagged.startswith("lin_"):
        return StillColour(FileColour("709", "linear"), transfer="linear")
    return StillColour(
        FileColour("709", "sRGB", () if spec.get_int_attribute("Exif:ColorSpace") == 1 else UNTAGGED.assumed)
    )


def _by_chromaticities(found: Chromaticities, kind: str) -> StillColour:
    name = next((name for name, known in PRIMARIES.items() if np.abs(np.subtract(found, known)).max() < ALIKE), "own")
    matrix = None if name == "709" else matrix_to_709(found)
    transfer: Transfer = "linear" if kind == "openexr" else "sRGB"
    return StillColour(FileColour(name, transfer), matrix, transfer=transfer)


def _of_dpx(spec: Any) -> StillColour:
    """Writers tag video as linear as often as not: what is tagged so is said, and read as video."""
    tag = spec.get_string_attribute("dpx:Transfer").lower()
    if "density" in tag or "log" in tag:
        return StillColour(FileColour("709", "log", ("Rec.709 primaries",)), transfer="log")
    if "linear" in tag:
        return StillColour(FileColour("709", "709", ("video, though it is tagged linear",)), transfer="709")
    return StillColour(FileColour("709", "709", () if "709" in tag else UNTAGGED.assumed), transfer="709")


def of_profile(data: bytes) -> StillColour:
    try:
        profile = ImageCms.ImageCmsProfile(io.BytesIO(data))
        name = (ImageCms.getProfileDescription(profile) or "profile").strip()[:60]
        return _opened(profile, name)
    except (OSError, ImageCms.PyCMSError, ValueError, TypeError):
        return StillColour(FileColour("709", "sRGB", ("its colour profile can't be read: taken as sRGB",)))


def _opened(profile: Any, name: str) -> StillColour:
    inside = profile.profile
    if inside.xcolor_space.strip() != "RGB":
        return StillColour(FileColour("709", "sRGB", (f"{name} is no RGB profile: taken as sRGB",)))
    colorants = [inside.red_colorant, inside.green_colorant, inside.blue_colorant]
    if any(one is None for one in colorants):
        return StillColour(FileColour("709", "sRGB", (f"{name} has no primaries of its own: taken as sRGB",)))
    matrix = _from_d50(np.array([one[0] for one in colorants]).T)
    curve = _grey(profile)
    return StillColour(
        FileColour("709" if matrix is None else _named(matrix, name), "sRGB" if curve is None else "profile's own"),
        matrix,
        curve,
    )


def _from_d50(colorants: Floats) -> Floats | None:
    """Of colorants as columns (3, 3) in XYZ under D50."""
    white = np.array([0.95047, 1.0, 1.08883])
    adapt = np.linalg.solve(BRADFORD, np.diag((BRADFORD @ white) / (BRADFORD @ D50)) @ BRADFORD)
    ours = _xyz_of_709()
    matrix = np.asarray(np.linalg.solve(ours, adapt @ colorants))
    return None if np.abs(matrix - np.eye(3)).max() < 5.0 * ALIKE else matrix


def _xyz_of_709() -> Floats:
    """Columns of R, G and B in XYZ: IEC 61966-2-1."""
    return np.array([[0.4124, 0.3576, 0.1805], [0.2126, 0.7152, 0.0722], [0.0193, 0.1192, 0.9505]])


def _named(matrix: Floats, name: str) -> str:
    known = ((key, matrix_to_709(PRIMARIES[key])) for key in ("P3", "2020"))
    return next((key for key, one in known if np.abs(one - matrix).max() < 5.0 * ALIKE), name)


def _grey(profile: Any) -> Floats | None:
    """What the engine makes of a grey ramp in sRGB, 0..1; None where that is the ramp itself."""
    ramp = np.repeat(np.arange(256, dtype=np.uint8)[None, :, None], 3, axis=2)
    ours, how = ImageCms.createProfile("sRGB"), ImageCms.Intent.RELATIVE_COLORIMETRIC
    made = ImageCms.profileToProfile(
        Image.fromarray(ramp, "RGB"), profile, ours, renderingIntent=how, outputMode="RGB"
    )
    values = np.asarray(made, dtype=float)[0].mean(axis=1) / 255.0
    off = np.abs(values - np.arange(256) / 255.0).max()
    return None if off <= 2.5 / 255.0 else np.maximum.accumulate(values)
