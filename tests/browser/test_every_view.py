"""Every main view: axe finds nothing, and nothing is wider than the window, on desk, tablet and phone."""

from __future__ import annotations

import pytest
from playwright.sync_api import Browser

from tests.browser.conftest import Watched

SETTLED = 30_000
"""Ms in which a check has told its cause beside other work."""
DESK, TABLET, PHONE = (1280, 800), (820, 1180), (390, 844)
TWICE_AS_LARGE = (640, 400)
"""What a desk of 1280 x 800 has at text of 200 %."""
CUT = """() => [...document.querySelectorAll('body *')].filter((one) => one.checkVisibility()
    && one.textContent.trim() && ['hidden', 'clip'].includes(getComputedStyle(one).overflowX) && one.clientWidth > 1
    && one.scrollWidth > one.clientWidth + 1).map((one) => one.textContent.trim().slice(0, 60))"""
"""Texts that do not fit where they stand."""
MOST_USED = ["/setup/1/light", "/setup/1/check"]
OTHERS = [
    "/",
    "/new",
    "/production/1/takes",
    "/setup/4/subject",
    "/kit",
    "/setup/1",
    "/setup/2/screen",
    "/setup/1/camera",
    "/setup/1/space",
    "/compare/1/3",
    "/words",
    "/production/1",
    "/production/1/days",
    "/production/1/outfits",
    "/production/1/means",
    "/network",
]


@pytest.mark.parametrize("path", [*MOST_USED, *(pytest.param(one, marks=pytest.mark.torture) for one in OTHERS)])
def test_axe_finds_nothing_and_nothing_is_wider_than_the_window(chromium: Browser, gallery: str, path: str) -> None:
    window = Watched(chromium, gallery, *PHONE)
    # A stream that stays open never leaves the network idle, which is what is waited for here.
    window.page.add_init_script("window.EventSource = class { close() {} }")
    page = window.open(path)
    for theme, (width, height) in (("set", PHONE), ("set", TABLET), ("set", DESK), ("desk", DESK)):
        page.set_viewport_size({"width": width, "height": height})
        page.evaluate("theme => (document.documentElement.dataset.theme = theme)", theme)
        page.wait_for_load_state("networkidle", timeout=SETTLED)
        # The other theme has other colours, and nothing else; a tablet has the phone's or the desk's parts.
        if (width, height) != TABLET:
            assert window.axe("color-contrast" if theme == "desk" else "") == []
        assert page.evaluate("document.documentElement.scrollWidth") <= width
        if (width, height) == DESK and path.startswith("/setup"):
            assert page.evaluate("document.documentElement.scrollHeight") <= height
    page.set_viewport_size(dict(zip(("width", "height"), TWICE_AS_LARGE, strict=True)))
    page.wait_for_load_state("networkidle", timeout=SETTLED)
    assert page.evaluate("document.documentElement.scrollWidth") <= TWICE_AS_LARGE[0]
    assert page.evaluate(CUT) == []
    page.close()
    assert window.wrong == []
