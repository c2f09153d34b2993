"""The first two minutes, as a new user has them; every press and every number typed is counted."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Watched


class Hands:
    def __init__(self, page: Page) -> None:
        self.page, self.actions = page, 0

    def press(self, name: str) -> None:
        self.page.get_by_role("button", name=name, exact=True).first.click()
        self.actions += 1

    def type(self, label: str, text: str, key: str = "Tab") -> None:
        field = self.page.get_by_label(label, exact=True).first
        field.fill(text)
        field.press(key)
        self.actions += 1


def garage(page: Page) -> Hands:
    """5 × 3.2 × 2.4 m with white walls, one cloth, two cheap panels, a soft lamp, a phone."""
    hands = Hands(page)
    page.get_by_role("link", name="New set-up").click()
    hands.actions += 1
    hands.type("Length, m", "5")
    hands.type("Width, m", "320 cm", "Enter")
    expect(page.get_by_label("Height, m", exact=True)).to_be_focused()
    hands.type("Height, m", "2,4")
    first = page.get_by_role("list", name="What this room can shoot")
    expect(first).to_contain_text("to the waist")
    assert hands.actions <= 6, "the first answer about their room"
    for word in ("Walls: white", "Ceiling: white", "Floor: grey", "It is: cloth"):
        hands.press(word)
    for _ in range(2):
        hands.press("Add a small panel")
    for word in ("Add a soft box", "Camera: phone", "Seen: to the waist", "The person: talks, gestures"):
        hands.press(word)
    hands.press("Behind it: not known yet")
    assert hands.actions <= 25, "everything entered"
    return hands


def test_a_garage_from_the_door_to_a_set_without_a_stop(empty: Watched) -> None:
    page = empty.open("/")
    hands = garage(page)
    told = page.get_by_role("main").get_by_role("status").first
    expect(told).to_contain_text(re.compile("Good|Usable"))
    hands.press("Make this set-up")
    findings = page.get_by_role("region", name="Findings and numbers")
    expect(findings.get_by_role("button", name="Try").first).to_be_visible()
    assert hands.actions <= 30
    made = page.request.get(f"{empty.address}/api/setups").json()["setups"][0]
    assert made["worst"] != "stop"
    plan = page.request.get(f"{empty.address}/api/setups/{made['id']}").json()["plan"]
    assert (plan["room"]["z_max"] - plan["room"]["z_min"], plan["room"]["height"]) == (5.0, 2.4)
    assert [lamp["name"] for lamp in plan["lights"]] == [
        "small panel, screen left",
        "small panel, screen right",
        "soft box, key",
    ]
    assert plan["plate"]["known"] is False
    # What was said is in the kit room now, and asked for there.
    kit = page.request.get(f"{empty.address}/api/kit").json()["kit"]
    assert [(lamp["name"], lamp["count"]) for lamp in kit["lamps"]] == [("small panel", 2), ("soft box", 1)]
    assert kit["lenses"][0]["fixed"] is True


@pytest.mark.torture
def test_what_cannot_be_is_told_with_what_can(empty: Watched) -> None:
    page = empty.open("/new")
    hands = Hands(page)
    hands.type("Length, m", "2.4")
    hands.type("Width, m", "2")
    hands.press("It is: pop-up")
    hands.press("Add a small panel")
    hands.press("Camera: large sensor")
    hands.press("Seen: full length")
    told = page.get_by_role("main").get_by_role("status").first
    expect(told).to_contain_text(re.compile("Not full .*, but|Will not do"))
    expect(page.get_by_role("list", name="What this room can shoot")).to_contain_text("full length")


def test_somebody_who_skips_every_question_begins_in_an_empty_room(empty: Watched) -> None:
    page = empty.open("/new")
    page.get_by_role("textbox", name="Title").fill("Trial")
    page.get_by_role("button", name="Start without answers").click()
    expect(page.get_by_role("textbox", name="Title")).to_have_value("Trial")
    assert page.request.get(f"{empty.address}/api/kit").json()["kit"]["lamps"] == []
