from __future__ import annotations

import pytest

from ausblick.core.kit import KitError, kit_from
from ausblick.core.kit.catalogue import full_kit, small_kit
from ausblick.formats.csv_kit import kit_csv, read_kit_csv


@pytest.mark.parametrize("kit", [full_kit(), small_kit()])
def test_out_and_in_again_keeps_what_the_table_and_proposals_use(kit: object) -> None:
    again = read_kit_csv(kit_csv(kit))  # type: ignore[arg-type]
    for group, fields in {
        "screens": ("name", "count", "width", "height", "floor_run", "hue", "material"),
        "lenses": ("name", "focal_mm", "f_number"),
        "lamps": ("name", "count", "fixture"),
        "stands": ("name", "height", "load_kg"),
    }.items():
        for one, other in zip(getattr(kit, group), getattr(again, group), strict=True):
            assert [getattr(one, f) for f in fields] == [getattr(other, f) for f in fields]
    assert (again.sandbags, again.clamps) == (kit.sandbags, kit.clamps)  # type: ignore[attr-defined]


def test_decimal_comma_and_spreadsheet_marks_are_read() -> None:
    kit = read_kit_csv('\ufeffkind,name,count,focal_mm\nlens,"50 mm",2,"50,5"\n')
    assert (kit.lenses[0].count, kit.lenses[0].focal_mm) == (2, 50.5)


@pytest.mark.parametrize(
    ("text", "where"),
    [
        ("", "row 1"),
        ("a,b\n1,2\n", "row 1"),
        ("kind,name\ndrone,x\n", "row 2, kind"),
        ("kind,name,focal_mm\nlens,x,long\n", "row 2, focal_mm"),
        ("kind,name,focal_mm\nlens,x,inf\n", "row 2, focal_mm"),
        ("kind,name,focal_mm\nlens,x,-4\n", "lenses[0].focal_mm"),
        ("kind,name\n" + "lens,x\n" * 1200, "row 1001"),
    ],
)
def test_what_is_wrong_is_named(text: str, where: str) -> None:
    with pytest.raises(KitError) as caught:
        read_kit_csv(text)
    assert caught.value.path == where


def test_a_bare_carriage_return_ends_a_line_too() -> None:
    kit = read_kit_csv("kind,name,count\rlens,35 mm,2\r")
    assert [(lens.name, lens.count) for lens in kit.lenses] == [("35 mm", 2)]


def test_a_kit_has_a_size() -> None:
    with pytest.raises(KitError, match="larger than 2 MB"):
        kit_from({"stands": [{"name": "x" * 190, "note": "y" * 12_000}] * 190})
