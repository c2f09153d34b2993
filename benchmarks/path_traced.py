"""Two set-ups rendered by a general path tracer, as built and with one lamp wrong, beside what the product says.

By hand, not in CI: `pip install mitsuba` first, then `python benchmarks/path_traced.py [folder that keeps frames]
[stops of light that the lens loses at the corner]`. Another figure than the product's own, no calibration; sheen and
folds are left out. Prints a table for docs/model.md.
"""

from __future__ import annotations

import math
import sys
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import cv2
import mitsuba as mi
import numpy as np

from ausblick.core.camera.exposure import grey_lux
from ausblick.core.camera.view import view_of
from ausblick.core.colour.curves import encode
from ausblick.core.diagnosis.beside_plan import beside_plan
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.frames.frame import Frame
from ausblick.core.frames.reading import read_frame
from ausblick.core.geometry.vectors import Floats
from ausblick.core.light.basis import BasisStore, weight
from ausblick.core.light.emission import emission_of
from ausblick.core.light.mix import lamp_rgb
from ausblick.core.plan import Change, Light, Plan, apply_changes
from ausblick.demo.fern_house import scree, seed_vault

mi.set_variant("scalar_rgb")
WIDTH, SAMPLES, DEPTH = 480, 256, -1
BLACK = 0.04


Case = tuple[str, str | None, list[Change]]


def matt(rgb: Any) -> dict[str, Any]:
    return {"type": "diffuse", "reflectance": {"type": "rgb", "value": [float(v) for v in rgb]}}


def sheet(corners: Any, rgb: Any) -> dict[str, Any]:
    """A parallelogram a, b, c, d with its front where a, b, c turn counter-clockwise; both sides are matt."""
    a, b, _, d = (np.array(corner, dtype=float) for corner in corners)
    u, v = (b - a) / 2.0, (d - a) / 2.0
    n = np.cross(u, v)
    columns = np.column_stack([u, v, n / np.linalg.norm(n), a + u + v])
    matrix = np.vstack([columns, [0, 0, 0, 1]])
    return {
        "type": "rectangle",
        "to_world": mi.ScalarTransform4f(matrix),
        "bsdf": {"type": "twosided", "bsdf": matt(rgb)},
    }


def room(plan: Plan) -> dict[str, Any]:
    r, s, e = plan.room, plan.screen, 0.001
    x0, x1, z0, z1, h = r.x_min, r.x_max, r.z_min, r.z_max, r.height
    left, right = s.x_centre - s.width / 2.0, s.x_centre + s.width / 2.0
    walls, floor, ceiling = r.reflectance.walls, r.reflectance.floor, r.reflectance.ceiling
    found = {
        "floor": sheet([(x0, 0, z1), (x1, 0, z1), (x1, 0, z0), (x0, 0, z0)], floor),
        "ceiling": sheet([(x0, h, z0), (x1, h, z0), (x1, h, z1), (x0, h, z1)], ceiling),
        "back": sheet([(x0, 0, z0), (x1, 0, z0), (x1, h, z0), (x0, h, z0)], walls),
        "front": sheet([(x1, 0, z1), (x0, 0, z1), (x0, h, z1), (x1, h, z1)], walls),
        "west": sheet([(x0, 0, z1), (x0, 0, z0), (x0, h, z0), (x0, h, z1)], walls),
        "east": sheet([(x1, 0, z0), (x1, 0, z1), (x1, h, z1), (x1, h, z0)], walls),
        "screen": sheet([(left, s.bottom, 0), (right, s.bottom, 0), (right, s.bottom + s.height, 0),
                         (left, s.bottom + s.height, 0)], s.reflectance),
    }  # fmt: skip
    if s.floor_run > 0.0:
        run = [(left, e, s.floor_run), (right, e, s.floor_run), (right, e, 0), (left, e, 0)]
        found["run"] = sheet(run, s.reflectance)
    return found


