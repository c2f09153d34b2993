"""A production from the plan to the hand-over: made ready, its days, its takes on a phone, what goes to who keys."""

from __future__ import annotations

import io
import re
import zipfile

import pytest
from playwright.sync_api import Page, Route, expect

from tests.browser.conftest import Watched

PHONE = {"width": 390, "height": 844}


def minutes_of_change(page: Page) -> int:
    told = page.get_by_text(re.compile(r"\d+ min of change between shots")).inner_text()
    return int(told.split(" ")[0])


@pytest.mark.torture
def test_two_days_from_the_plan_to_the_bundle(watched: Watched) -> None:
    page = watched.open("/")
    page.get_by_role("link", name="Visitor film", exact=True).click()
    against = page.get_by_role("region", name="What stands against it")
    expect(against.get_by_role("listitem").first).to_contain_text("screen is missing")
    # The green outfit before the green screen: another outfit is offered, taken, and the finding is gone.
    conflict = against.get_by_role("button", name=re.compile("Moss jacket, moss jacket: keys at"))
    conflict.click()
    page.get_by_role("button", name=re.compile("Brown apron instead")).click()
    expect(conflict).to_have_count(0)
    page.get_by_role("tab", name="Outfits").click()
    moss = page.get_by_role("region", name="Moss jacket")
    expect(moss).to_contain_text(re.compile(r"before green\s*keyed away"))
    expect(moss).to_contain_text(re.compile(r"before blue\s*keys"))
    # Somebody comes along with the minor.
    page.get_by_role("tab", name="People").click()
    expect(against).to_contain_text("who comes along is missing")
    page.get_by_role("textbox", name="Comes along").fill("her mother")
    page.keyboard.press("Tab")
    expect(against).not_to_contain_text("who comes along is missing")
    # A shot that is put elsewhere costs minutes, and is let go again.
    page.get_by_role("tab", name="Days").click()
    day = page.get_by_role("region", name="Day 1")
    expect(day).to_contain_text("Lunch in the fern court")
    best = minutes_of_change(page)
    day.get_by_role("button", name="Scree at noon later").click()
    expect(day.get_by_role("button", name="Pin Scree at noon")).to_have_attribute("aria-pressed", "true")
    expect(day).to_contain_text("pinned to this place")
    assert minutes_of_change(page) > best
    day.get_by_role("button", name="Pin Scree at noon").click()
    expect(page.get_by_text(f"{best} min of change between shots")).to_be_visible()
    # On the day it is late: what brings it back, with minutes.
    day.get_by_label("Time on day 1").fill("13:00")
    options = day.get_by_role("list", name="What brings it back")
    expect(options.get_by_role("listitem").first).to_contain_text(re.compile(r"Leave out Portraits.*\d+ min"))
    answer = page.request.get(f"{watched.address}/api/productions/1/export/bundle")
    names = zipfile.ZipFile(io.BytesIO(answer.body())).namelist()
    assert len({name.split("/")[0] for name in names}) == 8


@pytest.mark.torture
def test_what_shots_share_is_changed_undone_and_done_again(watched: Watched) -> None:
    page = watched.open("/production/1/means")
    against = page.get_by_role("region", name="What stands against it")
    told = "Sound in 1 of the shots with 1 of two devices"
    expect(against).to_contain_text(told)
    page.get_by_role("button", name="Add a device").click()
    expect(page.get_by_role("combobox", name="It is").last).to_have_value("boom")
    expect(against).not_to_contain_text(told)
    page.get_by_role("button", name="Undo").click()
    expect(against).to_contain_text(told)
    page.get_by_role("button", name="Redo").click()
    expect(against).not_to_contain_text(told)
    # What goes behind is taken from a set-up, and a shot takes it.
    page.get_by_role("button", name="Add a plate").click()
    plates = page.get_by_role("region", name="Plates")
    plates.get_by_role("combobox", name="Facts from").last.select_option(label="Scree, noon")
    expect(plates.get_by_role("textbox", name="Plate").last).to_have_value("Scree, noon")
    page.get_by_role("tab", name="Shots").click()
    page.get_by_role("button", name="Seed jar", exact=True).click()
    page.get_by_role("combobox", name="Plate").select_option(label="Scree, noon")
    expect(page.get_by_role("status").filter(has_text=re.compile("Saving|Working"))).to_have_count(0)
    shots = page.request.get(f"{watched.address}/api/productions/1").json()["production"]["shots"]
    assert next(one for one in shots if one["id"] == "j1")["plate"] == "b2"
    page.get_by_role("button", name="Welcome", exact=True).click()
    expect(page.get_by_text(re.compile(r"A boom stays out of the picture from \d\.\d\d m up"))).to_be_visible()


@pytest.mark.torture
def test_a_camera_that_stands_otherwise_than_planned_is_told(watched: Watched) -> None:
    watched.page.set_viewport_size(PHONE)
    page = watched.open("/production/1/takes?shot=v1")
    page.get_by_text("Camera, as it stands").click()
    page.get_by_role("textbox", name="ISO").fill("6400")
    page.keyboard.press("Tab")
    page.get_by_role("textbox", name="Clip").fill("C0009")
    page.get_by_role("button", name="Good", exact=True).click()
    page.get_by_role("button", name=re.compile("^Log take 1")).click()
    expect(page.get_by_role("list", name="Since the reference take")).to_contain_text("ISO 6400, planned 1600")
    # Cameras number their clips.
    expect(page.get_by_role("textbox", name="Clip")).to_have_value("C0010")
    expect(page.get_by_role("list", name="Logged takes")).to_contain_text("C0009")


