"""The drawn picture of three set-ups beside a general path tracer's of the same geometry, figure and all.

By hand, not in CI: `pip install mitsuba` first, then `python benchmarks/picture_traced.py FOLDER`.
The figure bears plain inks without gloss, folds and sheen are left out on both sides. Prints a table for
docs/model.md: luma, recorded, in points.
"""

from __future__ import annotations

import math
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import cv2
import mitsuba as mi
import numpy as np

from ausblick.core.camera.exposure import grey_lux
from ausblick.core.colour.curves import encode
from ausblick.core.colour.rec709 import LUMA
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.figure import body_ink
from ausblick.core.figure.solid_body import PARTS
from ausblick.core.geometry.vectors import Bools, Floats
from ausblick.core.light import body_itself
from ausblick.core.light.basis import BasisStore
from ausblick.core.matte import figure_picture, render
from ausblick.core.matte.capture import Capture, capture_of
from ausblick.core.matte.pixel_window import PixelWindow
from ausblick.core.matte.render import draw
from ausblick.core.matte.traced import traced
from ausblick.core.plan import Change, Plan, apply_changes
from ausblick.demo.fern_house import scree, seed_vault
from ausblick.demo.fern_house_2 import fern_dancer

sys.path.insert(0, str(Path(__file__).parent))
import path_traced

mi.set_variant("scalar_rgb")
WIDTH, SAMPLES, FEW = 320, 512, 16
LARGE = 960
"""Width of the picture that times are told of: a test key's."""
SOFT = 1.2
"""Both pictures are softened by so many px: what is left of the tracer's noise is no more than a camera's."""
SKIN, CLOTH = ("head", "hand", "moving hand"), ("coat", "legs", "moving sleeve")


def plain_ink(subject: Any, part: Any, own: Any) -> body_ink.Ink:
    worn = subject.wardrobe[0].reflectance if subject.wardrobe else body_ink.GREY
    named = {**dict.fromkeys(CLOTH, worn), "hair": subject.hair, "shoes": body_ink.SHOES, "chair": body_ink.WOOD}
    inks = np.array([named.get(name, subject.skin) for name in PARTS], dtype=np.float32)
    return body_ink.Ink(inks[part], np.zeros(len(part), dtype=np.float32))


def meshes(capture: Capture, folder: Path) -> dict[str, Any]:
    """The figure's own mesh, part by part."""
    assert capture.body is not None
    assert capture.plan.subject is not None
    body = capture.body.body
    shape = body.shape
    found = {}
    of = shape.part[shape.triangles[:, 0]]
    for i, name in enumerate(PARTS):
        own = shape.triangles[of == i]
        if not len(own):
            continue
        used, which = np.unique(own, return_inverse=True)
        mesh = mi.Mesh(name, len(used), len(own), has_vertex_normals=True)
        values = mi.traverse(mesh)
        values["vertex_positions"] = body.places[used].ravel()
        values["vertex_normals"] = body.facing[used].ravel()
        values["faces"] = which.reshape(-1).astype(np.uint32)
        values.update()
        path = folder / f"{name}.ply"
        mesh.write_ply(str(path))
        ink = plain_ink(capture.plan.subject, np.array([i]), None).reflectance[0]
        found[f"body {name}"] = {"type": "ply", "filename": str(path), "bsdf": path_traced.matt(ink)}
    return found


def regions(capture: Capture, window: PixelWindow) -> Iterator[tuple[str, Bools]]:
    """Names and masks (H, W) of what is compared; a pixel counts where it shows nothing else."""
    drawn, plan = draw(capture, window), capture.plan
    assert capture.body is not None
    shares = np.zeros((len(PARTS), window.height, window.width))
    for moving in (False, True):
        found = traced(capture.body.body, moving, capture.view, plan.camera.sensor, window)
        if found is None:
            continue
        for i in range(len(PARTS)):
            shares[i][found.box] += (
                found.filled * found.averaged((found.part == i)[:, None].astype(np.float32))[..., 0]
            )
    whole = shares > 0.999
    for name, parts in (("skin", SKIN), ("clothes", CLOTH), ("hair", ("hair",))):
        yield name, np.any([whole[PARTS.index(part)] for part in parts], axis=0)
    bare = drawn.alpha < 1e-6
    yield "screen", bare & (drawn.screen > 0.999)
    v, u = np.mgrid[: window.height, : window.width]
    frame = np.stack([(u + 0.5) / window.width, (v + 0.5) / window.height], axis=-1)
    rays = capture.view.rays(frame)
    down = -capture.view.lens[1] / np.where(rays[..., 1] < -1e-6, rays[..., 1], -1e-6)
    x, z = (capture.view.lens[i] + down * rays[..., i] for i in (0, 2))
    room = plan.room
    on_floor = (rays[..., 1] < 0) & (x > room.x_min) & (x < room.x_max) & (z > room.z_min) & (z < room.z_max)
    assert plan.subject is not None
    near = np.hypot(x - plan.subject.x, z - plan.subject.z) < 0.5
    room_seen = bare & (drawn.screen < 1e-6)
    yield "floor round the feet", bare & on_floor & near
    yield "floor", room_seen & on_floor & ~near
    yield "walls, ceiling", room_seen & ~on_floor


