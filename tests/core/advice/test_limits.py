"""Every limit from both sides: a value just inside holds, one just outside does not, and so for each step of weight.

The numbers stand here again on purpose: a limit that is changed by a slip of the hand is found.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from ausblick.core.advice.rule_set import CRAFT
from ausblick.core.advice.rules.kit_rules import rules_with
from ausblick.core.camera.level_schools import edge_levels
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.evaluation.results import Evaluation, Flash, Shadow
from ausblick.core.kit import kit_from
from ausblick.core.light.cloth import Highlight
from ausblick.core.light.mirror import Mirrored, Reflection
from ausblick.core.light.others_shade import OthersShade
from ausblick.core.light.spill import Place, ProbeReading
from ausblick.core.standards.limits import LIMITS
from tests.conftest import lamp
from tests.stores import STORE

from .limit_plans import DOCUMENT, EYES, angle_of_view_off, key_from, key_wide, of, plan_with

BASE = of()
assert BASE.damage is not None
EVEN_WORSE = replace(BASE.damage.larger, matte_loss=100.0, needed_clip=1.0)
AWAY = 6.4 - 2.4


def severity(rule_id: str, evaluation: Evaluation) -> str | None:
    """By the rule alone; whether a cause counts is told by the damage it adds to (test_causes.py)."""
    [rule] = CRAFT.only([rule_id])
    judged = rule.judge(evaluation)
    return None if judged is None else judged.severity


def screen(**fields: float) -> Evaluation:
    assert BASE.screen is not None
    return replace(BASE, screen=replace(BASE.screen, **fields))


BESIDE = of(companions=[{"x": 0.9}])


def companion_over(stops: float) -> Evaluation:
    """A second face so many stops over the subject's."""
    own = BESIDE.exposure.subject_lux
    assert own is not None
    [other] = BESIDE.others
    return replace(BESIDE, others=(replace(other, exposure=replace(other.exposure, subject_lux=own * 2.0**stops)),))


def damaged(**fields: Any) -> Evaluation:
    assert BASE.damage is not None
    return replace(BASE, damage=replace(BASE.damage, mean=replace(BASE.damage.mean, **fields), larger=EVEN_WORSE))


def lost(mean: float, larger: float) -> Evaluation:
    """A scarf that keys at so many per cent of solid, by either colour difference."""
    assert BASE.damage is not None
    by_mean, by_larger = (
        replace(key, lost={"skin": 0.0, "scarf": 100.0 - solid})
        for key, solid in ((BASE.damage.mean, mean), (BASE.damage.larger, larger))
    )
    return replace(BASE, damage=replace(BASE.damage, mean=by_mean, larger=by_larger))


def spill(name: str, kind: Any, share: float, lamps: float = 0.0) -> Evaluation:
    light = np.full(3, 100.0)
    face = ProbeReading(Place("face", "front", (0, 1.6, 2.4), (0, 0, 1)), light, 0.0, (), 0.0, True)
    place = ProbeReading(Place(name, kind, (0, 1.6, 2.4), (0, 0, 1)), light, share, (), lamps, True)
    probes = (place,) if name == "face" else (face, place)
    return replace(BASE, spill=replace(BASE.spill, probes=probes))


def circuit_at(percent: float) -> Evaluation:
    lamp = {"id": "l1", "circuit": "A", "fixture": {"watts": percent / 100.0 * 16.0 * 230.0}}
    return of(lights=[lamp])


def hot_at(away: float) -> Evaluation:
    bulb = {"emitter": {"shape": "point"}, "flux_lm": 5000.0, "watts": 250.0}
    return of(lights=[{"id": "l1", "position": [0.0, 1.0, away], "aim": [0.0, 1.0, away + 1.0], "fixture": bulb}])


def above_at(height: float) -> Evaluation:
    return of(lights=[{"id": "l1", "position": [0.0, height, 2.4], "aim": [0.0, 0.5, 2.4]}])


def focus_short(metres: float) -> Evaluation:
    assert BASE.focus is not None
    near = BASE.focus.distance_m - 0.4 + metres
    return replace(BASE, focus=replace(BASE.focus, near_m=near, far_m=math.inf))


def flash(ambient: float = 0.0) -> Evaluation:
    return replace(of(medium="stills"), flash=Flash(ambient, True, 50.0, 2.0))


