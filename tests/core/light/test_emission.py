"""Modifiers, gels and photometry files, through the light they give."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.light.basis import BasisStore
from ausblick.core.light.mix import probe_light
from ausblick.core.plan import IesError, Plan, PlanError, read_ies
from tests.conftest import MakePlan, lamp

AHEAD = {"position": [0, 1, 5], "aim": [0, 1, 0]}
BARE = lamp(emitter={"shape": "point"}, flux_lm=4000, beam={"kind": "beam", "deg": 60}, **AHEAD)


def lux(plan: Plan, x: float = 0.0, z: float = 2.0) -> float:
    return float(probe_light(plan, np.array([x, 1.0, z]), np.array([0.0, 0.0, 1.0]), BasisStore())[1])


def with_modifier(make: MakePlan, **modifier: Any) -> Plan:
    return make(subject=None, room={"ambient_lux": 0}, lights=[{**BARE, "modifier": modifier}])


def test_a_soft_box_is_a_lambertian_face_of_its_size(make: MakePlan) -> None:
    plan = with_modifier(make, kind="softbox", width=0.8, height=0.8, transmission=0.5)
    same = make(
        subject=None, lights=[lamp(emitter={"shape": "rect", "width": 0.8, "height": 0.8}, flux_lm=2000, **AHEAD)]
    )
    assert lux(plan) == pytest.approx(lux(same), rel=1e-9)
    assert lux(plan, x=1.5) == pytest.approx(lux(same, x=1.5), rel=1e-9)


def test_diffusion_passes_what_it_catches(make: MakePlan) -> None:
    """A small sheet misses part of the beam; a huge one catches all of it."""
    small, huge = (
        with_modifier(make, kind="diffusion", width=w, height=w, transmission=0.5, distance=0.4) for w in (0.2, 9)
    )
    far = 400.0
    total = 4000 * 0.5 / np.pi / (far + 2.6) ** 2
    assert lux(huge, z=5 - 0.4 - 3) < total * (far + 2.6) ** 2
    assert lux(small) < 0.5 * 4000 * 0.5 / np.pi / 2.6**2
    caught = lux(small) * np.pi * 2.6**2 / 0.5
    assert 150 < caught < 2000


def test_a_grid_cuts_off_at_half_its_angle(make: MakePlan) -> None:
    bare, gridded = make(subject=None, lights=[BARE]), with_modifier(make, kind="grid", deg=40)
    assert lux(gridded) == pytest.approx(0.9 * lux(bare))
    edge = 3.0 * np.tan(np.radians(20))
    assert lux(gridded, x=edge * 1.01) == 0.0
    half = 3.0 * np.tan(np.radians(20)) / 2
    assert lux(gridded, x=half) == pytest.approx(0.9 * 0.5 * lux(bare, x=half), rel=1e-6)


def test_a_door_closed_on_one_side_cuts_that_side_only(make: MakePlan) -> None:
    bare, doors = make(subject=None, lights=[BARE]), with_modifier(make, kind="doors", deg=90, left=5)
    left, right = (lux(doors, x=x) / lux(bare, x=x) for x in (-2.0, 2.0))
    assert sorted((left, right)) == pytest.approx([0.0, 1.0])


def test_an_umbrella_softens(make: MakePlan) -> None:
    plan = with_modifier(make, kind="umbrella", width=1.0, transmission=0.55)
    same = make(subject=None, lights=[lamp(emitter={"shape": "disc", "diameter": 1.0}, flux_lm=2200, **AHEAD)])
    assert lux(plan, x=0.7) == pytest.approx(lux(same, x=0.7), rel=1e-9)


@pytest.mark.parametrize(
    ("kind", "usual"),
    [
        ("softbox", {"width": 0.9, "height": 0.6, "transmission": 0.55}),
        ("umbrella", {"width": 1.0, "transmission": 0.55}),
        ("diffusion", {"width": 1.0, "height": 1.0, "distance": 0.5, "transmission": 0.5}),
        ("grid", {"deg": 40.0}),
        ("doors", {"deg": 45.0}),
    ],
)
def test_a_field_left_out_takes_the_usual_value(make: MakePlan, kind: str, usual: dict[str, float]) -> None:
    """The light of a modifier without numbers is the light of one whose usual numbers are written out."""
    plain = with_modifier(make, kind=kind)
    for x in (0.0, 0.4, 0.9, 1.1, 2.0, 3.2, 6.5):
        assert lux(plain, x=x) == pytest.approx(lux(with_modifier(make, kind=kind, **usual), x=x), rel=1e-9)


def test_a_gel_colours_and_costs(make: MakePlan) -> None:
    red = make(subject=None, lights=[{**BARE, "gel": [0.9, 0.2, 0.1]}])
    at, facing = np.array([0.0, 1.0, 2.0]), np.array([0.0, 0.0, 1.0])
    ratio = probe_light(red, at, facing, BasisStore()) / probe_light(
        make(subject=None, lights=[BARE]), at, facing, BasisStore()
    )
    assert ratio == pytest.approx([0.9, 0.2, 0.1])


def ies(vertical: list[float], horizontal: list[float], rows: list[list[float]], head: str = "IESNA:LM-63-2002",
        tilt: str = "TILT=NONE", factors: str = "1 1 100", multiplier: float = 1.0) -> str:  # fmt: skip
    numbers = "\n".join(" ".join(f"{v:g}" for v in row) for row in [vertical, horizontal, *rows])
    count = f"1 1000 {multiplier:g} {len(vertical)} {len(horizontal)} 1 2 0 0 0"
    return f"{head}\n[TEST] made up\n{tilt}\n{count}\n{factors}\n{numbers}\n"


V = [float(v) for v in range(0, 91, 5)]
COSINE = [1000 * float(np.cos(np.radians(v))) for v in V]


def test_axial_symmetry_gives_intensity_and_flux() -> None:
    """A cosine lobe of 1000 cd: flux = 1000 pi."""
    found = read_ies(ies(V, [0], [COSINE]))
    assert found.flux == pytest.approx(1000 * np.pi, rel=0.01)
    assert found.intensity(np.array([30.0, 32.5]), np.array([77.0, 200.0])) == pytest.approx(
        [1000 * np.cos(np.radians(30)), (COSINE[6] + COSINE[7]) / 2], rel=1e-3
    )
    assert found.intensity(np.array([120.0]), np.array([0.0])) == 0.0


def test_quadrant_and_bilateral_symmetry_fold() -> None:
    quadrant = read_ies(ies([0, 90], [0, 90], [[100, 0], [100, 50]]))
    assert quadrant.intensity(np.full(4, 90.0), np.array([90.0, 270.0, 180.0, 45.0])) == pytest.approx(
        [50, 50, 0, 25]
    )
    bilateral = read_ies(ies([0, 90], [0, 90, 180], [[100, 10], [100, 20], [100, 40]]))
    assert bilateral.intensity(np.full(3, 90.0), np.array([-90.0, 180.0, 225.0])) == pytest.approx([20, 40, 30])
    full = read_ies(ies([0, 90], [0, 90, 180, 270, 360], [[9, 1], [9, 2], [9, 3], [9, 4], [9, 1]]))
    assert full.intensity(np.full(2, 90.0), np.array([270.0, 315.0])) == pytest.approx([4, 2.5])


def test_factors_multiply_as_the_format_says() -> None:
    new = read_ies(ies([0, 90], [0], [[100, 0]], factors="0.9 0.5 100", multiplier=2))
    old = read_ies(ies([0, 90], [0], [[100, 0]], factors="0.9 0.5 100", multiplier=2, head="IESNA91"))
    assert (new.candela.max(), old.candela.max()) == pytest.approx((180, 90))


def test_a_plan_carries_its_photometry(make: MakePlan) -> None:
    text = ies(V, [0], [COSINE])
    fixture = {"emitter": {"shape": "point"}, "beam": {"kind": "ies", "ref": "a"}}
    own = make(subject=None, photometry={"a": text}, lights=[{**AHEAD, "fixture": fixture}])
    assert lux(own) == pytest.approx(1000 / 9, rel=1e-3)
    assert lux(own, x=3.0) == pytest.approx(1000 * np.sqrt(0.5) * np.sqrt(0.5) / 18, rel=2e-3)
    scaled = make(
        subject=None, photometry={"a": text}, lights=[{**AHEAD, "fixture": {**fixture, "flux_lm": 500 * np.pi}}]
    )
    assert lux(scaled) == pytest.approx(500 / 9, rel=0.01)
    dark = make(subject=None, photometry={"a": text}, lights=[{**AHEAD, "fixture": {**fixture, "flux_lm": 0.0}}])
    assert lux(dark) == 0.0


def test_tilt_follows_the_lamps_lean(make: MakePlan) -> None:
    text = ies(V, [0], [COSINE], tilt="TILT=INCLUDE\n1\n3\n0 90 180\n1.0 0.8 0.6")
    fixture = {"emitter": {"shape": "point"}, "beam": {"kind": "ies", "ref": "a"}}
    level = make(subject=None, photometry={"a": text}, lights=[{**AHEAD, "fixture": fixture}])
    assert lux(level) == pytest.approx(800 / 9, rel=1e-3)


GOOD = ies([0, 45, 90], [0], [[100, 70, 0]])


@pytest.mark.parametrize(
    ("text", "about"),
    [
        ("", "TILT"), ("hello", "TILT"), (GOOD.replace("TILT=NONE", "TILT=lamp.tlt"), "another file"),
        (GOOD.replace("TILT=NONE", "TILT=INCLUDE"), "tilt"), (GOOD[:-12], "ends before"),
        (GOOD.replace("70", "seventy"), "seventy"), (GOOD.replace("100 70", "-5 70"), "below zero"),
        (GOOD.replace("1 1000 1 3 1 1", "1 1000 1 3 1 2"), "type B"),
        (GOOD.replace("1 1000 1 3 1 1", "1 1000 1 3 1 3"), "type A"),
        (GOOD.replace("1 1000 1 3 1 1", "1 1000 1 3.5 1 1"), "whole number"),
        (GOOD.replace("1 1000 1 3 1 1", "1 1000 1 99999999 1 1"), "whole number"),
        (GOOD.replace("1 1000 1 3 1 1", "1 1000 1 1000 1000 1"), "at most"),
        (GOOD.replace("1 1000 1 3 1 1", "1 1000 0 3 1 1"), "multiplies"),
        (GOOD.replace("0 45 90", "0 90 45"), "rise"),
        (GOOD.replace("0 45 90", "0 45 80"), "vertical angles"), (GOOD.replace("100 70 0", "0 0 0"), "no light"),
        (GOOD.replace("100 70", "inf 70"), "without end"), (GOOD.replace("1 1 100", "0 1 100"), "ballast"),
    ],
)  # fmt: skip
def test_malformed_files_are_refused_in_one_line(make: MakePlan, text: str, about: str) -> None:
    with pytest.raises(IesError, match=about) as refused:
        read_ies(text)
    assert "\n" not in str(refused.value)
    with pytest.raises(PlanError, match="photometry"):
        make(photometry={"mine": text})


def test_a_reference_to_nothing_is_refused(make: MakePlan) -> None:
    with pytest.raises(PlanError, match="names no entry"):
        make(lights=[{"fixture": {"beam": {"kind": "ies", "ref": "gone"}}}])


BOX = {"kind": "softbox", "width": 0.8, "height": 0.8, "transmission": 0.5}
GRID = {"kind": "grid", "deg": 40}


def through(make: MakePlan, *modifiers: dict[str, Any]) -> Plan:
    first, *more = modifiers
    return make(subject=None, room={"ambient_lux": 0}, lights=[{**BARE, "modifier": first, "beyond": more}])


def test_a_grid_on_a_soft_box_cuts_the_soft_boxs_light(make: MakePlan) -> None:
    """From afar the box is a point: on the axis 0.9 of it, beyond half the grid's angle nothing."""
    box, both = through(make, BOX), through(make, BOX, GRID)
    assert lux(both, z=-40.0) == pytest.approx(0.9 * lux(box, z=-40.0), rel=0.02)
    aside = 45.0 * np.tan(np.radians(21))
    assert lux(box, x=aside, z=-40.0) > 0.0
    assert lux(both, x=aside, z=-40.0) == 0.0


