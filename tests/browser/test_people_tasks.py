"""More than one person in the picture."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import Watched
from tests.browser.hands import drag, handle, saved


@pytest.mark.torture
def test_a_second_person_is_added_named_and_moved_by_a_remedy(watched: Watched) -> None:
    page = watched.open("/")
    page.get_by_role("link", name="Scree, noon").click()
    page.get_by_role("button", name="5 Subject").click()
    page.get_by_role("button", name="Add a person").click()
    fields = page.get_by_role("region", name="Fields of second person")
    fields.get_by_role("textbox", name="Name").fill("gardener")
    page.keyboard.press("Enter")
    fields = page.get_by_role("region", name="Fields of gardener")
    near = fields.get_by_role("textbox", name="from screen")
    near.fill("1.2")
    near.press("Enter")
    saved(page)

    # What is worse of hers is told as hers, and what helps moves her alone.
    finding = page.get_by_role("button", name=re.compile("gardener: The mark is 1.20 m from the screen"))
    expect(finding).to_be_visible()
    # What helps is looked for while the other worker is busy, too.
    expect(page.get_by_text("Looking for what would help")).to_have_count(0, timeout=40_000)
    if finding.get_attribute("aria-expanded") == "false":
        finding.click()
    subject = page.get_by_role("slider", name="Subject, from above").get_attribute("aria-valuetext")
    page.get_by_role("button", name=re.compile("Try: gardener to")).first.click(timeout=40_000)
    page.get_by_role("region", name="A remedy being tried").get_by_role("button", name="Keep").click()
    expect(finding).to_have_count(0)
    saved(page)
    assert float(near.input_value()) > 1.2
    assert page.get_by_role("slider", name="Subject, from above").get_attribute("aria-valuetext") == subject

    # On the drawing she is taken hold of like anybody, and taken away again.
    x, _ = handle(page, "gardener, from above")
    drag(page, "gardener, from above", 30, 0)
    assert handle(page, "gardener, from above")[0] > x + 20
    fields.get_by_role("button", name="Remove gardener").click()
    expect(page.get_by_role("slider", name="gardener, from above")).to_have_count(0)
    saved(page)
