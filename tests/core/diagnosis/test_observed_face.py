"""The face in a frame: the light that is there, the key that only it tells of, and skin that nobody planned."""

from __future__ import annotations

from dataclasses import replace
from functools import cache

import numpy as np
import pytest

from ausblick.core.diagnosis.cause import cause_of_light
from ausblick.core.diagnosis.face_light import face_light
from ausblick.core.diagnosis.light_model import light_model_of
from ausblick.core.diagnosis.observed_face import ObservedFace, face_zones
from ausblick.core.diagnosis.observed_light import ObservedLight
from ausblick.core.diagnosis.stories import Culprit
from ausblick.core.diagnosis.story_fit import StoryFit
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.geometry.vectors import Floats
from ausblick.core.light.mix import coloured
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.core.standin.as_built import AsBuilt
from ausblick.demo.fern_house_2 import two_gardeners, welcome
from tests.core.diagnosis.test_cause import seen
from tests.stores import STORE

KEY = 2
DARK = (0.12, 0.07, 0.05)


@cache
def steep() -> Plan:
    """A key so steep and near that it gives the face most of its light and the screen next to none."""
    plan = welcome()
    assert plan.subject is not None
    s = plan.subject
    place, aim = [s.x + 1.2, 2.5, s.z + 1.2], [s.x, 1.5, s.z]
    return apply_changes(plan, [Change(f"lights[{KEY}].position", place), Change(f"lights[{KEY}].aim", aim)])


@cache
def as_planned() -> ObservedLight:
    return built()


def built(*changes: Change, seed: int = 3) -> ObservedLight:
    return seen(steep(), AsBuilt(apply_changes(steep(), list(changes))), seed)


def face(found: ObservedLight) -> ObservedFace:
    assert found.face is not None
    return found.face


def planned() -> Floats:
    own, left, white, _, rest = face_light(steep(), STORE)
    return np.asarray(np.einsum("lc,lzc->zc", coloured(steep()), (own * left)[..., None] + white) + rest)


def test_the_light_on_a_face_is_read_as_it_was_planned() -> None:
    off = np.log(face(as_planned()).rgb / planned())
    # The nose shines and catches more than a ball does.
    assert np.abs(off[[0, 2], 1]).max() < 0.2
    assert abs(off[1, 1]) < 0.45
    assert np.abs(off[:, 0] - off[:, 1]).max() < 0.1


def test_zones_face_left_ahead_and_right_as_the_lens_sees_them() -> None:
    plan = steep()
    assert plan.subject is not None
    left, ahead, right = face_zones(plan, plan.subject).normals.mean(axis=1)
    assert left[0] < -0.3 < 0.3 < right[0]
    assert ahead[2] > 0.9


@pytest.mark.torture
def test_a_key_that_hardly_reaches_the_screen_is_missed_on_the_face() -> None:
    lux = evaluate(steep(), STORE).screen_by_lamp
    assert lux[steep().lights[KEY].id] < 0.03 * sum(lux.values())
    found = built(Change(f"lights[{KEY}].on", False))
    cause = cause_of_light(steep(), found, STORE)
    assert cause is not None
    assert cause.lamp == steep().lights[KEY].name
    assert cause.story in ("off", "dimmer")
    assert cause.factor is not None
    assert cause.factor < 0.25
    blind = cause_of_light(steep(), replace(found, face=None), STORE)
    assert blind is not None
    assert blind.lamp is None or blind.certainty < cause.certainty


def test_dark_skin_is_no_dim_key() -> None:
    cause = cause_of_light(steep(), built(Change("subject.skin", DARK)), STORE)
    assert cause is not None
    assert cause.story == "as-planned"


@pytest.mark.parametrize("what", ["green", "glaring"])
def test_what_can_be_no_such_face_is_left_out(what: str) -> None:
    found = as_planned()
    rgb = face(found).rgb * (np.array([0.4, 1.0, 0.4]) if what == "green" else 3.0)
    other = replace(found, face=ObservedFace(rgb, face(found).frame))
    assert light_model_of(steep(), found, STORE).observed.face is not None
    assert light_model_of(steep(), other, STORE).observed.face is None


@pytest.mark.torture
def test_beside_others_no_face_is_read() -> None:
    plan = two_gardeners()
    assert seen(plan, AsBuilt(plan)).face is None


def test_an_obstacle_that_takes_all_of_a_beam_on_the_screen_is_held_against_it_beside_a_face() -> None:
    """Nothing stands before the face: that it keeps its light says nothing of what the screen keeps."""
    model = light_model_of(steep(), as_planned(), STORE)
    assert model.observed.face is not None
    fit = StoryFit(model)
    key = next(i for i, lamp in enumerate(model.lamp_list) if lamp.role == "key")
    story = (Culprit("obstacle", key),)
    total, each = model.light(model.as_planned)
    taken = -0.9 * each[key][:, model.key] / total[:, model.key]
    taken[model.observed.cells :] = 0.0
    assert fit._all_of_it(story, taken) == pytest.approx(0.85)
    assert fit._all_of_it(story, 0.0 * taken) == 0.0