@pytest.mark.torture
def test_a_shot_is_dragged_to_another_place(watched: Watched) -> None:
    page = watched.open("/production/1/days")
    day = page.get_by_role("region", name="Day 1")
    shot = day.get_by_role("listitem").filter(has_text="Scree at noon")
    last = day.get_by_role("listitem").filter(has_text="Portraits of the gardeners")
    expect(shot).to_be_visible()
    there = last.bounding_box()
    assert there is not None
    shot.hover(position={"x": 120, "y": 10})
    page.mouse.down()
    page.mouse.move(there["x"] + 120, there["y"] + there["height"] - 2, steps=6)
    expect(day).to_contain_text(re.compile(r"\d+ min of change, now \d+"))
    page.mouse.up()
    expect(day.get_by_role("button", name="Pin Scree at noon")).to_have_attribute("aria-pressed", "true")
    expect(day.get_by_role("button", name="Scree at noon later")).to_be_disabled()


def test_a_take_is_two_taps_and_the_clean_plate_one(watched: Watched) -> None:
    page = watched.page
    page.set_viewport_size(PHONE)
    watched.open("/production/1/takes?shot=v1")
    expect(page.get_by_role("heading", name="Seed vault: the door")).to_be_visible()
    expect(page.get_by_text("No clean plate of this set-up")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("Newest picture of this set-up"))).to_be_visible()
    page.get_by_role("button", name="Good", exact=True).click()
    page.get_by_role("button", name="Log take 1: good").click()
    expect(page.get_by_text("Take 2", exact=True)).to_be_visible()
    logged = page.get_by_role("list", name="Logged takes")
    expect(logged.get_by_role("listitem")).to_have_count(1)
    # The next variant is offered; a reason is two more words.
    expect(page.get_by_role("button", name=re.compile("door stays shut"))).to_have_attribute("aria-pressed", "true")
    page.get_by_role("button", name="No", exact=True).click()
    page.get_by_role("button", name="focus").click()
    page.get_by_role("button", name="Log take 2: no").click()
    expect(logged.get_by_role("listitem").first).to_contain_text("focus")
    page.get_by_role("button", name=re.compile("log the clean plate")).click()
    expect(page.get_by_text("The clean plate holds")).to_be_visible()
    page.get_by_role("button", name="Remove Take 2, no").click()
    expect(logged.get_by_role("listitem")).to_have_count(2)
    page.get_by_role("button", name="Bring it back").click()
    expect(logged.get_by_role("listitem")).to_have_count(3)
    page.get_by_role("button", name="Check before wrap").click()
    expect(page.get_by_role("list", name="Before wrap")).to_contain_text("Scree at noon: 0 of 1 good")


def test_takes_wait_in_the_browser_while_the_server_is_away(watched: Watched) -> None:
    page = watched.open("/production/1/takes?shot=s1")
    away = True

    def door(route: Route) -> None:
        if away:
            route.abort()
        else:
            route.continue_()

    expect(page.get_by_text("Take 1", exact=True)).to_be_visible()
    page.route("**/api/productions/1/takes", door)
    for number in (1, 2):
        page.get_by_role("button", name="Good", exact=True).click()
        page.get_by_role("button", name=f"Log take {number}: good").click()
    expect(page.get_by_role("banner").get_by_role("status")).to_have_text("2 waiting to be sent")
    assert page.request.get(f"{watched.address}/api/productions/1/takes").json()["takes"] == []
    away = False
    # Another page of the same browser sends what waited, each once.
    page.reload()
    expect(page.get_by_role("list", name="Logged takes").get_by_role("listitem")).to_have_count(2)
    takes = page.request.get(f"{watched.address}/api/productions/1/takes").json()["takes"]
    assert [take["number"] for take in takes] == [1, 2]
    # The requests that were cut off are what was meant here.
    watched.wrong = [line for line in watched.wrong if "ERR_FAILED" not in line]


@pytest.mark.torture
def test_the_log_is_readable_while_the_server_is_away_and_says_how_old_it_is(watched: Watched) -> None:
    page = watched.open("/production/1/takes?shot=s1")
    expect(page.get_by_role("heading", name="Scree at noon")).to_be_visible()
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    # Read once with the keeper in place.
    page.reload()
    expect(page.get_by_role("heading", name="Scree at noon")).to_be_visible()
    expect(page.get_by_text("The server is away")).to_have_count(0)
    page.wait_for_load_state("load")
    page.context.set_offline(True)
    page.reload()
    expect(page.get_by_role("heading", name="Scree at noon")).to_be_visible()
    expect(page.get_by_text("The server is away. What stands here is of")).to_be_visible()
    page.get_by_role("button", name="Good", exact=True).click()
    page.get_by_role("button", name="Log take 1: good").click()
    expect(page.get_by_role("banner").get_by_role("status")).to_have_text("1 waiting to be sent")
    page.context.set_offline(False)
    expect(page.get_by_role("list", name="Logged takes").get_by_role("listitem")).to_have_count(1)
    watched.wrong = [line for line in watched.wrong if "ERR_INTERNET_DISCONNECTED" not in line]
