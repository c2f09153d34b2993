"""What is captured, apart from the plan it came from: light, look and faults, ready to be drawn."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..camera.exposure import grey_lux
from ..camera.focus import defocus_px
from ..camera.level_schools import key_channel
from ..camera.screen_grid import Sheet, wall_of
from ..camera.view import View, focus_distance
from ..evaluation.results import Evaluation
from ..evaluation.screen_light import SurfaceLight, screen_light_of, seen_light
from ..figure.solid_body import solid_body
from ..geometry.vectors import Floats
from ..light.basis import BasisStore
from ..light.body_light import BodyLight, body_light
from ..light.cloth import wrinkle_contrast
from ..light.mix import dimmed, scalar_lux
from ..light.pane_image import PaneImage, pane_images
from ..light.past_what_stands import past_what_stands
from ..light.returned import SceneLight
from ..plan import Plan, Recording, people_of
from .cast_shadow import finer_grid, left_by_bodies, resampled
from .lit_lamps import LitLamp, lit_lamps
from .lit_room import LitSide, lit_room


@dataclass(frozen=True, eq=False)
class LitSheet:
    """A surface of the screen: its look (H, W, 3) in linear light over `xs`, `ys` in m along it; folds (H, W):
    contrast of the cloth's wrinkles as a share of the light."""

    sheet: Sheet
    xs: Floats
    ys: Floats
    look: Floats
    folds: Floats


@dataclass(frozen=True, eq=False)
class Capture:
    """Linear light, white = 1, ready to be drawn.

    picked (3,): the needed screen's median as recorded; screen (H, W, 3) over `xs`, `ys` in m and its folds: the wall
    (see `LitSheet`); `beside`: the other surfaces; `room` and `lamps`: what the frame shows of them; `light` by place
    of the figure (3,), `body` on all of it; `others`: the same capture of each companion, drawn as the subject is;
    `looked_at`: whose key is measured pixel for pixel, the subject and the one whom the key costs most;
    `unsharp_px`: the disc that the lens makes of a point where that person stands, sensor px;
    `in_pane`: lamps mirrored in a window, their `lux` in linear light too; `smear_px`, `defocus_px` in sensor px;
    `noise`: 0 none, 1 as the camera's; `lift`: what the grade multiplies linear light by before keying.
    """

    plan: Plan
    view: View
    key: int
    picked: Floats
    xs: Floats
    ys: Floats
    screen: Floats
    folds: Floats
    light: dict[str, Floats]
    body: BodyLight | None
    others: tuple[Capture, ...]
    looked_at: tuple[int, ...]
    beside: tuple[LitSheet, ...]
    room: tuple[LitSide, ...]
    lamps: tuple[LitLamp, ...]
    in_pane: tuple[PaneImage, ...]
    smear_px: float
    defocus_px: float
    unsharp_px: float
    noise: float
    recording: Recording | None
    sharpening: bool
    seed: int = 7
    lift: float = 1.0

    @property
    def linear_of_lux(self) -> float:
        """Linear light of a white surface under one lux."""
        return 1.0 / grey_lux(self.plan.camera)

    def of(self, person: int) -> Capture:
        """Of the subject (0), or of a companion by its place among them, from 1."""
        return self if person == 0 else self.others[person - 1]

    @property
    def camera_at(self) -> Floats:
        return self.view.lens

    @property
    def sheets(self) -> tuple[LitSheet, ...]:
        wall = LitSheet(wall_of(self.plan.screen), self.xs, self.ys, self.screen, self.folds)
        return (wall, *self.beside)


