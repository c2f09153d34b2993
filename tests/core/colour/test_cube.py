"""A user's own curve: read by a library, applied both ways, refused where it is none."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.camera.exposure import signal
from ausblick.core.colour.cube_table import apply_table
from ausblick.core.colour.curves import decode, encode, rec709
from ausblick.core.plan import PlanError, plan_from

LOG = "LUT_1D_SIZE 65\n" + "".join(f"{v:.6f} {v:.6f} {v:.6f}\n" for v in np.linspace(0, 1, 65) ** 2.2)


def cross_talk(size: int = 17) -> str:
    """A 3-D table that mixes channels, as a camera maker's does."""
    grid = np.linspace(0.0, 1.0, size)
    rows = []
    for b in grid:
        for g in grid:
            for r in grid:
                x = np.array([r, g, b]) ** 1.5
                rows.append("{:.6f} {:.6f} {:.6f}".format(*(0.9 * x + 0.1 * x.mean())))
    return f"LUT_3D_SIZE {size}\n" + "\n".join(rows) + "\n"


def camera(text: str) -> dict[str, object]:
    return {"format": "ausblick-plan", "version": 1, "camera": {"curve": "cube", "curve_table": text}}


def test_a_recording_led_through_its_table_is_rec709() -> None:
    x = np.array([[0.02, 0.18, 0.5], [0.06, 0.34, 0.10]])
    for text in (LOG, cross_talk()):
        recorded = encode(x, "cube", text)
        assert np.allclose(apply_table(text, recorded), rec709(x), atol=2e-4)
        assert np.allclose(decode(recorded, "cube", text), x, atol=2e-3)
    # Half signal on this curve is displayed at 0.5 ** 2.2.
    assert apply_table(LOG, np.array(0.5)) == pytest.approx(0.5**2.2, abs=1e-3)


def test_levels_of_a_plan_are_those_of_its_own_curve() -> None:
    own = plan_from(camera(LOG)).camera
    grey = signal(np.full(3, 0.18), np.full(3, 1000.0), own.model_copy(update={"iso": 250.0 * 16 / (0.01 * 1000.0)}))
    assert grey[0] == pytest.approx(100.0 * 0.409 ** (1 / 2.2), abs=0.2)


@pytest.mark.parametrize("text", ["", "hello", "LUT_3D_SIZE 3\n0 0 0\n", "LUT_1D_SIZE 2\n0 0 0\n0 0 0\n"])
def test_a_table_that_cannot_be_used_is_refused_by_name(text: str) -> None:
    with pytest.raises(PlanError) as err:
        plan_from(camera(text))
    assert "camera" in err.value.line()
    assert "table" in err.value.line() or "rise from black" in err.value.line()
