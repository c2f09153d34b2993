"""More things into a kit: nothing that is there is replaced."""

from __future__ import annotations

from typing import Any

from .kit_document import Kit, dump_kit, kit_from

KINDS = ("screens", "lenses", "cameras", "lamps", "stands")


def added(kit: Kit, more: Kit) -> Kit:
    """What `more` has and the kit has not. Of a thing that both have, as many as the larger of both says.

    Raises KitError where that is more than a kit may hold.
    """
    data, new = dump_kit(kit), dump_kit(more)
    for kind in KINDS:
        have: list[dict[str, Any]] = data[kind]
        for thing in new[kind]:
            same = next((one for one in have if _plain(one) == _plain(thing)), None)
            if same is None:
                have.append(thing)
            else:
                same["count"] = max(same["count"], thing["count"])
    for count in ("sandbags", "clamps"):
        data[count] = max(data[count], new[count])
    return kit_from(data)


def _plain(thing: dict[str, Any]) -> dict[str, Any]:
    return {name: value for name, value in thing.items() if name != "count"}