def capture_of(evaluation: Evaluation, store: BasisStore, seed: int = 7) -> Capture:
    """The capture that a plan would make."""
    plan = evaluation.plan
    returned = past_what_stands(plan, evaluation.scene_light, store)
    light = screen_light_of(plan, evaluation.coverage, evaluation.view, returned, store, everything=True)
    grey = grey_lux(plan.camera)
    reflectance = np.array(plan.screen.reflectance)
    wall, *beside = (_lit(plan, one, evaluation.view, store) for one in light.surfaces)
    found = Capture(
        plan=plan,
        view=evaluation.view,
        key=key_channel(plan.screen.hue, reflectance),
        picked=_picked(evaluation),
        xs=wall.xs,
        ys=wall.ys,
        screen=wall.look,
        folds=wall.folds,
        light={r.place.name: r.light / grey for r in evaluation.spill.probes},
        body=_body(evaluation, evaluation.view, returned, store, grey),
        others=(),
        looked_at=tuple(sorted({0, evaluation.worst_person})),
        beside=tuple(beside),
        room=lit_room(plan, evaluation.view, returned, store),
        lamps=lit_lamps(plan, evaluation.view, returned, store),
        in_pane=tuple(
            replace(image, lux=image.lux / grey)
            for image in pane_images(plan, evaluation.view, evaluation.reflections)
        ),
        smear_px=evaluation.blur.motion_px or 0.0,
        defocus_px=evaluation.blur.screen_defocus_px or 0.0,
        unsharp_px=0.0,
        noise=1.0,
        recording=plan.camera.recording,
        sharpening=plan.camera.sharpening,
        seed=seed,
    )
    return replace(found, others=tuple(_as_seen(found, one, returned, store, grey) for one in evaluation.others))


def _as_seen(capture: Capture, other: Evaluation, returned: SceneLight, store: BasisStore, grey: float) -> Capture:
    """A companion in the picture that a capture is of, out of focus as far as from the mark."""
    camera = capture.plan.camera
    sharp, here = (focus_distance(camera, one) for one in (capture.plan.subject, other.plan.subject))
    return replace(
        capture,
        plan=other.plan,
        light={r.place.name: r.light / grey for r in other.spill.probes},
        body=_body(other, capture.view, returned, store, grey),
        smear_px=other.blur.motion_px or 0.0,
        unsharp_px=defocus_px(camera, sharp, here) if min(sharp, here) > 0.0 else 0.0,
    )


def _body(
    evaluation: Evaluation, view: View, returned: SceneLight, store: BasisStore, grey: float
) -> BodyLight | None:
    """The figure in linear light, looked at as a picture's `view` does; None without one, and in the dark."""
    plan = evaluation.plan
    if plan.subject is None or not evaluation.spill.probes:
        return None
    body = solid_body(plan.subject, plan.camera)
    light = body_light(plan, body, view, returned, store)
    scale = np.float32(1.0 / grey)
    return replace(light, lux=scale * light.lux, gloss=scale * light.gloss, around=scale * light.around)


def _picked(evaluation: Evaluation) -> Floats:
    """What somebody who keys this would pick: the median of the needed screen, else of the wall."""
    needed = [one.linear[one.judged] for one in evaluation.screen_maps if one.judged.any()]
    found = np.concatenate(needed) if needed else evaluation.screen_map.linear.reshape(-1, 3)
    return np.asarray(np.median(np.minimum(found, 1.0), axis=0))


def _lit(plan: Plan, light: SurfaceLight, view: View, store: BasisStore) -> LitSheet:
    """As it is lit; where somebody's shadow may fall in cells fine enough for it."""
    folds = wrinkle_contrast(plan, dimmed(plan, light.arriving), scalar_lux(light.shown), light.grid, 0.0, store)
    ink = np.array(plan.screen.reflectance) / grey_lux(plan.camera)
    if not light.shadow.any() or any(one.framing == "hands" for one in people_of(plan)):
        # Hands reach in without the body that the numbers know.
        return LitSheet(
            light.grid.sheet, light.grid.x, light.grid.y, ink * seen_light(plan, light, view, store), folds
        )
    finer = finer_grid(light.grid)
    open_ = seen_light(plan, replace(light, shown=light.open), view, store)
    seen = resampled(open_, light.grid, finer) * left_by_bodies(plan, light, finer, store)
    return LitSheet(light.grid.sheet, finer.x, finer.y, ink * seen, resampled(folds, light.grid, finer))
