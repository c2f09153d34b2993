from __future__ import annotations

import pytest

from ausblick.core.kit import KitError, dump_kit, kit_from
from ausblick.core.kit.catalogue import full_kit, small_kit


def test_round_trip() -> None:
    for kit in (full_kit(), small_kit(), kit_from({})):
        assert kit_from(dump_kit(kit)) == kit


@pytest.mark.parametrize(
    ("data", "path"),
    [
        ([], "kit"),
        ({"screens": [{"width": -1}]}, "screens[0].width"),
        ({"lamps": [{"count": 1.5}]}, "lamps[0].count"),
        (
            {"lamps": [{"fixture": {"emitter": {"shape": "rect", "width": float("nan")}}}]},
            "lamps[0].fixture.emitter.width",
        ),
        ({"lenses": [{"focal_mm": "50"}]}, "lenses[0].focal_mm"),
        ({"version": 2}, "version"),
    ],
)
def test_what_is_wrong_is_named(data: object, path: str) -> None:
    with pytest.raises(KitError) as caught:
        kit_from(data)
    assert caught.value.path == path
