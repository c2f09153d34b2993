"""All that light does in a set, whatever the camera makes of it: another exposure, codec or garment leaves it as it
is, and it is remembered."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import partial

import numpy as np

from ..camera.coverage import Coverage
from ..camera.level_schools import key_channel
from ..camera.view import View
from ..geometry.vectors import Floats
from ..light.basis import BasisStore
from ..light.keys import lit_key
from ..light.mirror import Reflection, pane_reflections
from ..light.mix import dimmed, scalar_lux, tints
from ..light.returned import SceneLight, returned_by_lamp, scene_light, screen_nodes
from ..light.round_figure import light_round
from ..light.spill import Spill, spill_of
from ..plan import Plan
from .on_face import OnFace, face_light
from .results import Shadow
from .screen_light import ScreenLight, screen_light_of, shadow_of, shadow_on


@dataclass(frozen=True, eq=False)
class LitSet:
    """Light on every patch of the set and on the screen. `face` and `beyond` are worked out when they are first asked
    for."""

    scene: SceneLight
    screen: ScreenLight
    face: Callable[[], OnFace]
    beyond: Callable[[], Beyond]


@dataclass(frozen=True, eq=False)
class Beyond:
    """What is asked of the light once the screen is worth it: lux on the judged screen by lamp, the figure's shadow
    on all of the screen, on what is upright and the ground, and lamps in a window's pane."""

    on_screen: dict[str, float]
    shadow: Shadow | None
    upright_shadow: Shadow | None
    ground_shadow: Shadow | None
    reflections: tuple[Reflection, ...]


def lit_set(plan: Plan, coverage: Coverage, view: View, store: BasisStore) -> LitSet:
    """Of a plan. It looks at the plan's subject; companions are in the picture."""
    key = lit_key(plan)

    def light() -> tuple[SceneLight, ScreenLight]:
        scene = scene_light(plan, store)
        return scene, screen_light_of(plan, coverage, view, scene, store)

    scene, screen = store.lit(("set", key), light)
    return LitSet(
        scene,
        screen,
        face=lambda: on_face(plan, scene, store),
        beyond=lambda: store.lit(("beyond", key), partial(_beyond, plan, scene, screen, view, store)),
    )


def on_face(plan: Plan, scene: SceneLight, store: BasisStore) -> OnFace:
    """Light on the face of the plan's subject, remembered."""
    return store.lit(("face", lit_key(plan)), lambda: face_light(plan, scene, store))


def on_subject(plan: Plan, scene: SceneLight, store: BasisStore) -> Spill:
    """Spill on the plan's subject, remembered."""
    channel = key_channel(plan.screen.hue, np.array(plan.screen.reflectance))
    return store.lit(("spill", lit_key(plan)), lambda: spill_of(plan, channel, scene, store))


def round_subject(plan: Plan, scene: SceneLight, store: BasisStore) -> Mapping[str, Floats]:
    """Light (5, 3) in lux round the parts of the plan's subject, remembered; empty without one."""
    return store.lit(("round", lit_key(plan)), lambda: light_round(plan, scene, store))


def _beyond(plan: Plan, scene: SceneLight, screen: ScreenLight, view: View, store: BasisStore) -> Beyond:
    return Beyond(
        on_screen=_screen_by_lamp(plan, scene, screen, store),
        shadow=shadow_of(plan, screen),
        upright_shadow=shadow_on(plan, screen, "wall", "left wing", "right wing"),
        ground_shadow=shadow_on(plan, screen, "curve", "floor run"),
        reflections=tuple(pane_reflections(plan, view, store)),
    )


def _screen_by_lamp(plan: Plan, scene: SceneLight, light: ScreenLight, store: BasisStore) -> dict[str, float]:
    """All light in lux that each lamp, dimmed as it is, causes on the judged screen, by its id."""
    if not light.any_judged:
        return {}
    total = sum(float(one.share[one.judged].sum()) for one in light.surfaces)
    lux = np.zeros(len(plan.lights))
    for one in light.surfaces:
        shares = np.where(one.judged, one.share, 0.0) / total
        nodes = screen_nodes(one.grid, scene.scene, store)
        returned = scalar_lux(nodes.mean(returned_by_lamp(plan, scene.scene, one.grid, nodes, store), shares))
        own = np.einsum("lhw,hw->l", one.arriving, shares)
        lux += dimmed(plan, own * tints(plan) + returned)
    return {lamp.id: float(each) for lamp, each in zip(plan.lights, lux, strict=True)}
