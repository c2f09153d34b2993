"""Film on the pane of a window in a wall: what goes through is dimmed, each way and to the lens, and nothing else."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.advice.findings import find
from ausblick.core.advice.moves import film_on_pane
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.evaluation.results import Evaluation
from ausblick.core.light.returned import probe_all
from ausblick.core.matte.background import background_of
from ausblick.core.matte.capture import capture_of
from ausblick.core.matte.pixel_window import PixelWindow
from ausblick.core.plan import Change, Plan, apply_changes
from tests.conftest import MakePlan, lamp
from tests.stores import STORE

PANE = {"x": 0.0, "y": 1.5, "z": 1.5, "width": 1.4, "height": 1.3}
OUTSIDE = [
    lamp(id=f"out{k}", position=[x, 1.6, 1.0], aim=[0.0, 1.5, 0.0], flux_lm=9000) for k, x in enumerate((-1.6, 1.6))
]
KEY = lamp(id="key", role="key", position=[1.0, 2.0, 4.4], aim=[0.0, 1.5, 2.6], dimmer=0.4)
BLACK = {"walls": [0.0] * 3, "ceiling": [0.0] * 3, "floor": [0.0] * 3}


@pytest.fixture
def window_set(make: MakePlan) -> Plan:
    return make(
        screen={"width": 4.0, "height": 3.0, "transmittance": 0.0},
        room={"reflectance": BLACK},
        window=PANE,
        subject={"z": 2.6, "framing": "waist"},
        camera={"z": 6.0, "focal_mm": 50.0, "iso": 400, "f_number": 4.0},
        lights=[*OUTSIDE, KEY],
    )


def filmed(plan: Plan, stops: float) -> Plan:
    return apply_changes(plan, [Change("window.film_stops", stops)])


def face(evaluation: Evaluation, name: str) -> float:
    return evaluation.face_by_lamp[name]


def test_the_lens_sees_the_screen_darker_and_the_cloth_is_lit_as_before(window_set: Plan) -> None:
    bare, two = evaluate(window_set, STORE), evaluate(filmed(window_set, 2.0), STORE)
    judged = bare.screen_map.judged
    assert bare.screen is not None
    assert two.screen is not None
    # The key's own light goes in through the film as well: a little of the cloth's is less.
    assert two.screen.lux_mean == pytest.approx(bare.screen.lux_mean, rel=0.03)
    seen = two.screen_map.linear[judged].mean() / bare.screen_map.linear[judged].mean()
    assert seen == pytest.approx(0.25, rel=0.03)
    assert two.target.lux_low == pytest.approx(4.0 * bare.target.lux_low)
    assert two.target.level == pytest.approx(bare.target.level)


def test_light_is_dimmed_on_its_way_in_and_on_its_way_out(make: MakePlan, window_set: Plan) -> None:
    """A lamp outside on the face, one inside on the cloth; the key on the face goes through nothing."""
    through = [lamp(id="out", position=[0.2, 1.6, 0.4], aim=[0.0, 1.5, 2.6]), KEY]
    inward = [lamp(id="in", position=[0.3, 1.5, 3.4], aim=[0.0, 1.5, 0.0])]
    lit = window_set.model_copy(update={"lights": make(lights=[*through, *inward]).lights})
    bare, one = evaluate(lit, STORE), evaluate(filmed(lit, 1.0), STORE)
    assert face(one, "out") == pytest.approx(0.5 * face(bare, "out"), rel=0.02)
    assert face(one, "key") == pytest.approx(face(bare, "key"), rel=0.02)
    assert one.screen_by_lamp["in"] == pytest.approx(0.5 * bare.screen_by_lamp["in"], rel=0.02)
    # What the cloth sends into the room: lit from inside it has gone through twice when it is there.
    only = lit.model_copy(update={"lights": make(lights=inward).lights})
    back = [
        float(probe_all(plan, np.array([0.0, 1.4, 2.4]), np.array([0.0, 0.0, -1.0]), e.scene_light, STORE).total[1])
        for plan in (only, filmed(only, 1.0))
        for e in (evaluate(plan, STORE),)
    ]
    assert back[1] == pytest.approx(0.25 * back[0], rel=0.02)


def test_the_picture_is_darker_through_the_pane_only(window_set: Plan) -> None:
    pictures = []
    for plan in (window_set, filmed(window_set, 1.0)):
        capture = capture_of(evaluate(plan, STORE), STORE)
        image, on_screen = background_of(capture, PixelWindow(0, 0, 480, 270, 8.0))
        pictures.append((image, on_screen > 0.5))
    (bare, screen), (dark, _) = pictures
    middle = screen & (np.roll(screen, 6, axis=0) & np.roll(screen, -6, axis=0))
    assert dark[middle].mean() / bare[middle].mean() == pytest.approx(0.5, rel=0.04)


@pytest.mark.parametrize(
    ("film", "over", "wanted"), [(0.0, 1.6, 2.0), (3.0, -1.1, 2.0), (6.0, 0.8, None), (1.0, -4.0, 0.0)]
)
def test_film_is_never_taken_off_a_window_that_is_too_bright(
    window_set: Plan, film: float, over: float, wanted: float | None
) -> None:
    """Heavier film than is sold can't be had; what hangs already stays."""
    found = [c.value for one in film_on_pane(filmed(window_set, film), over) for c in one.changes]
    assert found == ([] if wanted is None else [wanted])


def test_a_window_that_is_too_bright_is_cured_by_film_or_by_lifting_the_room(window_set: Plan) -> None:
    bright = apply_changes(window_set, [Change("camera.iso", 1600)])
    (level,) = find(bright, STORE, only={"light.level"})[1]
    assert level.judgement.severity != "fine"
    film = next(r for r in level.remedies if any(c.path == "window.film_stops" for c in r.changes))
    after = evaluate(apply_changes(bright, list(film.changes)), STORE)
    assert film.after == pytest.approx(after.screen.level_luma if after.screen else None, abs=0.1)
    assert abs((film.after or 0) - after.target.level) < abs((level.judgement.value or 0) - after.target.level)
    lifted = next(r for r in level.remedies if r.text.id == "do/lift-inside")
    paths = {c.path for c in lifted.changes}
    assert paths == {"lights[2].dimmer", "camera.f_number"}