def luma(linear: Floats, plan: Plan) -> Floats:
    linear = cv2.GaussianBlur(np.asarray(linear, dtype=np.float64), (0, 0), SOFT)
    return np.asarray(100.0 * encode(np.clip(linear, 0.0, None), plan.camera.curve, plan.camera.curve_table) @ LUMA)


def compared(plan: Plan, folder: Path) -> None:
    # The tracer's hand stands still.
    still = Change("subject.speed", 0.0)
    plain = apply_changes(plan, [Change("screen.gloss", 0.0), Change("screen.wrinkle_slope", 0.0), still])
    store = BasisStore()
    evaluation = evaluate(plain, store)
    started = time.process_time()
    capture = capture_of(evaluation, store)
    height = round(WIDTH * plan.camera.sensor.px_h / plan.camera.sensor.px_w)
    window = PixelWindow(0.0, 0.0, WIDTH, height, plan.camera.sensor.px_w / WIDTH)
    ours = draw(capture, window).frame
    spent = time.process_time() - started
    path = folder / f"{plan.title.split()[0].strip(',').lower()}.npy"
    if not path.exists():
        np.save(path, traced_picture(plain, capture, folder, SAMPLES)[0])
    theirs = np.load(path)
    print(f"\n{plan.title} (drawn in {spent:.2f} s)")
    at_equal_error(plain, capture, ours, theirs, folder)
    a, b = luma(ours, plain), luma(theirs, plain)
    for name, mask in regions(capture, window):
        # What clips in either says nothing.
        some = mask & (a < 99.0) & (b < 99.0)
        # Nor does what is softened into something else.
        some = cv2.erode(some.astype(np.uint8), np.ones((7, 7), np.uint8)) > 0
        if some.sum() > 20:
            away = (a - b)[some]
            rest = np.percentile(np.abs(away), 95.0)
            print(f"| {name} | {b[some].mean():.1f} | {away.mean():+.1f} | {rest:.1f} | {int(some.sum())} |")


def at_equal_error(plan: Plan, capture: Capture, ours: Floats, theirs: Floats, folder: Path) -> None:
    """How long the tracer would take until its noise, pixel by pixel, is no more than what ours is off."""

    def recorded(linear: Floats) -> Floats:
        clipped = np.clip(np.asarray(linear, dtype=np.float64), 0.0, None)
        return np.asarray(100.0 * encode(clipped, plan.camera.curve, plan.camera.curve_table) @ LUMA)

    noisy, seconds = traced_picture(plan, capture, folder, FEW)
    a, b, c = recorded(ours), recorded(theirs), recorded(noisy)
    some = (a < 99.0) & (b < 99.0)
    own, noise = (float(np.sqrt(np.median((one - b)[some] ** 2))) for one in (a, c))
    samples = FEW * (noise / own) ** 2
    pixels = (LARGE / WIDTH) ** 2
    height = round(LARGE * plan.camera.sensor.px_h / plan.camera.sensor.px_w)
    started = time.process_time()
    fresh, window = BasisStore(), PixelWindow(0.0, 0.0, LARGE, height, plan.camera.sensor.px_w / LARGE)
    draw(capture_of(evaluate(plan, fresh), fresh), window)
    drawn = time.process_time() - started
    would = seconds / FEW * samples * pixels
    print(f"off by {own:.2f} points in the median, the tracer {noise:.2f} by {FEW} samples: as near by {samples:.0f}")
    print(f"{LARGE} px wide: {would:.0f} s for {drawn:.2f} s with its evaluation: {would / drawn:.0f} times")


def traced_picture(plan: Plan, capture: Capture, folder: Path, samples: int) -> tuple[Floats, float]:
    """Linear light (H, W, 3), and the processor time it took."""
    view = capture.view
    target, up = view.lens + view.axes[2], view.axes[1]
    look = mi.ScalarTransform4f().look_at(origin=view.lens.tolist(), target=target.tolist(), up=up.tolist())
    height = round(WIDTH * plan.camera.sensor.px_h / plan.camera.sensor.px_w)
    scene: dict[str, Any] = {
        "type": "scene",
        "integrator": {"type": "path", "max_depth": -1, "rr_depth": 8},
        "sensor": {
            "type": "perspective", "fov": math.degrees(2.0 * math.atan(view.tan_h)), "fov_axis": "x",
            "near_clip": 0.05, "to_world": look,
            "film": {"type": "hdrfilm", "width": WIDTH, "height": height, "rfilter": {"type": "box"}},
            "sampler": {"type": "independent", "sample_count": samples},
        },
        **path_traced.room(plan), **meshes(capture, folder),
    }  # fmt: skip
    for light in plan.lights:
        scene.update(path_traced.lamp(plan, light))
    started = time.process_time()
    image = np.array(mi.render(mi.load_dict(scene)))[..., :3]
    spent = time.process_time() - started
    print(f"path tracer, {samples} samples: {spent:.0f} s")
    return np.asarray(math.pi * image / grey_lux(plan.camera), dtype=np.float64), spent


if __name__ == "__main__":
    figure_picture.ink_of = body_itself.ink_of = plain_ink
    figure_picture.GRAIN = 0.0
    # The tracer has no lens that scatters.
    render.GLARE = 0.0
    where = Path(sys.argv[1])
    for plan in (scree(), seed_vault(), fern_dancer()):
        compared(plan, where)