def lamp(plan: Plan, light: Light) -> dict[str, Any]:
    """The burning face, and its body and pole."""
    emission, name = emission_of(light, plan), light.id
    face, (x, y, z) = emission.face, light.position
    back = [tuple(corner - 0.02 * face.axis) for corner in face.outline]
    found = {f"{name} body": sheet(back, (BLACK, BLACK, BLACK))}
    if y < plan.room.height - 0.35:
        # It stands behind its own face and shades that of others only.
        x, z = float(x - 0.05 * face.axis[0]), float(z - 0.05 * face.axis[2])
        found[f"{name} pole"] = {"type": "cylinder", "p0": [x, 0, z], "p1": [x, y, z], "radius": 0.0175,
                                 "bsdf": {"type": "twosided", "bsdf": matt((BLACK,) * 3)}}  # fmt: skip
    shine = weight(light, plan.camera) * emission.peak / face.area
    if shine > 0.0:
        # Looked at from the front the outline turns counter-clockwise: that side burns.
        burning = sheet([tuple(corner) for corner in face.outline], (0, 0, 0))
        radiance = [float(v) for v in shine * lamp_rgb(plan, light)]
        burning["emitter"] = {"type": "area", "radiance": {"type": "rgb", "value": radiance}}
        found[f"{name} face"] = burning
    return found


def figure(plan: Plan) -> dict[str, Any]:
    """Of balls and rods: nothing of the product's own figure."""
    s = plan.subject
    if s is None:
        return {}
    h, cloth = s.height, s.wardrobe[0].reflectance if s.wardrobe else (0.2, 0.2, 0.22)

    def ball(x: float, y: float, radius: float, rgb: Any) -> dict[str, Any]:
        return {"type": "sphere", "center": [s.x + x * h, y * h, s.z], "radius": radius * h, "bsdf": matt(rgb)}

    def rod(a: tuple[float, float], b: tuple[float, float], radius: float, rgb: Any) -> dict[str, Any]:
        ends = [[s.x + x * h, y * h, s.z] for x, y in (a, b)]
        return {"type": "cylinder", "p0": ends[0], "p1": ends[1], "radius": radius * h,
                "bsdf": {"type": "twosided", "bsdf": matt(rgb)}}  # fmt: skip

    return {
        "head": ball(0.0, 0.935, 0.06, s.skin), "neck": rod((0, 0.83), (0, 0.9), 0.03, s.skin),
        "chest": ball(0.0, 0.74, 0.11, cloth), "waist": rod((0, 0.52), (0, 0.74), 0.09, cloth),
        "hips": ball(0.0, 0.52, 0.095, cloth),
        "left leg": rod((-0.055, 0.03), (-0.05, 0.5), 0.04, cloth),
        "right leg": rod((0.055, 0.03), (0.05, 0.5), 0.04, cloth),
        "left arm": rod((-0.13, 0.78), (-0.17, 0.45), 0.027, cloth),
        "right arm": rod((0.13, 0.78), (0.17, 0.45), 0.027, cloth),
        "left foot": ball(-0.055, 0.03, 0.035, (0.05,) * 3), "right foot": ball(0.055, 0.03, 0.035, (0.05,) * 3),
    }  # fmt: skip


def rendered(plan: Plan, seed: int = 0) -> Floats:
    """Linear light (H, W, 3), white = 1, of what the plan's camera sees."""
    camera, view = plan.camera, view_of(plan.camera, plan.subject)
    height = round(WIDTH * camera.sensor.px_h / camera.sensor.px_w)
    target, up = view.lens + view.axes[2], view.axes[1]
    look = mi.ScalarTransform4f().look_at(origin=view.lens.tolist(), target=target.tolist(), up=up.tolist())
    scene: dict[str, Any] = {
        "type": "scene",
        "integrator": {"type": "path", "max_depth": DEPTH, "rr_depth": 8},
        "sensor": {
            "type": "perspective", "fov": math.degrees(2.0 * math.atan(view.tan_h)), "fov_axis": "x",
            "near_clip": 0.05, "to_world": look,
            "film": {"type": "hdrfilm", "width": WIDTH, "height": height, "rfilter": {"type": "box"}},
            "sampler": {"type": "independent", "sample_count": SAMPLES, "seed": seed},
        },
        **room(plan), **figure(plan),
    }  # fmt: skip
    for light in plan.lights:
        scene.update(lamp(plan, light))
    image = np.array(mi.render(mi.load_dict(scene), seed=seed))[..., :3]
    # A pixel and a half of softness, as a lens has: what is left of the tracer's noise is a camera's.
    image = cv2.GaussianBlur(image, (0, 0), 1.2)
    return np.asarray(math.pi * image / grey_lux(camera), dtype=np.float64)