def test_the_order_of_modifiers_counts(make: MakePlan) -> None:
    """A soft box on a grid spreads again what the grid has left: closed form for a cosine lobe."""
    bare = lamp(emitter={"shape": "point"}, flux_lm=4000, beam={"kind": "cosine", "n": 1}, **AHEAD)
    plan = make(subject=None, room={"ambient_lux": 0}, lights=[{**bare, "modifier": GRID, "beyond": [BOX]}])
    most = np.radians(20)
    passed = np.sin(most) ** 2 / 2 - (most / 2 - np.sin(2 * most) / 4) / np.tan(most)
    flux = 0.9 * 2.0 * 4000 * passed * 0.5
    same = make(
        subject=None, lights=[lamp(emitter={"shape": "rect", "width": 0.8, "height": 0.8}, flux_lm=flux, **AHEAD)]
    )
    assert lux(plan) == pytest.approx(lux(same), rel=0.003)


def test_doors_before_a_grid_cut_one_side_of_it(make: MakePlan) -> None:
    doors = {"kind": "doors", "deg": 90, "left": 5}
    wide = {"kind": "grid", "deg": 90}
    grid, both = through(make, wide), through(make, wide, doors)
    left, right = (lux(both, x=x) / lux(grid, x=x) for x in (-2.0, 2.0))
    assert sorted((left, right)) == [0.0, pytest.approx(1.0)]


def test_doors_turn_light_away_from_a_sheet_before_them(make: MakePlan) -> None:
    sheet = {"kind": "diffusion", "width": 2.0, "height": 2.0, "distance": 0.5, "transmission": 0.5}
    open_, narrow = through(make, sheet), through(make, {"kind": "doors", "deg": 10}, sheet)
    assert 0.05 * lux(open_) < lux(narrow) < 0.8 * lux(open_)
