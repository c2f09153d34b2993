"""The check as a person on a set does it: cause and cure, the stand-in live, readings typed, the test key kept."""

from __future__ import annotations

import re
from pathlib import Path

import cv2
import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Watched
from tests.core.frames.test_odd_screens import shot
from tests.formats.test_clips import write


def check(watched: Watched, part: str | None = None, setup: int = 1) -> Page:
    page = watched.open(f"/setup/{setup}/check")
    if part:
        page.get_by_role("tab", name=part).click()
    return page


def test_opening_the_check_shows_the_fault_its_cause_and_the_cure(watched: Watched) -> None:
    page = check(watched)
    expect(page.get_by_text("of the screen clips").locator("visible=true")).to_be_visible(timeout=20_000)
    cause = page.get_by_role("region", name="Cause").locator("visible=true")
    expect(cause).to_contain_text("left panel gives", timeout=45_000)
    expect(cause).to_contain_text("Raise left panel from about 37 % to 55 %")
    cause.get_by_role("button", name="Take over as built").click()
    expect(cause).to_contain_text("stand and burn as planned", timeout=45_000)


def unevenness(page: Page) -> float:
    said = page.get_by_role("status").filter(has_text="uneven by").inner_text()
    return float(re.search(r"uneven by ([\d.]+)", said).group(1))  # type: ignore[union-attr]


@pytest.mark.torture
def test_curing_the_stand_in_tightens_the_waveform(watched: Watched) -> None:
    page = check(watched, "Stand-in camera")
    expect(page.get_by_alt_text("Live picture of the set")).to_be_visible(timeout=20_000)
    page.get_by_role("button", name="What was built wrong?").click()
    expect(page.get_by_text("left panel: dimmer at 38 % instead of 55 %")).to_be_visible()
    before = unevenness(page)
    page.get_by_role("slider", name="Dimmer of left panel").fill("0.55")
    said = "Number(/uneven by ([0-9.]+)/.exec(document.body.innerText)?.[1])"
    page.wait_for_function(f"before => {said} < before - 3", arg=before, timeout=20_000)
    page.get_by_alt_text("Live picture of the set").click()
    expect(page.get_by_text("cd/m²")).to_be_visible()
    page.get_by_role("button", name="Shoot a still").click()
    expect(page.get_by_role("button", name=re.compile("stand-in still"))).to_be_visible(timeout=20_000)


@pytest.mark.torture
def test_a_clip_is_dropped_and_read(watched: Watched, tmp_path: Path) -> None:
    page = check(watched, setup=2)
    clip = write(tmp_path / "take.mp4", frames=30)
    page.get_by_label("Measure a frame").set_input_files(clip)
    facts = page.get_by_role("region", name="Clip")
    expect(facts).to_contain_text("H.264, 4:2:0, 8 bit", timeout=20_000)
    expect(facts).to_contain_text("none stands out")
    expect(facts).to_contain_text("Not as planned", timeout=45_000)
    page.get_by_role("button", name="Trial key").click()
    expect(page.get_by_text("one clip for the whole screen")).to_be_visible(timeout=20_000)
    page.get_by_role("button", name="Beside another").click()
    expect(page.get_by_role("slider", name=re.compile("Divide take.mp4"))).to_be_visible()
    page.get_by_role("button", name="Zebra").click()
    page.get_by_role("slider", name="Zebra threshold").fill("40")
    expect(page.get_by_text("Stripes above 40 % luma")).to_be_visible()


@pytest.mark.torture
def test_two_takes_side_by_side_tell_what_has_drifted(watched: Watched) -> None:
    """A lamp is turned between two stills of the stand-in; what the plan has stays quiet, what moved is told."""
    page = check(watched, "Stand-in camera", setup=2)
    page.get_by_role("button", name="Exactly as planned").click()
    page.get_by_role("button", name="Shoot a still").click()
    rows = page.get_by_role("region", name="Readings").locator("table").first
    verdict = page.get_by_text("The frame shows what was planned.").locator("visible=true")
    expect(verdict).to_be_visible(timeout=20_000)
    expect(rows).to_contain_text("Spill on the edge")
    page.get_by_role("tab", name="Stand-in camera").click()
    page.get_by_role("slider", name="Dimmer of right panel").fill("0.3")
    page.get_by_role("button", name="Shoot a still").click()
    drift = page.get_by_role("region", name="Drift")
    expect(drift).to_contain_text("darker than before", timeout=20_000)
    expect(rows).to_contain_text("darker than planned: look for a lamp that is off or further away")
    drift.get_by_label("Compared with").select_option(label="scree-test.png")
    expect(drift).to_contain_text("On the screen")


STANDS = "alt => [...document.images].some(e => e.alt.includes(alt) && e.naturalHeight > e.naturalWidth)"
"""A picture that is still on its way has no size yet, so it is waited for."""


@pytest.mark.torture
def test_a_camera_on_its_side_is_looked_at_upright(watched: Watched) -> None:
    page = check(watched, "Stand-in camera", setup=watched.small_setup("On its side", roll=90, fps=10))
    live = page.get_by_alt_text("Live picture of the set")
    expect(live).to_be_visible(timeout=20_000)
    page.wait_for_function(STANDS, arg="Live picture")
    page.get_by_role("button", name="Record a clip").click()
    picture = page.get_by_alt_text(re.compile("stand-in clip"))
    expect(picture).to_be_visible(timeout=60_000)
    page.wait_for_function(STANDS, arg="stand-in clip")