def frame_of(plan: Plan, light: Floats, stops: float) -> Frame:
    """As the camera records it, through a lens that loses so many stops of light at the corner."""
    y, x = np.mgrid[-1.0 : 1.0 : light.shape[0] * 1j, -1.0 : 1.0 : light.shape[1] * 1j]
    r2 = (x * x * 16.0**2 + y * y * 9.0**2) / (16.0**2 + 9.0**2)
    light = light * 2.0 ** (-stops * (0.7 * r2 + 0.3 * r2 * r2))[..., None]
    signal = encode(np.clip(light, 0.0, None), plan.camera.curve, plan.camera.curve_table)
    return Frame((65535.0 * np.clip(signal, 0.0, 1.0)).astype(np.uint16), 65535.0)


def kept(plan: Plan, seed: int, folder: Path | None) -> Floats:
    """The light of a frame, from a folder of earlier ones where it is there: rendering takes most of the time."""
    if folder is None:
        return rendered(plan, seed)
    folder.mkdir(parents=True, exist_ok=True)
    path = folder / f"{plan.title.split()[0].strip(',').lower()}-{seed}.npy"
    if not path.exists():
        np.save(path, rendered(plan, seed).astype(np.float32))
    return np.asarray(np.load(path), dtype=np.float64)


def cases(plan: Plan) -> list[Case]:
    """(story, lamp, changes): as built, and each lamp at 60 %, off, moved 0.7 m, warm."""
    found: list[Case] = [("as-planned", None, [])]
    for i, light in enumerate(plan.lights):
        x, y, z = light.position
        found += [
            ("dimmer", light.name, [Change(f"lights[{i}].dimmer", round(0.6 * light.dimmer, 4))]),
            ("off", light.name, [Change(f"lights[{i}].on", False)]),
            ("moved", light.name, [Change(f"lights[{i}].position", [x, y, round(z + 0.7, 3)])]),
            ("colour", light.name, [Change(f"lights[{i}].fixture.cct", 3200.0)]),
        ]
    return found


@dataclass
class Score:
    total: int = 0
    right: int = 0


def asked(plan: Plan, seed: int, case: Case, folder: Path | None, stops: float, score: Score) -> None:
    """One frame: a row of the table. A lamp that gives under 4 % of the screen's light must not be judged by it."""
    story, name, changes = case
    store = BasisStore()
    real = apply_changes(plan, changes)
    frame = frame_of(real, kept(real, seed, folder), stops)
    reading = read_frame(frame, plan.targets.level_trace, (), plan.screen.hue)
    beside = beside_plan(plan, frame, reading, store)
    cause = beside.cause
    assert cause is not None
    if not changes:
        luma, even = beside.rows[0], beside.rows[2]
        print(f"{plan.title}: luma planned {luma.planned:.2f}, rendered {luma.measured:.2f}", file=sys.stderr)
        print(f"unevenness planned {even.planned:.2f}, rendered {even.measured:.2f}", file=sys.stderr)
    lux = evaluate(plan, store).screen_by_lamp
    faint = any(light.name == name and lux[light.id] < 0.04 * sum(lux.values()) for light in plan.lights)
    hit = cause.story == story and cause.lamp == name
    if faint and not hit:
        hit = cause.story == "as-planned" and name in cause.not_judged
    score.total, score.right = score.total + 1, score.right + hit
    truth = story if name is None else f"{name}: {story}" + (" (not to be told)" if faint else "")
    said = cause.story if cause.lamp is None else f"{cause.lamp}: {cause.story}"
    numbers = [f"{cause.factor:.2f}"] if cause.factor is not None else []
    numbers += [f"{cause.moved[0]:+.2f}, {cause.moved[1]:+.2f} m"] if cause.moved else []
    numbers += [f"{cause.mired:.0f} mired"] if cause.mired else []
    row = (plan.title, truth, " ".join([said, *numbers]), f"{cause.certainty:.2f}", "yes" if hit else "no")
    print("| " + " | ".join(row) + " |", flush=True)


def main(folder: Path | None, stops: float) -> None:
    score = Score()
    print("| set-up | truth | said | certainty | right |\n|---|---|---|---|---|")
    for plan in (seed_vault(), scree()):
        for seed, case in enumerate(cases(plan)):
            asked(plan, seed, case, folder, stops, score)
    print(f"\nRight: {score.right} of {score.total}")


if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else None, float(sys.argv[2]) if len(sys.argv) > 2 else 0.0)