def recorded(**fields: Any) -> Evaluation:
    recording = {"codec": "long-gop", "chroma": "4:2:2", "bits": 10, "mbit_s": 400.0, **fields}
    return of(camera={"recording": recording, "fps": 25.0, "sensor": {"px_w": 2000, "px_h": 1000}})


def edge_at(gap: float) -> Evaluation:
    plan = plan_with(targets={"level_school": "away-from-edge"}, subject={"hair_kind": "none", "wardrobe": []})
    evaluation = evaluate(plan, STORE)
    skin = edge_levels(plan, evaluation.subject_light)["skin"]
    assert evaluation.screen is not None
    return replace(evaluation, screen=replace(evaluation.screen, level_luma=skin - gap))


def level_off(stops: float) -> Evaluation:
    """So many stops above the school's band."""
    return screen(lux_mean=BASE.target.lux_high * 2.0**stops)


def face_at(level: float, on_screen: float, stops: float = 0.0) -> Evaluation:
    assert BASE.screen is not None
    lit = replace(BASE.screen, level_luma=on_screen)
    return replace(BASE, screen=lit, exposure=replace(BASE.exposure, subject_level=level, stops_over=stops))


def over(stops: float, plate: float = 50.0) -> Evaluation:
    return replace(of(plate={"mean_level": plate}), exposure=replace(BASE.exposure, stops_over=stops))


def wished(stops: float, wish: float) -> Evaluation:
    return replace(of(targets={"face_stops": wish}), exposure=replace(BASE.exposure, stops_over=stops))


def angle(degrees: float, school: str = "180") -> Evaluation:
    evaluation = of(targets={"shutter_school": school})
    return replace(evaluation, blur=replace(evaluation.blur, shutter_angle=degrees))


def texture(**fields: Any) -> Evaluation:
    assert BASE.texture is not None
    return replace(BASE, texture=replace(BASE.texture, **fields))


def daylight(share: float) -> Evaluation:
    """A window that gives that share of the screen's light."""
    window = {"id": "w1", "fixture": {"emitter": {"shape": "window"}}, "position": [3.7, 1.6, 3], "aim": [0, 1.3, 3]}
    evaluation = of(lights=[*DOCUMENT["lights"], window])
    assert evaluation.screen is not None
    given = {"w1": share / 100.0 * evaluation.screen.lux_mean}
    return replace(evaluation, screen_by_lamp=given, face_by_lamp={"k1": 100.0})