@pytest.mark.torture
def test_a_rectangle_corrects_the_reading(watched: Watched) -> None:
    page = check(watched, setup=2)
    readings = page.get_by_role("region", name="Readings")
    row = readings.get_by_role("row", name=re.compile("Screen in the frame")).get_by_role("cell").nth(2)
    expect(row).to_contain_text("45", timeout=20_000)
    page.get_by_role("button", name="Rectangle").click()
    box = page.get_by_role("application", name="Drawing on the frame").bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 0.3 * box["width"], box["y"] + 0.1 * box["height"])
    page.mouse.down()
    page.mouse.move(box["x"] + 0.45 * box["width"], box["y"] + 0.5 * box["height"], steps=4)
    page.mouse.up()
    page.get_by_role("button", name="Whole frame again").wait_for(timeout=20_000)
    expect(row).not_to_contain_text("45")


@pytest.mark.torture
def test_nine_readings_with_the_number_keys(watched: Watched) -> None:
    page = check(watched, "Without scopes")
    page.get_by_role("textbox", name="upper left").click()
    for value in ("70", "72", "74", "70", "72", "74", "58", "60", "62"):
        page.keyboard.type(value)
        page.keyboard.press("Enter")
    expect(page.get_by_role("status").filter(has_text="lower left")).to_be_visible(timeout=20_000)
    page.get_by_label("First stripe, f/").fill("5,6")
    page.get_by_label("All of it, f/").fill("8")
    # A comma is a decimal point; the wrong way round is said.
    with page.expect_response("**/api/zebra"):
        page.get_by_role("button", name="How even is it?").click()
    expect(page.get_by_role("alert")).to_contain_text("exchange the two")
    watched.wrong.clear()


@pytest.mark.torture
def test_lists_remember_what_was_ticked(watched: Watched) -> None:
    page = check(watched, "Before and after a take")
    page.get_by_role("checkbox", name=re.compile("Grey card")).check()
    page.reload()
    page.get_by_role("tab", name="Before and after a take").click()
    expect(page.get_by_role("checkbox", name=re.compile("Grey card"))).to_be_checked()
    expect(page.get_by_role("region", name="Before the take")).to_contain_text("% against the plan")


@pytest.mark.torture
def test_a_test_key_is_kept_and_two_are_compared(watched: Watched) -> None:
    left, right = watched.small_setup("Left"), watched.small_setup("Right", iso=400)
    page = watched.open(f"/compare/{left}/{right}")
    for side in (0, 1):
        page.get_by_role("button", name="Make a test key").first.click()
        expect(page.get_by_text("Of the plan as it stands.")).to_have_count(side + 1, timeout=90_000)
    expect(page.get_by_text("Quality, left")).to_be_visible()
    page.get_by_role("button", name="over bright").click()
    expect(page.get_by_alt_text("Right: whole frame, over bright")).to_be_visible()
    page.goto(f"{watched.address}/#/setup/{left}/key")
    expect(page.get_by_text("Of the plan as it stands.")).to_be_visible(timeout=20_000)
    page.get_by_label("Divided from").select_option(label="true matte")
    expect(page.get_by_role("slider", name=re.compile("Divide as recorded from true matte"))).to_be_visible()


@pytest.mark.parametrize(("width", "height"), [(390, 844), pytest.param(820, 1180, marks=pytest.mark.torture)])
def test_the_verdict_comes_first_on_small_screens(chromium: object, address: str, width: int, height: int) -> None:
    window = Watched(chromium, address, width, height)  # type: ignore[arg-type]
    page = window.open("/setup/1/check")
    verdict = page.get_by_text("of the screen clips").locator("visible=true")
    expect(verdict).to_be_visible(timeout=20_000)
    box = verdict.bounding_box()
    assert box is not None
    assert box["y"] + box["height"] < height
    assert page.evaluate("document.documentElement.scrollWidth <= window.innerWidth")
    page.close()
    assert window.wrong == []


@pytest.mark.torture
def test_a_screen_that_no_colour_is_sure_of_is_pointed_at(watched: Watched, tmp_path: Path) -> None:
    """A pale screen: no fact but a question; pointed at, it is read, and the choice stays with the frame."""
    file = tmp_path / "pale.png"
    cv2.imwrite(str(file), (255.0 * shot((0.30, 0.44, 0.32))[..., ::-1]).astype("uint8"))
    setup = watched.small_setup("Pale screen")
    page = watched.open(f"/setup/{setup}/check")
    page.get_by_label("Measure a frame").set_input_files(file)
    question = page.get_by_role("group", name="What may be the screen")
    expect(question).to_contain_text("No screen is sure here", timeout=20_000)
    question.get_by_role("button", name=re.compile("keyed by green, 4. %")).click()
    expect(page.get_by_role("button", name="Whole frame again")).to_be_visible(timeout=20_000)
    expect(question).to_have_count(0)
    page.reload()
    expect(page.get_by_role("button", name="Whole frame again")).to_be_visible(timeout=20_000)
    page.get_by_role("button", name="Whole frame again").click()
    expect(question).to_contain_text("No screen is sure here", timeout=20_000)


@pytest.mark.torture
def test_several_files_at_once_go_on_past_one_that_cannot_be_read(watched: Watched, tmp_path: Path) -> None:
    good, bad, more = (tmp_path / name for name in ("a.png", "b.png", "c.png"))
    for path in (good, more):
        cv2.imwrite(str(path), (255.0 * shot((0.03, 0.25, 0.06))[..., ::-1]).astype("uint8"))
    bad.write_bytes(b"no picture")
    page = watched.open(f"/setup/{watched.small_setup('Several')}/check")
    page.get_by_label("Measure a frame").set_input_files([good, bad, more])
    expect(page.get_by_role("alert")).to_contain_text("1 of 3 could not be read", timeout=30_000)
    for path in (good, more):
        expect(page.get_by_role("button", name=path.name)).to_be_visible()
    watched.wrong.clear()
