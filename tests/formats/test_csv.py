from __future__ import annotations

import csv
import io

from ausblick.demo.fern_house import seed_vault
from ausblick.formats.csv_lights import lights_csv
from tests.conftest import MakePlan


def test_one_row_a_lamp_with_units_in_the_header() -> None:
    rows = list(csv.DictReader(io.StringIO(lights_csv(seed_vault()))))
    assert [row["name"] for row in rows] == ["left panel", "right panel", "lantern key", "back light"]
    assert (rows[0]["x_m"], rows[0]["dimmer_percent"], rows[0]["flux_lm"], rows[0]["on"]) == (
        "-2.3",
        "55.0",
        "6000.0",
        "yes",
    )


def test_names_that_a_spreadsheet_would_run_are_text(make: MakePlan) -> None:
    text = lights_csv(make(lights=[{"name": "=HYPERLINK(1)"}, {"fixture": {"emitter": {"shape": "sun"}}}]))
    rows = list(csv.DictReader(io.StringIO(text)))
    assert rows[0]["name"] == "'=HYPERLINK(1)"
    assert (rows[1]["shape"], rows[1]["width_m"], rows[1]["normal_lux"]) == ("sun", "", "80000.0")
