"""Pictures of the main views from the demo data, into docs/screenshots (make shots)."""

from __future__ import annotations

import re
import sys
import tempfile
from pathlib import Path

import cv2
import numpy as np
from playwright.sync_api import Page, sync_playwright

from ausblick.demo.fill import fill_demo
from ausblick.web.serving import beside

OUT = Path(__file__).resolve().parent.parent / "docs/screenshots"
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-quic",
    "--no-first-run",
]
DESK, TABLET, PHONE = (1280, 800), (820, 1180), (390, 844)


def wait(page: Page) -> None:
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(400)


def main(only: list[str], out: Path) -> None:
    place = Path(tempfile.mkdtemp())
    fill_demo(place)
    with beside(place) as address, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        for name, size, theme, path, act in VIEWS:
            if only and name not in only:
                continue
            page = browser.new_page(viewport={"width": size[0], "height": size[1]})
            page.on("console", lambda message: print("console:", message.type, message.text))
            page.on("pageerror", lambda err: print("error:", err))
            page.add_init_script("window.EventSource = class { close() {} }")  # keeps the network busy for ever
            page.add_init_script(f"localStorage.setItem('ausblick-prefs', JSON.stringify({{theme: '{theme}'}}))")
            page.goto(f"{address}/#{path}")
            wait(page)
            act(page)
            wait(page)
            page.screenshot(path=out / f"{name}.png")
            page.close()
        browser.close()


def nothing(page: Page) -> None:
    """The view as it opens."""


def standin(page: Page) -> None:
    page.get_by_role("tab", name="Stand-in camera").click()
    page.get_by_alt_text("Live picture").wait_for(timeout=30_000)


def check(page: Page) -> None:
    page.get_by_role("region", name="Cause").locator("visible=true").wait_for(timeout=60_000)


def late(page: Page) -> None:
    page.get_by_label("Time on day 1").fill("13:00")
    page.get_by_role("list", name="What brings it back").wait_for()


def takes(page: Page) -> None:
    """A good take, one that was not, the clean plate; the third is about to be logged."""
    for how, reason in (("Good", ""), ("No", "focus")):
        page.get_by_role("button", name=how, exact=True).click()
        if reason:
            page.get_by_role("button", name=reason).click()
        page.locator("button", has_text="Log take").click()
        wait(page)
    page.get_by_role("button", name="log the clean plate").click()
    wait(page)
    page.get_by_role("button", name="Good", exact=True).click()


def garage(page: Page) -> None:
    for label, text in (("Length, m", "5"), ("Width, m", "3.2"), ("Height, m", "2.4")):
        page.get_by_label(label, exact=True).first.fill(text)
        page.keyboard.press("Tab")
    for name in (
        "Walls: white", "Ceiling: white", "Floor: grey", "It is: cloth", "Add a small panel", "Add a small panel",
        "Add a soft box", "Camera: phone", "Seen: to the knees", "The person: talks, gestures",
    ):  # fmt: skip
        page.get_by_role("button", name=name, exact=True).click()
    page.get_by_text(re.compile("^(Good|Usable)")).first.wait_for()


def plate(page: Page) -> None:
    """A plate made by code: an alley between two walls at night, a lamp post with its shadow."""
    rng = np.random.default_rng(2)
    picture = np.full((540, 960, 3), (34, 24, 20), np.uint8)
    cv2.fillPoly(picture, [np.array([[0, 540], [430, 250], [530, 250], [960, 540]])], (58, 50, 46))
    cv2.fillPoly(picture, [np.array([[0, 540], [0, 60], [430, 215], [430, 250]])], (48, 38, 34))
    cv2.fillPoly(picture, [np.array([[960, 540], [960, 60], [530, 215], [530, 250]])], (30, 24, 22))
    cv2.line(picture, (560, 420), (560, 200), (12, 10, 10), 7)
    cv2.line(picture, (560, 420), (720, 462), (30, 25, 23), 9)
    cv2.circle(picture, (250, 130), 22, (150, 200, 235), -1)
    picture = cv2.GaussianBlur(picture, (0, 0), 1.2) + rng.integers(0, 5, picture.shape, dtype=np.uint8)
    path = Path(tempfile.mkdtemp()) / "alley.png"
    cv2.imwrite(str(path), picture)
    page.get_by_label("Open a plate").set_input_files(path)
    for name in ("Receding lines", "Shadow"):
        page.get_by_role("button", name=name).click()
    wait(page)


def network(page: Page) -> None:
    page.get_by_role("checkbox", name="Open to devices").check()
    page.get_by_text("SHA-256").wait_for()
    page.wait_for_function("() => [...document.images].every(image => image.naturalWidth > 0)")


def ledger(page: Page) -> None:
    page.get_by_role("heading", name="Ways to the wanted levels").wait_for(timeout=60_000)
    page.get_by_role("region", name="Camera", exact=True).scroll_into_view_if_needed()
    page.get_by_role("heading", name="Ledger of stops").scroll_into_view_if_needed()


def key(page: Page) -> None:
    """Over the plate of the plate's own picture, divided from what was recorded."""
    plate(page)
    page.goto(page.url.replace("/plate", "/key"))
    wait(page)
    page.get_by_role("button", name="Make a test key").click()
    page.get_by_text("Of the plan as it stands.").wait_for(timeout=180_000)
    page.get_by_role("button", name="over the plate").click()
    page.get_by_label("Divided from").select_option("frame")


def lit(page: Page) -> None:
    """The frame drawn as it is lit, in every frame of the page."""
    for button in page.get_by_role("button", name="As the camera sees it").all():
        button.click()
    page.get_by_text("Drawn from the plan").last.wait_for(timeout=60_000)


VIEWS = [
    ("setups", DESK, "set", "/", nothing),
    ("setup", DESK, "set", "/setup/3", nothing),
    ("subject", DESK, "set", "/setup/4/subject", lit),
    ("network", DESK, "set", "/network", network),
    ("compare", DESK, "desk", "/compare/1/4", nothing),
    ("stand-in", DESK, "set", "/setup/1/check", standin),
    ("production", DESK, "set", "/production/1/days", late),
    ("outfits", DESK, "desk", "/production/1/outfits", nothing),
    ("takes", PHONE, "set", "/production/1/takes?shot=v1", takes),
    ("space", DESK, "set", "/setup/2/space", nothing),
    ("new", DESK, "set", "/new", garage),
    ("plate", DESK, "set", "/setup/1/plate", plate),
    ("kit", DESK, "set", "/kit", nothing),
    ("screen", DESK, "set", "/setup/2/screen", nothing),
    ("camera", DESK, "set", "/setup/6/camera", ledger),
    ("test-key", DESK, "set", "/setup/1/plate", key),
    ("check", DESK, "set", "/setup/1/check", check),
    ("tablet", TABLET, "set", "/setup/2", lit),
    ("phone", PHONE, "set", "/setup/1", nothing),
]

if __name__ == "__main__":
    arguments = sys.argv[1:]
    target = (
        Path(arguments.pop(0).removeprefix("--out=")) if arguments[:1] and arguments[0].startswith("--out=") else OUT
    )
    target.mkdir(parents=True, exist_ok=True)
    main(arguments, target)
