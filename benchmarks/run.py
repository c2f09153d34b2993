"""Speed, as medians and as ratios in one run (make bench).

what                          must
lamp moved, 8 lamps, 61 x 41  60 ms at the server, floor and wings judged too, and at most 3 x its plain NumPy sums
dimmer changed                20 ms
cold evaluation               600 ms (a room of some 600 patches)
largest plan, cold            5 s (as many lamps and flags as a plan may have)
a 3840 x 2160 frame           at most 2 x its decoding
a 1080p clip                  at most 2 x its decoding
the planned set, drawn        300 ms once a lamp has been put down (640 x 360)
test key                      first picture 0.7 s, quick 2 s, figures 5 s, a lever 2 s, 1.5 GB
"""

from __future__ import annotations

import statistics
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import cv2
import numpy as np
from scipy.linalg import lu_factor, lu_solve
from scipy.special import ndtr

from ausblick.core.advice.findings import find
from ausblick.core.frames.reading import read_frame
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Plan, dump_plan, plan_from
from ausblick.core.plan.document import MOST_FLAGS, MOST_LAMPS
from ausblick.formats.images import read_image
from ausblick.web.app import create_app

sys.path.insert(0, str(Path(__file__).parent))
from pictures import clip_rows, planned_rows, test_key_rows


def median_ms(work: Callable[[int], Any], times: int) -> float:
    taken = []
    for i in range(times):
        begun = time.perf_counter()
        work(i)
        taken.append(1000.0 * (time.perf_counter() - begun))
    return statistics.median(taken)


def eight_lamps(step: int, dimmer: float = 1.0) -> Plan:
    lights = [
        {"position": [-2.4 + 0.7 * i + (0.001 * step if i == 0 else 0.0), 2.0, 2.0 + 0.1 * i], "dimmer": dimmer}
        for i in range(8)
    ]
    return plan_from({"format": "ausblick-plan", "version": 1, "lights": lights})


ALL_SURFACES: dict[str, Any] = {
    "screen": {"floor_run": 3.0, "curve_radius": 0.5, "wing_right": 1.0},
    "subject": {"feet_seen": True},
    "camera": {"focal_mm": 24.0, "tilt": -6.0},
}


def largest() -> Plan:
    """As many lamps and flags as a plan may have, spread over the room: every flag between many lamps and places."""
    rng = np.random.default_rng(2)
    roles = ("screen", "key", "fill", "back", "other")
    fixture = {"emitter": {"shape": "rect"}, "flux_lm": 900.0}
    lights = [
        {"position": [*rng.uniform((-3, 0.5, 0.5), (3, 3, 7))], "role": roles[i % 5], "fixture": fixture}
        for i in range(MOST_LAMPS)
    ]
    flags = []
    for x, z in rng.uniform((-3, 0.5), (3, 6), (MOST_FLAGS, 2)):
        flags.append({"corners": [[x, 0.2, z], [x, 1.8, z], [x + 0.2, 1.8, z + 1], [x + 0.2, 0.2, z + 1]]})
    return plan_from({"format": "ausblick-plan", "version": 1, "lights": lights, "flags": flags})


def plain_sums() -> float:
    """What a moved lamp costs at the least, as bare NumPy: one polygon light over grid and patches, its light
    sent back by 600 patches (two triangular solves in three channels), to 195 places of the screen and 12 of the
    figure, the figure's shadow by 144 rays from some 300 places, and the weighted sums of eight lamps. Since lamps'
    bodies shade and damage is predicted: `bodies_and_clips` too."""
    first, since = _first_sums(), _bodies_and_clips()
    return median_ms(lambda i: (first(i), since(i)), 30)


def _bodies_and_clips() -> Callable[[int], Any]:
    """The moved lamp's pole and head before seven others and theirs before it (250 places and 20 cells a pair), and
    the clip of a screen by two formulas, with and without three faults, over 2,500 places in 120 groups."""
    rng = np.random.default_rng(5)
    begin, way = rng.random((3, 250, 1), np.float32), rng.random((3, 250, 20), np.float32) + 0.5
    d, spread = rng.random((10, 2501)), rng.random((10, 2501))

    def pole() -> Any:
        flat = way[0] * way[0] + way[2] * way[2]
        along = (begin[0] * way[0] + begin[2] * way[2]) / flat
        nearest = np.clip(-along, 0.0, 1.0)
        away = np.sqrt((begin[0] + nearest * way[0]) ** 2 + (begin[2] + nearest * way[2]) ** 2)
        half = 0.05 * nearest + 0.01
        across = np.clip((np.minimum(half, 0.02 - away) + np.minimum(half, away + 0.02)) / half, 0.0, 1.0)
        below = np.clip((2.0 - begin[1] - nearest * way[1]) / half, 0.0, 1.0)
        return (across * below).sum(axis=1)

    def head() -> Any:
        share = begin[1] / way[1]
        hid = [np.clip((begin[i] + share * way[i]) / (0.05 * share), 0.0, 1.0) for i in (0, 2)]
        return (hid[0] * hid[1]).sum(axis=1)

    def clips() -> Any:
        which = [np.minimum((one * 120.0).astype(int), 119) for one in d]
        middle, wide = (
            np.array([np.bincount(at, one, 120) for at, one in zip(which, of, strict=True)]) for of in (d, spread)
        )
        low, high = np.zeros(10), np.ones(10)
        for _ in range(12):
            at = 0.5 * (low + high)
            held = ndtr((at[:, None] - middle) / wide).mean(axis=1)
            low, high = np.where(held < 0.995, at, low), np.where(held < 0.995, high, at)
        return low

    return lambda _: ([(pole(), head()) for _ in range(14)], clips())


