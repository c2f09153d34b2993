"""Speed of what draws and reads pictures: the simulated test key, its levers, a clip (used by run.py)."""

from __future__ import annotations

import resource
import statistics
import time
from functools import partial
from pathlib import Path

import av
import numpy as np

from ausblick.app.spare_memory import give_back
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.light.basis import BasisStore
from ausblick.core.matte.levers import levers_of
from ausblick.core.matte.simulation import quick, simulate
from ausblick.core.plan import Change, apply_changes
from ausblick.core.standin.last_light import LastLight
from ausblick.core.standin.planned_picture import picture_at_once, planned_picture
from ausblick.demo.fern_house import seed_vault
from ausblick.formats.clips import read_clip
from ausblick.formats.recording import through, write_clip

Row = tuple[str, float, float, str]


def planned_rows() -> list[Row]:
    """The planned set at 640 x 360 once a lamp or the figure has been put down, its evaluation in it; of the figure
    in the light that was, too."""
    store, plan, last = BasisStore(), seed_vault(), LastLight()
    assert plan.subject is not None
    x, y, z = plan.lights[0].position
    evaluated = partial(evaluate, store=store)
    of_lamp, at_once, of_figure = [], [], []
    for step in range(9):
        moved = apply_changes(plan, [Change("lights[0].position", [x + 0.01 * step, y, z])])
        begun = time.perf_counter()
        planned_picture(moved, evaluated, 640, store, last)
        of_lamp.append(1000.0 * (time.perf_counter() - begun))
    for step in range(9):
        aside = apply_changes(moved, [Change("subject.x", plan.subject.x + 0.05 + 0.01 * step)])
        begun = time.perf_counter()
        assert picture_at_once(aside, 640, store, last) is not None
        at_once.append(1000.0 * (time.perf_counter() - begun))
        planned_picture(aside, evaluated, 640, store, last)
        of_figure.append(1000.0 * (time.perf_counter() - begun))
    return [
        ("as the camera sees it, a lamp moved", statistics.median(of_lamp), 300.0, "ms"),
        ("the figure moved, at once", statistics.median(at_once), 300.0, "ms"),
        ("the figure moved, in its own light", statistics.median(of_figure), 1000.0, "ms"),
    ]


def test_key_rows() -> list[Row]:
    """First picture, quick key, figures, each lever; the plan has been evaluated before, as in the page."""
    plan, store = seed_vault(), BasisStore()
    quick(plan.model_copy(update={"title": "warm"}), store, through)
    firsts, whole = [], []
    for seed in range(5):
        begun = time.perf_counter()
        seen: list[float] = []
        shot = quick(plan, store, through, seed, lambda _, s=seen: s.append(time.perf_counter()))
        whole.append(time.perf_counter() - begun)
        firsts.append(seen[0] - begun)
    begun = time.perf_counter()
    # As the job does it.
    key = simulate(plan, store, through, 4, step=lambda _: give_back(), overview=shot)
    give_back()
    figures = time.perf_counter() - begun
    marks: list[float] = []
    levers_of(plan, key.quality, store, through, lambda _: marks.append(time.perf_counter()), seed=4)
    each = statistics.median(np.diff([*marks, time.perf_counter()]))
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024.0
    return [
        ("test key, first picture", 1000.0 * statistics.median(firsts), 700.0, "ms"),
        ("test key, quick", 1000.0 * statistics.median(whole), 2000.0, "ms"),
        ("test key, figures", 1000.0 * figures, 5000.0, "ms"),
        ("test key, each lever", 1000.0 * each, 2000.0, "ms"),
        ("memory at its peak", peak, 1500.0, "MB"),
    ]


def clip_rows(folder: Path) -> list[Row]:
    """A long-GOP clip of 1920 x 1080, 100 frames: reading it against decoding it."""
    rng = np.random.default_rng(5)
    plan = seed_vault()
    base = np.empty((1080, 1920, 3), np.float32)
    base[:] = (0.29, 0.58, 0.21)
    base[350:, 750:1150] = (0.35, 0.43, 0.51)
    path = folder / "take.mov"
    recording = plan.camera.recording
    write_clip(
        path, (base + rng.normal(0, 0.008, base.shape).astype(np.float32) for _ in range(100)), recording, 25.0
    )

    def decode() -> None:
        with av.open(str(path)) as container:
            container.streams.video[0].thread_type = "AUTO"
            for _ in container.decode(video=0):
                pass

    taken = {}
    for name, work in (("decode", decode), ("read", lambda: read_clip(path))):
        times = []
        for _ in range(5):
            begun = time.perf_counter()
            work()
            times.append(time.perf_counter() - begun)
        taken[name] = statistics.median(times)
    label = f"measure a 1080p clip / decode ({1000.0 * taken['decode']:.0f} ms)"
    return [(label, taken["read"] / taken["decode"], 2.0, "x")]
