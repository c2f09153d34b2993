"""Tables of `.cube` files, 1-D and 3-D, forward and inverse: read and applied by OpenColorIO."""

from __future__ import annotations

import hashlib
from functools import lru_cache
from typing import Any

import numpy as np
import PyOpenColorIO as ocio

from ..geometry.vectors import Floats

CONFIG = "ocio_profile_version: 2\nroles:\n  default: raw\ncolorspaces:\n  - !<ColorSpace>\n    name: raw\n"
ocio.SetLoggingLevel(ocio.LOGGING_LEVEL_NONE)


class _Memory(ocio.PyConfigIOProxy):  # type: ignore[misc]
    """Hands the library a text where it would open a file."""

    def __init__(self, text: str) -> None:
        super().__init__()
        self._text = text

    def getConfigData(self) -> str:
        return CONFIG

    def getLutData(self, path: str) -> list[int]:
        return list(self._text.encode())

    def getFastLutFileHash(self, path: str) -> str:
        return path


@lru_cache(maxsize=8)
def _processor(text: str, inverse: bool) -> Any:
    # The library remembers tables by name, so each text has its own.
    name = hashlib.sha256(text.encode()).hexdigest()[:24] + ".cube"
    source = _Memory(text)
    config = ocio.Config.CreateFromConfigIOProxy(source)
    way = ocio.TRANSFORM_DIR_INVERSE if inverse else ocio.TRANSFORM_DIR_FORWARD
    transform = ocio.FileTransform(src=name, interpolation=ocio.INTERP_BEST, direction=way)
    return config.getProcessor(transform).getOptimizedCPUProcessor(ocio.OPTIMIZATION_LOSSLESS)


def check_table(text: str) -> None:
    """Raises ValueError where a text is no `.cube` table, or one that can't be turned round."""
    try:
        _processor(text, False)
        _processor(text, True)
        ends = apply_table(text, np.array([[0.0, 0.0, 0.0], [1.0, 1.0, 1.0]]))
    except ocio.Exception:
        raise ValueError("is no .cube table: LUT_1D_SIZE or LUT_3D_SIZE and as many rows of three numbers") from None
    if not ends[1, 1] > ends[0, 1] + 0.05:
        raise ValueError("does not rise from black to white, so that nothing can be read back through it")


def apply_table(text: str, signal: Floats, inverse: bool = False) -> Floats:
    """Signal (..., 3) through the table, or back. Other shapes are taken as neutral."""
    colour = signal.ndim > 0 and signal.shape[-1] == 3
    rgb = signal if colour else np.repeat(signal[..., None], 3, axis=-1)
    flat = np.ascontiguousarray(rgb.reshape(-1, 3), dtype=np.float32)
    _processor(text, inverse).applyRGB(flat)
    found = flat.reshape(rgb.shape).astype(np.float64)
    return found if colour else found[..., 1]