def _first_sums() -> Callable[[int], Any]:
    rng = np.random.default_rng(1)
    points, corners = rng.random((61 * 41 + 4 * 600, 3)), rng.random((4, 3)) + 2.0
    maps, patches = rng.random((8, 61 * 41)), rng.random((8, 600, 3))
    system = lu_factor((np.eye(600) + 0.001 * rng.random((600, 600))).astype(np.float32))
    to_screen, to_probes = rng.random((195, 600)), rng.random((12, 600))
    spread_x, spread_y = rng.random((61, 15)), rng.random((41, 13))
    starts, ends = rng.random((300 * 144, 3)), rng.random((300 * 144, 3))

    def work(_: int) -> Any:
        to = corners[None] - points[:, None]
        cross = np.cross(to, np.roll(to, -1, axis=1))
        length = np.linalg.norm(cross, axis=2)
        angle = np.arctan2(length, np.einsum("pei,pei->pe", to, np.roll(to, -1, axis=1)))
        lux = np.abs((angle * cross[..., 2] / length).sum(axis=1))
        back = [lu_solve(system, lux[-600:].astype(np.float32)) for _ in range(3)]
        leaving = np.tensordot(np.ones(8), patches, axes=(0, 0)) + np.stack(back, axis=1)
        coarse = (to_screen @ leaving).reshape(13, 15, 3)
        total = np.einsum("hj,wi,jic->hwc", spread_y, spread_x, coarse, optimize=True)
        way = ends - starts
        a, b = (way * way)[:, [0, 2]].sum(axis=1), (way * starts)[:, [0, 2]].sum(axis=1)
        hit = b * b - a * ((starts * starts)[:, [0, 2]].sum(axis=1) - 0.05) > 0.0
        lost = hit.reshape(300, 144) @ np.ones(144)
        light = (maps.T @ np.ones((8, 3))).reshape(41, 61, 3) + total
        level = 1.099 * np.maximum(light * 0.1, 0.018) ** 0.45
        return to_probes @ leaving, lost, np.percentile(level, [1, 99])

    return work


def frame_file(folder: Path, kind: str) -> Path:
    rng = np.random.default_rng(4)
    picture = np.empty((2160, 3840, 3), np.float32)
    picture[:] = (74.0, 147.0, 54.0)
    picture[700:, 1500:2300] = (90.0, 110.0, 130.0)
    picture += rng.normal(0, 2.0, picture.shape)
    path = folder / f"uhd.{kind}"
    cv2.imwrite(str(path), np.clip(picture, 0, 255).astype(np.uint8))
    return path


def main() -> int:
    rows: list[tuple[str, float, float, str]] = []
    store = BasisStore()
    find(eight_lamps(0), store)
    sums = plain_sums()
    moves, dims = [eight_lamps(i + 1) for i in range(30)], [eight_lamps(0, 1 - 0.01 * i) for i in range(30)]
    moved = median_ms(lambda i: find(moves[i], store, with_remedies=False), 30)
    rows.append(("lamp moved, core", moved, 100.0, "ms"))
    rows.append(("lamp moved, core / plain NumPy sums", moved / sums, 3.0, "x"))
    rows.append(
        (
            "dimmer changed, core",
            median_ms(lambda i: find(dims[i], store, with_remedies=False), 30),
            20.0,
            "ms",
        )
    )
    rows.append(
        (
            "cold evaluation, core",
            median_ms(lambda _: find(eight_lamps(0), BasisStore(), with_remedies=False), 7),
            600.0,
            "ms",
        )
    )
    most = largest()
    taken = median_ms(lambda _: find(most, BasisStore(), with_remedies=False), 1)
    rows.append(("largest plan, cold", taken, 5000.0, "ms"))
    with tempfile.TemporaryDirectory() as folder:
        client = create_app(Path(folder)).test_client()

        def request(i: int, more: dict[str, Any]) -> Any:
            plan = dump_plan(eight_lamps(5000 + i))
            body = {"plan": {**plan, **{part: plan[part] | fields for part, fields in more.items()}}}
            return client.post("/api/evaluate", json={**body, "remedies": False})

        rows.append(("lamp moved, at the server", median_ms(lambda i: request(i, {}), 30), 60.0, "ms"))
        moved = median_ms(lambda i: request(i, ALL_SURFACES), 30)
        rows.append(("the same with floor and wings judged", moved, 60.0, "ms"))
        for kind in ("png", "jpg"):
            path = frame_file(Path(folder), kind)
            decode = median_ms(lambda _, p=path: read_image(p), 7)
            picture = read_image(path)
            measure = median_ms(lambda _, p=picture: read_frame(p), 7)
            rows.append((f"measure 3840 x 2160 {kind} / decode ({decode:.0f} ms)", measure / decode, 2.0, "x"))
        rows += clip_rows(Path(folder))
    rows += planned_rows()
    rows += test_key_rows()
    missed = 0
    for name, value, must, unit in rows:
        missed += value > must
        print(f"{'MISS' if value > must else 'ok':5} {name:52} {value:8.2f} {unit:2}  (must be <= {must:g} {unit})")
    return 1 if missed else 0


if __name__ == "__main__":
    sys.exit(main())
