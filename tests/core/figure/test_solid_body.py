"""The body: proportions by which people are drawn, a seat, five fingers, and where it looks."""

from __future__ import annotations

import numpy as np
import pytest

from ausblick.core.figure.outline import figure_parts
from ausblick.core.figure.solid_body import PARTS, SolidBody, solid_body
from ausblick.core.geometry.vectors import Floats
from ausblick.core.plan import Camera, Prop, Subject
from ausblick.core.plan.people import Build

AHEAD = Camera(x=0.0, z=8.0)
BUILDS: tuple[Build, ...] = ("man", "woman", "child")


def body(**subject: object) -> SolidBody:
    return solid_body(Subject.model_validate({"height": 1.72, "z": 2.4, **subject}), AHEAD)


def of(found: SolidBody, *parts: str) -> Floats:
    mine = np.isin(found.shape.part, [PARTS.index(part) for part in parts])
    return found.places[mine].astype(np.float64)


@pytest.mark.parametrize("build", BUILDS)
@pytest.mark.parametrize("height", [1.2, 1.9])
def test_it_is_as_tall_as_it_is_said_to_be_and_stands_on_the_floor(build: Build, height: float) -> None:
    found = body(body=build, height=height, hair_kind="none")
    assert of(found, "head")[:, 1].max() == pytest.approx(height, rel=0.004)
    assert of(found, "shoes")[:, 1].min() == pytest.approx(0.0, abs=0.004)
    assert abs(of(found, "legs")[:, 0].mean()) < 0.01


@pytest.mark.parametrize(("build", "heads"), [("man", 7.6), ("woman", 7.6), ("child", 6.2)])
def test_a_child_is_fewer_heads_tall(build: Build, heads: float) -> None:
    """Usual proportions: seven and a half heads for adults, six at about seven years."""
    head = of(body(body=build, hair_kind="none"), "head")
    front = head[(np.abs(head[:, 0]) < 0.01) & (head[:, 2] > 2.4 + 0.03)]
    # The chin: the lowest place of the face that is well before the neck.
    chin = front[front[:, 2] > front[:, 2].max() - 0.045][:, 1].min()
    assert 1.72 / (1.72 - chin) == pytest.approx(heads, rel=0.05)


def test_a_woman_is_narrower_at_shoulders_and_waist_than_at_her_hips() -> None:
    wide = {}
    for build in BUILDS[:2]:
        coat = of(body(body=build), "coat")
        for name, share in (("chest", 0.745), ("waist", 0.585), ("hips", 0.47)):
            at = coat[(np.abs(coat[:, 1] - 1.72 * share) < 0.012) & (np.abs(coat[:, 0]) < 0.21)]
            wide[build, name] = float(np.ptp(at[:, 0]))
    assert wide["man", "chest"] > wide["woman", "chest"] > wide["woman", "waist"]
    assert wide["woman", "waist"] < 0.85 * wide["woman", "hips"]


