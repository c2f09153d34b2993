"""Light across the figure as the camera sees it, and how much of it each part takes: against closed forms, and
against the body as it is drawn."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from ausblick.core.camera.view import view_of
from ausblick.core.damage.round_form import SHARES, across, seen_light
from ausblick.core.damage.seen_area import seen_areas
from ausblick.core.evaluation.lit_set import round_subject
from ausblick.core.figure.outline import figure_parts
from ausblick.core.light.returned import scene_light
from ausblick.core.light.round_figure import TURNED
from ausblick.core.matte.pull import pull
from ausblick.core.plan import Plan, plan_from
from tests.stores import STORE


def plan(subject: dict[str, Any], camera: dict[str, Any] | None = None, **more: Any) -> Plan:
    return plan_from({
        "format": "ausblick-plan", "version": 1, "screen": {"width": 4.0, "height": 3.0},
        "subject": {"z": 2.4, **subject}, "camera": {"z": 6.0, "y": 1.5, "focal_mm": 35.0, **(camera or {})}, **more,
    })  # fmt: skip


def test_light_from_all_round_is_as_much_at_every_turn_and_a_lamp_goes_by_the_cosine() -> None:
    weights, turns = across(SHARES, 1.0), np.arcsin(SHARES)
    assert weights @ np.ones(5) == pytest.approx(np.ones(len(SHARES)), abs=1e-9)
    # One that every turn sees that is asked for: half way up, half from ahead.
    lit = 1.0 + np.cos(np.radians(TURNED) - 0.6)
    assert weights @ lit == pytest.approx(1.0 + np.cos(turns - 0.6), abs=0.03)


def test_half_of_a_flat_chest_faces_the_camera_within_18_degrees() -> None:
    """A round one does so on 0.31 of its width; an ellipse 0.58 as deep on sin(atan(tan 18 / 0.58))."""
    ahead = across(np.array([0.49]), 0.58) @ np.array(TURNED)
    assert float(ahead[0]) == pytest.approx(18.0, abs=0.8)


def test_the_bodys_own_shadow_takes_more_of_what_is_turned_away_and_less_of_the_screens_colour() -> None:
    white = seen_light("chest", np.ones((5, 3)), 1).reshape(3, -1, 3)
    assert np.ptp(white, axis=-1) == pytest.approx(np.zeros(white.shape[:2])), "white light stays white"
    middle = white.shape[1] // 2
    assert white[0, middle, 0] == pytest.approx(0.78)
    assert white[0, 0, 0] < 0.65 * white[0, middle, 0]
    tinted = seen_light("chest", np.ones((5, 3)) * [1.0, 1.4, 1.0], 1).reshape(3, -1, 3)
    colour = tinted[..., 1] - tinted[..., 0]
    share = colour / tinted[..., 0]
    assert share[0, middle] > 1.5 * share[2, middle], "in the shadow more of what is left is the screen's"


@pytest.mark.parametrize(
    ("framing", "camera", "torso", "legs"),
    [
        ("full", {"z": 9.0, "focal_mm": 28.0, "y": 1.0}, 0.56, 0.32),
        ("full", {"z": 6.0, "focal_mm": 85.0, "y": 1.35}, 0.85, 0.0),
        ("full", {"z": 6.0, "focal_mm": 85.0, "y": 0.4, "tilt": 0.0}, 0.0, 1.0),
        ("waist", {"z": 9.0, "focal_mm": 28.0, "y": 1.0}, 0.56 / 0.68, 0.0),
    ],
)
def test_what_the_camera_shows_of_the_figure_counts(
    framing: str, camera: dict[str, Any], torso: float, legs: float
) -> None:
    """All of the modelled body, its chest, its shins; no legs that are not wanted."""
    own = plan({"height": 1.75, "framing": framing}, camera)
    assert own.subject is not None
    found = seen_areas(own.subject, view_of(own.camera, own.subject), own.camera)
    assert sum(found.values()) == pytest.approx(1.0)
    assert found.get("drawn torso", 0.0) == pytest.approx(torso, abs=0.06)
    assert found.get("drawn legs", 0.0) == pytest.approx(legs, abs=0.04)


def test_a_lit_floor_run_sends_the_shins_more_of_its_colour_than_the_chest() -> None:
    lamps = [{"position": [x, 3.0, 2.4], "aim": [0.0, 0.0, 1.4]} for x in (-2.0, 2.0)]
    own = plan({"framing": "full"}, lights=lamps, screen={"width": 4.0, "height": 3.0, "floor_run": 3.5})
    around = round_subject(own, scene_light(own, STORE), STORE)
    shares = {part: float(1.5 * lux[2, 1] - 0.5 * lux[2].sum()) / float(lux[2, 1]) for part, lux in around.items()}
    assert shares["legs"] > 1.5 * shares["chest"]


def test_a_sitters_shins_are_lit_where_they_are() -> None:
    """0.4 m before the mark: 2.1 m from a lamp near the ground that is 2.5 m from who stands, two fifths more."""
    lamp = {"position": [0.0, 0.4, 5.0], "aim": [0.0, 0.4, 2.4]}
    lit = {}
    for posture in ("standing", "seated"):
        own = plan({"framing": "full", "posture": posture}, lights=[lamp])
        lit[posture] = float(round_subject(own, scene_light(own, STORE), STORE)["legs"][2].sum())
    assert lit["seated"] == pytest.approx(1.41 * lit["standing"], rel=0.15)


def test_a_shirt_of_the_screens_hue_is_not_picked_as_screen_where_somebody_is_seen_to_stand() -> None:
    """Navy of a quarter of the screen's light in the middle of a blue screen: 0.75 of it is kept by any one colour
    that is picked beside it; picked itself, all is lost."""
    linear = np.empty((240, 320, 3), dtype=np.float32)
    linear[:] = (0.05, 0.10, 0.40)
    figure = np.zeros(linear.shape[:2], dtype=bool)
    figure[60:, 100:220] = True
    linear[figure] = 0.25 * np.array([0.05, 0.10, 0.40])
    picked = np.array([0.05, 0.10, 0.40])
    known = pull(linear, 2, picked, 10.0, figure=figure)
    taken = pull(linear, 2, picked, 10.0)
    assert known is not None
    assert taken is not None
    assert float(known.raw[150, 160]) == pytest.approx(0.75, abs=0.01)
    assert float(taken.raw[150, 160]) < 0.5


def test_of_hands_alone_what_the_frame_shows_counts() -> None:
    """All of them and their sleeves, by the areas of their outlines; a lens that shows no sleeve; none of it."""
    shares = []
    for camera in ({"focal_mm": 12.0, "y": 1.0}, {"focal_mm": 50.0, "y": 1.0}, {"focal_mm": 50.0, "y": 2.2}):
        own = plan({"height": 1.75, "framing": "hands"}, {"z": 4.0, **camera})
        assert own.subject is not None
        found = seen_areas(own.subject, view_of(own.camera, own.subject), own.camera)
        assert sum(found.values()) == pytest.approx(1.0)
        shares.append(found["skin"])
    area = {"torso": 0.0, "arms": 0.0, "hands": 0.0}
    for name, corners in figure_parts(own.subject, own.camera):
        x, y = corners[:, 0], corners[:, 1]
        area[name] += 0.5 * abs(float(x @ np.roll(y, -1) - y @ np.roll(x, -1)))
    assert shares[0] == pytest.approx(area["hands"] / sum(area.values()), abs=0.03)
    assert shares[1:] == [1.0, 0.4]