Case = tuple[str, Callable[[float], Evaluation], list[tuple[float, str]]]
CASES: list[Case] = [
    ("plate.height",
     lambda v: of(camera={"y": EYES}, plate={"camera_height": EYES + AWAY * math.tan(math.radians(v))}),
     [(2.9, "fine"), (3.1, "consider"), (9.9, "consider"), (10.1, "consider")]),
    ("plate.tilt", lambda v: of(camera={"tilt": v}),
     [(2.9, "fine"), (3.1, "consider"), (9.9, "consider"), (10.1, "consider")]),
    ("plate.view", angle_of_view_off, [(2.9, "fine"), (3.1, "consider"), (9.9, "consider"), (10.1, "consider")]),
    ("plate.softness", key_wide, [(-0.51, "consider"), (-0.49, "fine"), (0.49, "fine"), (0.51, "consider")]),
    ("plate.key", key_from, [(14.8, "fine"), (15.2, "consider"), (29.8, "consider"), (30.2, "consider")]),
    ("space.order", lambda v: of(subject={"z": v}), [(0.051, "fine"), (0.049, "stop")]),
    ("space.walls", lambda v: of(camera={"x": 3.7 + v}), [(-0.001, "fine"), (0.001, "stop")]),
    ("space.through-wall",
     # Half of a square metre, straight ahead along the wall.
     lambda v: of(room={"x_max": 3.7},
                  lights=[lamp(id="l1", position=[3.2 + v, 1.4, 2.2], aim=[3.2 + v, 1.4, 0.0],
                               emitter={"shape": "rect", "width": 1.0, "height": 1.0})]),
     [(-0.001, "fine"), (0.019, "fine"), (0.021, "consider"), (0.319, "consider"), (0.321, "fix")]),
    ("space.gap", lambda v: of(targets={"distance_school": "1.2-2m"}, subject={"z": 1.2 - v}),
     [(-0.01, "fine"), (0.01, "consider"), (0.69, "consider"), (0.71, "consider")]),
    ("space.gap", lambda v: of(targets={"distance_school": "1m"}, subject={"z": v}),
     [(1.01, "fine"), (0.99, "consider")]),
    ("space.gap", lambda v: of(targets={"distance_school": "2m-plus"}, subject={"z": v}),
     [(2.01, "fine"), (1.99, "consider")]),
    ("space.gap", lambda v: of(targets={"distance_school": "3m"}, subject={"z": v}),
     [(3.01, "fine"), (2.99, "consider")]),
    ("space.framed", lambda v: of(subject={"framing": "full"}, camera={"y": 1.72 * v + AWAY * BASE.view.tan_v}),
     [(0.19, "fine"), (0.21, "consider"), (0.79, "consider"), (0.83, "fix")]),
    ("space.distortion", lambda v: replace(BASE, focus=replace(BASE.focus, distance_m=v)),  # type: ignore[type-var]
     [(1.21, "fine"), (1.19, "consider")]),
    ("screen.margin", lambda v: replace(BASE, coverage=replace(BASE.coverage, covered=True, margin_m=v)),
     [(0.151, "fine"), (0.149, "consider")]),
    ("screen.covered", lambda v: replace(BASE, coverage=replace(BASE.coverage, covered=v >= 0.0, margin_m=v)),
     [(0.0, "fine"), (-0.01, "stop")]),
    ("screen.hue", lambda v: lost(v, v),
     [(98.1, "fine"), (97.9, "consider"), (94.1, "consider"), (93.9, "fix"), (85.1, "fix"), (84.9, "stop")]),
    ("screen.hue", lambda v: lost(v, 90.0), [(74.9, "fix"), (5.0, "fix")]),
    ("screen.hue", lambda v: lost(v, 70.0), [(74.9, "stop")]),
    ("key.clip", lambda v: damaged(needed_clip=v),
     [(0.19, "fine"), (0.21, "consider"), (0.29, "consider"), (0.31, "fix"), (0.49, "fix"), (0.51, "stop")]),
    ("key.clipping", lambda v: damaged(clipped=v),
     [(0.04, "fine"), (0.06, "consider"), (0.49, "consider"), (0.51, "fix"), (1.49, "fix"), (1.51, "stop")]),
    ("key.edge", lambda v: damaged(edge_causes={"noise": v}),
     [(0.069, "fine"), (0.071, "consider"), (0.109, "consider"), (0.111, "fix"), (0.219, "fix"), (0.221, "stop")]),
    ("key.hair", lambda v: damaged(hair_causes={"noise": v}),
     [(0.074, "fine"), (0.076, "consider"), (0.119, "consider"), (0.121, "fix"), (0.249, "fix"), (0.251, "stop")]),
    ("key.motion", lambda v: damaged(motion_causes={"smear": v}),
     [(2.4, "fine"), (2.6, "consider"), (5.9, "consider"), (6.1, "fix"), (19.9, "fix"), (20.1, "stop")]),
    ("subject.props", lambda v: of(subject={"wardrobe": [{"name": "satin", "gloss": v}]}),
     [(0.149, "fine"), (0.151, "consider")]),
    ("light.evenness", lambda v: screen(spread_stops=v), [(0.33, "fine"), (0.34, "consider"), (1.54, "consider")]),
    ("light.level", level_off, [(0.49, "fine"), (0.51, "consider"), (9.0, "consider")]),
    ("light.level", lambda v: screen(level_luma=0.0, level_key_channel=0.0, lux_max=v), [(0.0, "stop")]),
    ("light.behind",
     lambda v: replace(of(screen={"transmittance": 0.5, "behind_lux": 20.0 * v}),
                       screen=replace(BASE.screen, lux_mean=1000.0)),  # type: ignore[type-var]
     [(4.9, "fine"), (5.1, "consider"), (14.9, "consider"), (15.1, "consider")]),
    ("light.shadow", lambda v: replace(BASE, upright_shadow=Shadow(v, 1.0, None, None)),
     [(4.9, "fine"), (5.1, "consider"), (50.1, "consider")]),
    ("light.floor-shadow", lambda v: replace(BASE, ground_shadow=Shadow(v, 1.0, None, None, "floor run")),
     [(19.9, "fine"), (20.1, "consider"), (90.0, "consider")]),
    ("light.two-zones", lambda v: replace(BASE, zones=replace(BASE.zones, screen_from_subject_lamps=v)),
     [(59.9, "fine"), (60.1, "consider")]),
    ("subject.two-zones", lambda v: replace(BASE, zones=replace(BASE.zones, face_from_screen_lamps=v)),
     [(59.9, "fine"), (60.1, "consider")]),
    ("light.wrinkles", lambda v: texture(wrinkle_percent=v),
     [(1.9, "fine"), (2.1, "consider"), (3.9, "consider"), (4.1, "consider")]),
    ("light.gloss", lambda v: texture(highlights=(Highlight("l1", 0.0, 1.0, v / 100.0),)),
     [(9.9, "fine"), (10.1, "consider"), (29.9, "consider"), (30.1, "consider")]),
    ("light.mixed-colour", lambda v: replace(BASE, hue_spread_deg=v),
     [(2.9, "fine"), (3.1, "consider"), (23.1, "consider")]),
    ("light.daylight", daylight, [(9.9, "fine"), (10.1, "consider"), (90.0, "consider")]),
    ("screen.wind", lambda v: of(room={"kind": "exterior", "wind_ms": v}),
     [(2.9, "fine"), (3.1, "consider"), (5.9, "consider"), (6.1, "fix"), (9.9, "fix"), (10.1, "stop")]),
    ("screen.wind", lambda v: of(room={"wind_ms": v}), [(2.9, "fine"), (6.1, "fix")]),
    ("space.underfoot", lambda v: of(screen={"floor_run": 3}, subject={"speed": v}), [(1, "fine"), (2, "consider")]),
    ("light.cables", lambda v: of(lights=[{"id": f"l{i}"} for i in range(int(v))]), [(4, "fine"), (5, "consider")]),
    ("subject.minor", lambda v: of(subject={"body": ("man", "child")[int(v)]}), [(0, None), (1, "consider")]),
    ("light.rendering", lambda v: of(lights=[{"id": "l1", "fixture": {"cri": v}}]),
     [(90.0, "fine"), (89.9, "consider"), (75.1, "consider"), (74.9, "consider")]),
    ("subject.exposure", over,
     [(0.99, "fine"), (1.01, "consider"), (2.49, "consider"), (2.51, "fix"), (9.0, "fix"),
      (-0.99, "fine"), (-1.01, "consider")]),
    ("subject.exposure", lambda v: over(v, plate=29.0), [(-1.49, "fine"), (-1.51, "consider"), (1.01, "consider")]),
    ("subject.exposure", lambda v: wished(v, -1.0),
     [(-1.66, "fine"), (-1.68, "consider"), (-0.34, "fine"), (-0.32, "consider")]),
    ("subject.exposure", lambda v: over(v, plate=31.0), [(-1.01, "consider")]),
    ("subject.exposure", lambda v: over(v, plate=64.0), [(1.01, "consider")]),
    ("subject.exposure", lambda v: over(v, plate=66.0), [(1.49, "fine"), (1.51, "consider"), (-1.01, "consider")]),
    ("subject.above-screen", lambda v: face_at(v, 40.0), [(42.1, "fine"), (41.9, "consider")]),
    ("subject.above-screen", lambda v: face_at(v, 44.0), [(44.1, "fine"), (43.9, "consider")]),
    ("subject.above-screen", lambda v: face_at(v, 90.0), [(45.1, "fine"), (44.9, "consider")]),
    ("subject.edge-gap", edge_at, [(12.1, "fine"), (11.9, "consider"), (6.1, "consider"), (5.9, "consider")]),
    ("subject.spill-front", lambda v: spill("face", "front", v),
     [(2.9, "fine"), (3.1, "consider"), (28.1, "consider")]),
    ("subject.spill-front", lambda v: spill("chest", "front", 20.0 + v, lamps=20.0),
     [(2.9, "fine"), (3.1, "consider")]),
    ("subject.spill-front", lambda v: spill("chest", "front", v),
     [(2.9, "fine"), (3.1, "consider"), (90.0, "consider")]),
    ("subject.spill-edge", lambda v: spill("left cheek", "side", v),
     [(3.9, "fine"), (4.1, "consider"), (90.0, "consider")]),
    ("subject.spill-under", lambda v: spill("chin", "under", v),
     [(5.9, "fine"), (6.1, "consider"), (90.0, "consider")]),
    ("light.pane",
     lambda v: replace(of(window={}), reflections=(Reflection("l1", v > 0.0, (0.0, 1.0)),)),
     [(0, "fine"), (1, "fix")]),
    ("subject.mirrors", lambda v: replace(BASE, mirrored=(Mirrored("scoop", "sphere", v),)),
     [(9.9, "fine"), (10.1, "consider"), (24.9, "consider"), (25.1, "fix")]),
    ("subject.rim", lambda v: replace(BASE, rim_ratio=v),
     [(0.26, "fine"), (0.24, "consider"), (0.126, "consider"), (0.124, "consider"),
      (1.99, "fine"), (2.01, "consider"), (3.99, "consider"), (4.01, "consider")]),
    ("subject.balance", companion_over, [(0.49, "fine"), (0.51, "consider"), (-0.49, "fine"), (-3.0, "consider")]),
    ("subject.in-light", lambda v: replace(BESIDE, face_shade=OthersShade(v, "second person", "key")),
     [(9.9, "fine"), (10.1, "consider"), (100.0, "consider")]),
    ("light.power", circuit_at, [(79.9, "fine"), (80.1, "consider"), (99.9, "consider"), (100.1, "stop")]),
    ("light.heat", hot_at, [(0.49, "consider"), (0.21, "consider"), (0.19, "stop")]),
    ("light.overhead", above_at, [(2.21, "consider")]),
    ("camera.smear", lambda v: replace(BASE, blur=replace(BASE.blur, motion_px=v)),
     [(9.9, "fine"), (10.1, "consider"), (24.9, "consider"), (25.1, "consider")]),
    ("camera.shutter-frame", angle, [(359.9, "fine"), (360.5, "stop")]),
    ("camera.shutter-angle", angle,
     [(153.1, "fine"), (152.9, "consider"), (212.3, "fine"), (212.5, "consider")]),
    ("camera.shutter-angle", lambda v: angle(v, "90"), [(76.6, "fine"), (76.4, "consider"), (106.3, "consider")]),
    ("camera.shutter-angle", lambda v: angle(v, "faster"), [(59.9, "fine"), (60.1, "consider")]),
    ("camera.flicker", lambda v: of(camera={"shutter_s": (2.0 + v) / 100.0}), [(0.019, "fine"), (0.021, "consider")]),
    ("camera.iso", lambda v: of(camera={"iso": 400.0 * 2.0**v}),
     [(0.33, "fine"), (0.35, "consider"), (1.33, "consider"), (1.35, "consider")]),
    ("camera.depth", focus_short, [(0.14, "fine"), (0.16, "consider")]),
    ("camera.melt", lambda v: replace(BASE, blur=replace(BASE.blur, screen_defocus_px=v)),
     [(3.01, "fine"), (2.99, "consider")]),
    ("camera.sharpening", lambda v: of(camera={"sharpening": v > 0}), [(0, "fine"), (1, "fix")]),
    ("camera.flash-ghost", flash, [(12.4, "fine"), (12.6, "consider"), (37.4, "consider"), (37.6, "fix")]),
    ("camera.flash-video", lambda v: replace(BASE, flash=Flash(0.0, True, 50.0, 2.0)), [(0, "stop")]),
    ("camera.sync", lambda v: replace(flash(), flash=Flash(0.0, v > 0.0, 50.0, 2.0)), [(1, "fine"), (0, "stop")]),
    ("camera.diffraction", lambda v: of(camera={"f_number": v}), [(10.9, "fine"), (11.1, "consider")]),
    ("camera.white-balance",
     lambda v: replace(of(camera={"white_balance_k": 1e6 / (1e6 / 5600.0 + v)}), face_by_lamp={"k1": 100.0}),
     [(19.9, "fine"), (20.1, "consider"), (-20.1, "consider")]),
    ("camera.speed", lambda v: of(camera={"playback_fps": v}), [(25.0, "fine"), (24.0, "consider")]),
    ("recording.chroma", lambda v: recorded(bits=int(v)), [(10, "fine"), (8, "consider")]),
    ("recording.rate", lambda v: recorded(mbit_s=50.0 * v), [(0.101, "fine"), (0.099, "consider")]),
    ("recording.rate", lambda v: recorded(codec="intra", mbit_s=50.0 * v), [(0.51, "fine"), (0.49, "consider")]),
    ("recording.noise-reduction", lambda v: of(camera={"noise_reduction": v > 0}), [(0, "fine"), (1, "fix")]),
    ("recording.playback", lambda v: recorded(mbit_s=v, bits=8), [(999.0, "fine"), (1001.0, "consider")]),
    ("recording.playback", lambda v: recorded(mbit_s=v, bits=10), [(333.0, "fine"), (334.0, "consider")]),
    ("recording.log", lambda v: of(camera={"curve": "acescct"}), [(0, "consider")]),
    ("subject.hair", lambda v: of(subject={"hair": [v, v, v], "hair_kind": "smooth"}),
     [(0.199, "fine"), (0.201, "consider")]),
    ("camera.flashing", lambda v: of(lights=[{"id": "f", "fixture": {"flash_lms": 900.0}}]), [(0, "consider")]),
    ("space.in-picture", lambda v: of(lights=[{"id": "l1", "position": [v, 1.5, 1.2], "aim": [v, 1.3, 0.0]}]),
     [(0.2, "fix"), (1.45, "consider"), (3.0, "fine")]),
]  # fmt: skip


