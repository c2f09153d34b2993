"""What somebody owns: screens, lenses, cameras, lamps, stands, weights."""

from .kit_document import Kit, KitCamera, KitError, KitLamp, KitLens, KitScreen, KitStand, dump_kit, kit_from

__all__ = [
    "Kit",
    "KitCamera",
    "KitError",
    "KitLamp",
    "KitLens",
    "KitScreen",
    "KitStand",
    "dump_kit",
    "kit_from",
]
