"""OpenColorIO, handed the text of a `.cube` table where it would open a file.

Few plans bring a table, and the library takes long to load: who has none is spared it (`cube_table`).
"""

from __future__ import annotations

import hashlib
from functools import lru_cache
from typing import Any

import PyOpenColorIO as ocio

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
def processor(text: str, inverse: bool) -> Any:
    """Raises ValueError where the text is no table, or cannot be turned round."""
    # The library remembers tables by name, so each text has its own.
    name = hashlib.sha256(text.encode()).hexdigest()[:24] + ".cube"
    source = _Memory(text)
    config = ocio.Config.CreateFromConfigIOProxy(source)
    way = ocio.TRANSFORM_DIR_INVERSE if inverse else ocio.TRANSFORM_DIR_FORWARD
    transform = ocio.FileTransform(src=name, interpolation=ocio.INTERP_BEST, direction=way)
    try:
        return config.getProcessor(transform).getOptimizedCPUProcessor(ocio.OPTIMIZATION_LOSSLESS)
    except ocio.Exception:
        raise ValueError("is no .cube table: LUT_1D_SIZE or LUT_3D_SIZE and as many rows of three numbers") from None