def test_a_hand_has_five_fingers() -> None:
    """Cut across the raised hand: four fingers above the knuckles, and lower down the thumb beside the palm."""
    hand = [outline for name, outline in figure_parts(Subject(height=1.0, z=0.0), AHEAD) if name == "hands"][-1]
    y, after = hand[:, 1], np.roll(hand[:, 1], -1)
    cut = {level: int(((y - level) * (after - level) < 0.0).sum()) // 2 for level in (0.835, 0.862, 0.876)}
    assert cut == {0.835: 1, 0.862: 2, 0.876: 4}


@pytest.mark.parametrize("posture", ["standing", "seated"])
def test_every_piece_is_closed_and_turned_outward(posture: str) -> None:
    """What faces away from the lens, or from a lamp, is left out of what it sees: corners are counter-clockwise."""
    shape = body(posture=posture).shape
    a, b, c = (shape.shares[shape.triangles[:, i]] for i in range(3))
    out = np.einsum("ij,ij->i", np.cross(b - a, c - a), shape.facing[shape.triangles].mean(axis=1))
    for part in np.unique(shape.part):
        own = shape.part[shape.triangles[:, 0]] == part
        # A vertex between two faces of a sole, or of a fold, looks another way than one of them.
        assert np.mean(out[own] > 0.0) > (0.99 if PARTS[part] != "shoes" else 0.92), PARTS[part]


def test_it_faces_the_camera() -> None:
    aside = solid_body(Subject(height=1.72, z=2.4), Camera(x=3.0, z=5.4))
    nose = of(aside, "head")
    nose = nose[np.argmax((nose - nose.mean(axis=0)) @ np.array([1.0, 0.0, 1.0]))] - np.array([0.0, 0.0, 2.4])
    assert nose[0] == pytest.approx(nose[2], abs=0.01), "turned by 45 degrees"
    chest = of(aside, "coat")
    facing = aside.facing[np.isin(aside.shape.part, [PARTS.index("coat")])][
        np.argmax((chest - np.array([0.0, 1.25, 2.4])) @ np.array([1.0, 0.0, 1.0]))
    ]
    assert facing @ np.array([1.0, 0.0, 1.0]) / np.sqrt(2.0) > 0.9


@pytest.mark.parametrize("height", [1.3, 1.72, 1.95])
def test_somebody_seated_has_feet_on_the_floor_and_knees_before_the_chair(height: float) -> None:
    found = body(posture="seated", height=height, hair_kind="none")
    lowered = max(0.0, 0.47 * height - 0.45)
    assert of(found, "shoes")[:, 1].min() == pytest.approx(0.0, abs=0.006)
    assert of(found, "head")[:, 1].max() == pytest.approx(height - lowered, rel=0.005)
    assert of(found, "legs")[:, 2].max() - 2.4 > 0.18 * height
    chair = of(found, "chair")
    assert chair[:, 1].min() == pytest.approx(0.0, abs=1e-6)
    assert np.ptp(chair[:, 0]) == pytest.approx(0.42, abs=0.01), "a chair is as wide for a child"


def test_hands_alone_are_two_arms_that_come_from_the_sides() -> None:
    found = body(framing="hands")
    assert {PARTS[i] for i in np.unique(found.shape.part)} == {"coat", "hand", "moving sleeve", "moving hand"}
    assert of(found, "hand")[:, 0].max() < -0.1 < 0.1 < of(found, "moving hand")[:, 0].min()


def test_a_prop_raises_the_other_arm_and_no_hair_leaves_it_out() -> None:
    holding = body(props=(Prop(),), hair_kind="none")
    assert of(holding, "hand")[:, 1].min() > 1.72 * 0.75 > 1.72 * 0.55 > of(body(), "hand")[:, 1].max()
    assert not len(of(holding, "hair"))


@pytest.mark.parametrize("framing", ["full", "hands"])
@pytest.mark.parametrize("posture", ["standing", "seated"])
def test_the_outline_is_that_of_the_body(framing: str, posture: str) -> None:
    subject = Subject.model_validate({"height": 1.8, "z": 2.4, "x": 0.3, "framing": framing, "posture": posture})
    found, parts = solid_body(subject, AHEAD), figure_parts(subject, AHEAD)
    flat = np.concatenate([polygon for _, polygon in parts])
    assert flat.min(axis=0)[:2] == pytest.approx(found.places.min(axis=0)[:2], abs=0.02)
    assert flat.max(axis=0)[:2] == pytest.approx(found.places.max(axis=0)[:2], abs=0.02)
    names = {name for name, _ in parts}
    assert ("chair" in names) == (posture == "seated" and framing == "full")
    assert ("head" in names) == (framing == "full")
    holding = figure_parts(subject.model_copy(update={"props": (Prop(), Prop(kind="metal"))}), AHEAD)
    assert [name for name, _ in holding].count("prop") == 2
