"""A real server on a free port with the demo data, and a Chromium that forgives nothing."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, Request, Response, expect, sync_playwright

from ausblick.app.memory import Memory
from ausblick.web.serving import beside

FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-component-update",
    "--disable-sync", "--disable-quic", "--no-first-run",
]  # fmt: skip
expect.set_options(timeout=15_000)
MEMORY = Memory()
"""Servers of one session share what they computed, as requests to one server do."""
AXE = Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js"


@pytest.fixture(scope="session")
def chromium() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        yield browser
        browser.close()


@pytest.fixture(scope="session")
def gallery(template: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """One server for tests that only look."""
    with beside(Path(shutil.copytree(template, tmp_path_factory.mktemp("gallery") / "data")), MEMORY) as where:
        yield where


@pytest.fixture
def address(template: Path, tmp_path: Path) -> Iterator[str]:
    """A server of one's own, for tests that change things."""
    with beside(Path(shutil.copytree(template, tmp_path / "data")), MEMORY) as where:
        yield where


class Watched:
    """A page that remembers what must not happen: console errors, and requests to another host."""

    def __init__(self, browser: Browser, address: str, width: int = 1280, height: int = 800) -> None:
        self.page = browser.new_page(viewport={"width": width, "height": height})
        # The first who looks at the list waits until all set-ups are judged.
        self.page.set_default_timeout(30_000)
        self.address = address
        self.wrong: list[str] = []
        self.refused: list[str] = []
        self.page.on("console", lambda m: self.wrong.append(m.text) if m.type in ("error", "warning") else None)
        self.page.on("pageerror", lambda error: self.wrong.append(str(error)))
        self.page.on("request", self._ours)
        self.page.on("response", self._refused)

    def _ours(self, request: Request) -> None:
        if not request.url.startswith((self.address, "data:", "blob:")):
            self.wrong.append(f"request to {request.url}")

    def _refused(self, response: Response) -> None:
        """What the server refused stands beside the console's line, which does not say what was asked."""
        if response.status >= 400:
            asked = response.request
            self.refused.append(f"{response.status} {asked.method} {response.url} {(asked.post_data or '')[:2000]}")

    def open(self, path: str) -> Page:
        self.page.goto(f"{self.address}/#{path}")
        # A key that is pressed before the view is there goes nowhere.
        self.page.wait_for_selector("#app > *")
        return self.page

    def white_walls(self, title: str) -> int:
        """A white coat in a narrow white room: both walls send the screen's colour to its edges."""
        walls = {"walls": [0.8, 0.8, 0.8], "ceiling": [0.8, 0.8, 0.8], "floor": [0.2, 0.2, 0.2]}
        panel = {"fixture": {"flux_lm": 12000}}
        plan = {
            "format": "ausblick-plan",
            "version": 1,
            "title": title,
            "room": {"x_min": -1.6, "x_max": 1.6, "reflectance": walls},
            "lights": [
                {"position": [-1.4, 1.4, 1.7], **panel},
                {"position": [1.4, 1.4, 1.7], "aim": [0.3, 1.3, 0], **panel},
                {"role": "key", "position": [-1, 2.1, 3.5], "aim": [0, 1.5, 1.5]},
            ],
            "subject": {"framing": "waist", "z": 1.5,
                        "wardrobe": [{"name": "white coat", "reflectance": [0.75, 0.75, 0.75]}]},
            "camera": {"focal_mm": 50, "f_number": 5.6, "recording": {"codec": "raw", "chroma": "raw", "bits": 12}},
        }  # fmt: skip
        made = self.page.request.post(f"{self.address}/api/setups", data={"plan": plan})
        return int(made.json()["id"])

    def small_setup(self, title: str, **camera: object) -> int:
        """A set-up of three lamps with a camera of few pixels: its keys and clips take a fraction of the demo's."""
        sensor = {"px_w": 1280, "px_h": 720}
        recording = {"codec": "raw", "chroma": "raw", "bits": 12}
        plan = {
            "format": "ausblick-plan",
            "version": 1,
            "title": title,
            "lights": [
                {"position": [-2.2, 1.4, 2.2]},
                {"position": [2.2, 1.4, 2.2], "aim": [0.3, 1.3, 0]},
                {"role": "key", "position": [-1, 2.1, 4.6], "aim": [0, 1.5, 2.4]},
            ],
            "subject": {"framing": "waist"},
            "camera": {"focal_mm": 50, "iso": 1600, "sensor": sensor, "recording": recording, **camera},
        }
        made = self.page.request.post(f"{self.address}/api/setups", data={"plan": plan})
        return int(made.json()["id"])

    def axe(self, only: str = "") -> list[str]:
        """What axe finds, WCAG A and AA; or by one of its rules."""
        self.page.evaluate(AXE.read_text("utf-8"))
        found = self.page.evaluate(
            "rules => axe.run({runOnly: rules, resultTypes: ['violations'], preload: false})",
            [only] if only else ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa", "best-practice"],
        )
        return [
            f"{v['id']}: {node['html'][:120]} {node['failureSummary'][:200]}"
            for v in found["violations"]
            for node in v["nodes"][:2]
        ]


@pytest.fixture
def watched(chromium: Browser, address: str) -> Iterator[Watched]:
    window = Watched(chromium, address)
    yield window
    window.page.close()
    assert window.wrong == [], window.refused


@pytest.fixture
def empty(chromium: Browser, tmp_path: Path) -> Iterator[Watched]:
    """A page of an application that nobody has used yet."""
    with beside(tmp_path / "new", MEMORY) as where:
        window = Watched(chromium, where)
        yield window
        window.page.close()
        assert window.wrong == [], window.refused