@pytest.mark.parametrize(("rule", "build", "steps"), CASES, ids=[f"{case[0]}-{i}" for i, case in enumerate(CASES)])
def test_a_value_just_inside_holds_and_one_just_outside_does_not(
    rule: str, build: Callable[[float], Evaluation], steps: list[tuple[float, str]]
) -> None:
    assert {value: severity(rule, build(value)) for value, _ in steps} == dict(steps)


def test_what_is_far_enough_or_low_enough_is_not_said() -> None:
    assert severity("light.heat", hot_at(0.51)) is None
    assert severity("light.overhead", above_at(2.19)) is None


KIT = kit_from(
    {
        "format": "ausblick-kit", "version": 1,
        "lenses": [{"focal_mm": 35.0}], "screens": [{"width": 3.0, "height": 2.6}], "cameras": [],
        "lamps": [{"count": 3}], "stands": [{"count": 5}], "sandbags": 7,
    }
)  # fmt: skip
FOUR = [{"id": f"l{i}"} for i in range(4)]


@pytest.mark.parametrize(
    ("rule", "inside", "outside"),
    [
        ("kit.lens", {"camera": {"focal_mm": 35.4}}, {"camera": {"focal_mm": 35.6}}),
        ("kit.screen", {"screen": {"width": 3.0}}, {"screen": {"width": 3.02}}),
        ("kit.screen", {"screen": {"height": 2.6}}, {"screen": {"height": 2.62}}),
        ("kit.lamps", {}, {"lights": FOUR}),
        ("kit.stands", {}, {"lights": FOUR}),
        ("kit.sandbags", {}, {"lights": FOUR}),
    ],
)
def test_the_kit_is_counted(rule: str, inside: dict[str, Any], outside: dict[str, Any]) -> None:
    rules = rules_with(KIT).only([rule])
    assert [rules.judge(of(**one))[rule].severity for one in (inside, outside)] == ["fine", "consider"]


def test_every_rule_has_a_limit_and_every_limit_is_tried() -> None:
    tried = {case[0] for case in CASES} | {"kit.lens", "kit.screen", "kit.lamps", "kit.stands", "kit.sandbags"}
    assert {rule.id for rule in rules_with(KIT)} == set(LIMITS) == tried


def test_limits_say_whose_they_are_and_why() -> None:
    for limit in LIMITS.values():
        assert (bool(limit.source), limit.reason[-1:], limit.fix <= limit.stop) == (True, ".", True)


def test_a_face_that_is_told_to_be_too_dark_is_not_told_to_be_below_the_screen_as_well() -> None:
    assert severity("subject.exposure", face_at(29.9, 30.0, -2.0)) == "consider"
    assert severity("subject.above-screen", face_at(29.9, 30.0, -2.0)) is None
    assert severity("subject.above-screen", face_at(29.9, 30.0)) == "consider"
