"""Plans and frames that tests are made of, built by code."""

from __future__ import annotations

import os

# Two workers share the machine: a pool of threads in each of them only gets in the other's way. Children inherit it.
for _name in ("OMP_NUM_THREADS", "OPENBLAS_NUM_THREADS"):
    os.environ.setdefault(_name, "1")

from collections.abc import Callable
from functools import lru_cache
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import pytest
from hypothesis import settings
from xdist.scheduler import LoadScopeScheduling

from ausblick.core.camera.screen_grid import Grid
from ausblick.core.evaluation.screen_light import direct_light
from ausblick.core.geometry.vectors import Floats
from ausblick.core.light.basis import BasisStore, lamp_maps
from ausblick.core.plan import Plan, plan_from
from ausblick.demo.fill import fill_demo

MakePlan = Callable[..., Plan]
cv2.setNumThreads(1)
# A slow machine makes no wrong number: how long things take is measured in benchmarks/.
settings.register_profile("house", deadline=None)
settings.load_profile("house")
LONG = (
    "tests/browser",
    "tests/core/matte",
    "tests/core/advice",
    "tests/api",
    "tests/core/diagnosis",
    "tests/test_wheel",
)
DEMO_FINDINGS = ("test_remedies", "test_light_rules", "test_possible", "test_curves", "test_findings", "test_causes")
"""Modules that share `tests.demo_findings`."""


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """The long ones come first, so that no worker begins one when the other has nothing left to do."""
    items.sort(key=lambda item: next((i for i, part in enumerate(LONG) if part in str(item.path)), len(LONG)))


class ByModule(LoadScopeScheduling):
    """Tests of a module stay with one worker, which has its fixtures and what it remembers. All that need a browser
    go to one: it has the demo's data and what the server worked out for it, and keeps more than a core busy. So does
    the wheel, which serves that data."""

    def _split_scope(self, nodeid: str) -> str:
        module = Path(nodeid.split("::", 1)[0])
        if module.parent.name == "browser" or module.stem == "test_wheel":
            return "browser"
        return "demo findings" if module.stem in DEMO_FINDINGS else module.stem


def pytest_xdist_make_scheduler(config: pytest.Config, log: Any) -> ByModule:
    config.option.loadscopereorder = False
    return ByModule(config, log)


@pytest.fixture(scope="session")
def template(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The demo data, made once."""
    place = tmp_path_factory.mktemp("demo")
    fill_demo(place)
    return place


@pytest.fixture
def make() -> MakePlan:
    """make(screen={...}, lights=[...]) gives a plan with those parts and defaults elsewhere."""
    return lambda **parts: plan_from({"format": "ausblick-plan", "version": 1, **parts})


def lamp(**fields: Any) -> dict[str, Any]:
    """A lamp of the plan document; `fixture` fields may be given flat."""
    fixture = {
        k: fields.pop(k) for k in ("emitter", "flux_lm", "peak_cd", "normal_lux", "beam", "cct") if k in fields
    }
    return {**fields, "fixture": fixture} if fixture else fields


GREEN, BLUE = (21.1, 57.7, 29.1), (16.2, 29.1, 61.0)


def frame(**faults: Any) -> np.ndarray[Any, Any]:
    """Signal (H, W, 3) in % with known faults (`_frame`), made once for each."""
    return _frame(**faults).copy()


@lru_cache(maxsize=6)
def _frame(
    colour: tuple[float, float, float] = GREEN,
    size: tuple[int, int] = (720, 1280),
    slope: float = 0.0,
    spot: float = 0.0,
    shadow: float = 0.0,
    noise: float = 0.0,
    figure: bool = False,
    wall: bool = False,
) -> np.ndarray[Any, Any]:
    """A spot at (0.70, 0.30), a shadow at (0.25, 0.60)."""
    v, u = np.mgrid[0 : size[0], 0 : size[1]] / np.array(size)[:, None, None]
    image = np.broadcast_to(np.array(colour), (*size, 3)).copy()
    change = slope * (u - 0.5)
    change += spot * np.exp(-(((u - 0.70) / 0.06) ** 2) - ((v - 0.30) / 0.08) ** 2)
    change -= shadow * np.exp(-(((u - 0.25) / 0.06) ** 2) - ((v - 0.60) / 0.10) ** 2)
    image += change[..., None]
    if figure:
        head = ((u - 0.5) / 0.05) ** 2 + ((v - 0.3) / 0.09) ** 2 < 1.0
        image[head | ((np.abs(u - 0.5) < 0.1) & (v > 0.35))] = (62.0, 50.0, 44.0)
    if wall:
        image[(u < 0.2) | (u > 0.85) | (v < 0.1)] = (45.0, 44.0, 43.0)
    return image + np.random.default_rng(3).normal(0.0, noise, image.shape)


def write_frame(path: Path, image: np.ndarray[Any, Any]) -> Path:
    """Write signal in % as 8-bit (jpg, png) or 16-bit (.16.png, .tif) picture."""
    deep = path.suffix == ".tif" or path.name.endswith(".16.png")
    top, kind = (65535, np.uint16) if deep else (255, np.uint8)
    pixels = np.clip(np.round(image / 100.0 * top), 0, top).astype(kind)
    assert cv2.imwrite(str(path), pixels[..., ::-1])
    return path


def screen_light(plan: Plan, grid: Grid, store: BasisStore) -> Floats:
    """Direct light (H, W, 3) in lux on the screen, without shadow and returned light."""
    return direct_light(plan, grid, lamp_maps(plan, grid, store))
