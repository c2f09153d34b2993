"""Whole tasks, as somebody does them."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import Watched
from tests.browser.hands import drag, saved
from tests.conftest import frame, write_frame


def reading(page: Page, station: str) -> str:
    return page.get_by_role("navigation", name="Stations").get_by_role("button", name=station).inner_text()


def test_plan_a_set_drag_read_try_keep_undo(watched: Watched) -> None:
    page = watched.open("/")
    page.get_by_role("link", name="Seed vault, night round").click()
    findings = page.get_by_role("region", name="Findings and numbers")
    expect(findings.get_by_text("Back light is").first).to_be_visible()

    # The mark goes half a metre toward the camera: gap and screen to spare change with it.
    before = reading(page, "Space")
    drag(page, "Subject, from above", 40, 0)
    expect(page.get_by_role("navigation", name="Stations").get_by_role("button", name="Space")).not_to_have_text(
        before
    )
    saved(page)

    # The right panel is pulled away from the screen: the spread falls.
    def spread() -> float:
        return float(page.get_by_role("button", name="4 Screen light").inner_text().split("stops")[0].split()[-1])

    uneven = spread()
    drag(page, "right panel, from above", 60, -40)
    saved(page)
    station = page.get_by_role("button", name="4 Screen light")
    expect(station).not_to_contain_text(f"{uneven:.2f} stops")
    assert spread() < uneven

    # A remedy is tried, seen beside the plan, and kept.
    finding = findings.get_by_role("button", name="The face's lamps are")
    finding.click()
    page.get_by_role("button", name=re.compile("Try: White balance")).click()
    ghost = page.get_by_role("region", name="A remedy being tried")
    ghost.get_by_role("button", name="Keep").click()
    expect(ghost).to_have_count(0)
    expect(finding).to_have_count(0)
    saved(page)

    # Undone, and done again after the page came anew.
    page.get_by_role("button", name="Undo").click()
    expect(finding).to_be_visible()
    page.reload()
    page.get_by_role("button", name="Redo").click()
    expect(finding).to_have_count(0)


@pytest.mark.torture
def test_measure_a_frame_beside_the_plan(watched: Watched, tmp_path: Path) -> None:
    page = watched.open("/setup/1")
    page.keyboard.press("8")
    readings = page.get_by_role("region", name="Readings")
    expect(readings.get_by_role("row", name="Screen, luma")).to_be_visible()
    taken = write_frame(tmp_path / "take-2.png", frame(noise=0.6, spot=8, figure=True))
    with page.expect_file_chooser() as chooser:
        page.get_by_text("Measure a frame").click()
    chooser.value.set_files(taken)
    expect(page.get_by_role("button", name="take-2.png")).to_have_attribute("aria-pressed", "true")
    expect(readings.get_by_role("row", name="Screen, luma")).to_contain_text("48.0")
    expect(page.get_by_text(re.compile(r"hot spot \+[78]\.\d"))).to_be_visible()
    page.get_by_role("button", name="Matte").click()
    expect(page.get_by_role("img", name=re.compile("Matte of the plain key"))).to_be_visible()
    page.get_by_role("button", name="Deviation map").click()
    expect(page.get_by_role("img", name=re.compile("Scale from"))).to_be_visible()

    # What is no picture is refused in words, and the desk stays as it was.
    (tmp_path / "notes.png").write_text("call sheet")
    with page.expect_file_chooser() as chooser:
        page.get_by_text("Measure a frame").click()
    chooser.value.set_files(tmp_path / "notes.png")
    expect(page.get_by_role("alert")).to_contain_text("no PNG, JPEG, TIFF, EXR, DPX, WebP, HEIC")
    expect(page.get_by_role("button", name="notes.png")).to_have_count(0)
    # The browser notes the refusals by itself.
    watched.wrong = [w for w in watched.wrong if "422" not in w]


def test_the_keyboard_reaches_and_moves_everything(watched: Watched) -> None:
    page = watched.open("/setup/1")
    mark = page.get_by_role("slider", name="Subject, from above")
    expect(mark).to_have_attribute("aria-valuetext", "0.00 m across, 2.40 m from the screen")
    # The drawing is one stop for Tab; arrows go between its handles until one is taken hold of.
    assert page.locator("[data-handles] .handle[tabindex='0']").count() == 1
    mark.focus()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("slider", name="Camera, from above")).to_be_focused()
    page.keyboard.press("ArrowLeft")
    expect(mark).to_be_focused()
    page.keyboard.press("Enter")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Shift+ArrowUp")
    expect(mark).to_have_attribute("aria-valuetext", "0.10 m across, 2.41 m from the screen")
    page.get_by_role("textbox", name="from screen").fill("2,75")
    page.keyboard.press("Enter")
    expect(mark).to_have_attribute("aria-valuetext", "0.10 m across, 2.75 m from the screen")
    page.get_by_role("textbox", name="from screen").fill("lots")
    page.keyboard.press("Enter")
    expect(page.get_by_text("No number: like")).to_be_visible()
    saved(page)
    page.get_by_role("heading", name="Subject").click()
    page.keyboard.press("4")
    expect(page.get_by_role("region", name="Screen light")).to_be_visible()


@pytest.mark.torture
def test_units_and_theme_are_the_persons_choice(watched: Watched) -> None:
    page = watched.open("/setup/2")
    page.get_by_role("button", name=re.compile("Lengths in metres")).click()
    expect(page.get_by_role("button", name="2 Space")).to_contain_text("8′ 6¼″")
    expect(page.get_by_text(re.compile("of screen is missing"))).to_contain_text("1′ 7¾″")
    page.get_by_role("button", name=re.compile("Theme for the set")).click()
    expect(page.locator("html")).to_have_attribute("data-theme", "desk")
    page.reload()
    expect(page.locator("html")).to_have_attribute("data-theme", "desk")
    expect(page.get_by_role("button", name="2 Space")).to_contain_text("8′ 6¼″")


START = "0.00 m across, 2.40 m from the screen"


@pytest.mark.torture
def test_two_browsers_on_one_set_up(watched: Watched, chromium: Browser, address: str) -> None:
    first, other = watched.open("/setup/1"), Watched(chromium, address)
    # This one hears nothing of the other: its network is away just then.
    other.page.add_init_script("window.EventSource = class { close() {} }")
    second = other.open("/setup/1")
    expect(second.get_by_text("Back light is").first).to_be_visible()
    # What does not touch the same comes together, without a question.
    drag(first, "Subject, from above", 30, 0)
    saved(first)
    moved = first.get_by_role("slider", name="Subject, from above").get_attribute("aria-valuetext")
    assert moved != START
    drag(second, "Camera, from above", 30, 0)
    expect(second.get_by_role("slider", name="Subject, from above")).to_have_attribute("aria-valuetext", moved or "")
    saved(second)
    # What does is asked, with both values.
    drag(first, "Subject, from above", 30, 0)
    saved(first)
    drag(second, "Subject, from above", -60, 0)
    alert = second.get_by_role("alert")
    expect(alert).to_contain_text(re.compile(r"subject, z: yours \d.\d+, theirs \d.\d+"))
    alert.get_by_role("button", name="Go on with theirs").click()
    theirs = first.get_by_role("slider", name="Subject, from above").get_attribute("aria-valuetext") or ""
    mark = second.get_by_role("slider", name="Subject, from above")
    expect(mark).to_have_attribute("aria-valuetext", theirs)
    second.get_by_role("button", name="Versions").click()
    second.get_by_role("button", name=re.compile("Open Refused save")).click()
    expect(mark).not_to_have_attribute("aria-valuetext", theirs)
    assert [w for w in other.wrong if "409" not in w] == []
    second.close()


@pytest.mark.torture
def test_set_ups_are_made_renamed_copied_deleted_and_brought_back(watched: Watched) -> None:
    page = watched.open("/")
    page.get_by_role("button", name="Duplicate Scree, noon").click()
    page.get_by_role("button", name="Rename Scree, noon, copy").click()
    page.get_by_role("textbox", name="Title", exact=True).fill("Scree, dusk")
    page.keyboard.press("Enter")
    expect(page.get_by_role("link", name="Scree, dusk")).to_be_visible()
    page.get_by_role("button", name="Delete Scree, dusk").click()
    expect(page.get_by_role("link", name="Scree, dusk")).to_have_count(0)
    page.get_by_role("button", name="Bring it back").click()
    expect(page.get_by_role("link", name="Scree, dusk")).to_be_visible()
    page.get_by_role("link", name="New set-up").click()
    page.get_by_role("textbox", name="Title").fill("Fern dancer")
    page.get_by_role("button", name="Start without answers").click()
    expect(page.get_by_text("No light on the screen")).to_be_visible()
    page.keyboard.press("4")
    page.get_by_role("button", name="Add a lamp").click()
    expect(page.get_by_text("2 of 2 free").first).to_be_visible()
    page.get_by_role("button", name="Add a large panel").click()
    expect(page.get_by_role("slider", name="large panel, from above", exact=True)).to_be_visible()
    expect(page.get_by_text("No light on the screen")).to_have_count(0)
    saved(page)


@pytest.mark.torture
def test_room_kit_framing_a_whole_set_up_in_a_minute(watched: Watched) -> None:
    page = watched.open("/")
    page.get_by_role("link", name="New set-up").click()
    page.get_by_role("textbox", name="Title").fill("Portraits of the gardeners")
    page.get_by_role("button", name="Start without answers").click()
    page.get_by_role("button", name="2 Space").click()
    table = page.get_by_role("region", name="What this room can shoot")
    table.get_by_role("button", name=re.compile("to the chest with 85 mm: possible")).click()
    camera = page.get_by_role("slider", name="Camera, from above")
    expect(camera).not_to_have_attribute("aria-valuetext", "0.00 m across, 6.40 m from the screen")
    expect(page.get_by_role("button", name="3 Screen")).not_to_contain_text("-")

    page.get_by_role("button", name="Propose a set-up").click()
    # Whole set-ups are computed: beside other work that takes its time.
    take = page.get_by_role("button", name="Take: Natural perspective")
    expect(take).to_be_visible(timeout=60_000)
    take.click()
    expect(
        page.get_by_role("slider", name=re.compile("large soft panel, screen (left|right), from above"))
    ).to_have_count(2)
    expect(
        page.get_by_role("region", name="Findings and numbers").get_by_text("No light on the screen")
    ).to_have_count(0)
    saved(page)
    page.get_by_role("button", name="Undo").click()
    expect(
        page.get_by_role("slider", name=re.compile("large soft panel, screen (left|right), from above"))
    ).to_have_count(0)


@pytest.mark.torture
def test_the_kit_room_keeps_what_is_typed(watched: Watched) -> None:
    page = watched.open("/")
    page.get_by_role("link", name="Kit room").click()
    lenses = page.get_by_role("region", name="Lenses")
    lenses.get_by_role("button", name="Add to Lenses").click()
    focal = lenses.get_by_role("textbox", name="Focal length").last
    focal.fill("135")
    focal.press("Enter")
    expect(page.get_by_role("banner").get_by_role("status")).to_have_text("Saved")
    page.reload()
    expect(page.get_by_role("region", name="Lenses")).to_contain_text("135 mm, f/2.8")
    # What is added comes beside what is there.
    page.get_by_role("button", name="Add a generic kit").click()
    expect(page.get_by_role("banner").get_by_role("status")).to_have_text("Generic kit added")
    expect(page.get_by_role("region", name="Lenses")).to_contain_text("135 mm, f/2.8")
    expect(page.get_by_role("region", name="Screens")).to_contain_text("in Fern dancer")


@pytest.mark.torture
def test_a_plate_is_read_marked_and_taken_over(watched: Watched, tmp_path: Path) -> None:
    picture = write_frame(tmp_path / "plate.png", frame(colour=(24.0, 22.0, 18.0), noise=2.0))
    page = watched.open("/setup/2/plate")
    with page.expect_file_chooser() as chooser:
        page.get_by_text("Open a plate").click()
    chooser.value.set_files(picture)
    panel = page.get_by_role("region", name="Plate", exact=True)
    expect(panel.get_by_text(re.compile(r"Mean 2\d %"))).to_be_visible()
    panel.get_by_role("button", name="Take level and colour").click()
    expect(page.get_by_role("button", name="1 Plate")).to_contain_text("22 %")
    # A shadow alone says nothing of the camera, and is not asked for.
    panel.get_by_role("button", name="Shadow").click()
    expect(panel.get_by_text("mark the horizon, or lines that recede")).to_be_visible()
    panel.get_by_role("button", name="Horizon").click()
    expect(panel.get_by_text(re.compile(r"Tilt −?-?\d"))).to_be_visible()
    mark = page.get_by_role("slider", name="Mark: tip of the shadow")
    before = mark.get_attribute("aria-valuetext")
    mark.focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(mark).not_to_have_attribute("aria-valuetext", before or "")
    panel.get_by_role("button", name="Take camera and light").click()
    expect(panel.get_by_text(re.compile("Key from the left"))).to_be_visible()
    panel.get_by_role("button", name="Not known yet").click()
    expect(panel.get_by_text("It costs shape", exact=False)).to_be_visible()
    saved(page)


@pytest.mark.torture
def test_the_fern_costume_turns_the_screen_blue(watched: Watched) -> None:
    page = watched.open("/setup/2/screen")
    panel = page.get_by_role("region", name="Screen colour and rigging")
    expect(panel.get_by_text("Take green.")).to_be_visible()
    expect(panel.get_by_text("Ballast on each")).to_be_visible()
    panel.get_by_role("textbox", name="Name of sand shirt").fill("fern costume")
    panel.get_by_role("textbox", name="Name of sand shirt").press("Tab")
    colour = panel.get_by_label("Colour of fern costume")
    colour.fill("#5a9050")
    colour.dispatch_event("change")
    expect(panel.get_by_text("Take blue.")).to_be_visible()
    panel.get_by_role("button", name="Make it blue").click()
    expect(panel.get_by_role("button", name="Make it blue")).to_have_count(0)
    expect(panel.get_by_role("row", name=re.compile("fern costume"))).to_contain_text("100 %")
    saved(page)


@pytest.mark.torture
def test_marks_for_a_pan_are_drawn_and_the_reach_is_dragged(watched: Watched) -> None:
    page = watched.open("/setup/1/space")
    page.get_by_text("A moving camera: tracking marks").click()
    page.get_by_role("textbox", name="Marks in every frame").fill("2")
    page.get_by_role("textbox", name="Marks in every frame").press("Enter")
    expect(page.get_by_text(re.compile(r"\d+ marks; at least \d+ in every frame|Only \d+ marks"))).to_be_visible()
    page.get_by_text("Copies: one figure many times").click()
    expect(page.get_by_role("cell", name="100 %")).to_be_visible()
    page.get_by_role("slider", name="Subject, from above").focus()
    page.keyboard.press("Enter")
    reach = page.get_by_role("slider", name="Reach of the action, left")
    before = reach.get_attribute("aria-valuetext")
    drag(page, "Reach of the action, left", 0, 20)
    expect(reach).not_to_have_attribute("aria-valuetext", before or "")
    saved(page)


@pytest.mark.torture
def test_a_tablet_on_the_set_s_network_looks_along(
    chromium: Browser, address: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The owner opens the door; a tablet enters by the passcode, sees what the owner changes, and is put out."""
    monkeypatch.setattr("ausblick.web.lan.network.addresses", lambda: ["127.0.0.1"])
    owner = Watched(chromium, address)
    page = owner.open("/network")
    page.get_by_role("checkbox", name="Open to devices on this network").check()
    expect(page.get_by_alt_text("The address as a code")).to_be_visible()
    page.wait_for_function("() => [...document.images].some(image => image.naturalWidth > 100)")
    url = page.get_by_text("https://127.0.0.1:").inner_text()
    row = page.get_by_role("row", name="to look", exact=False).first
    passcode = row.get_by_role("cell").first.inner_text()
    tablet = chromium.new_context(ignore_https_errors=True, viewport={"width": 820, "height": 1180}).new_page()
    tablet.goto(f"{url}#/setup/2")
    tablet.get_by_label("The passcode stands on the screen").fill("WRONG")
    tablet.get_by_role("button", name="Enter").click()
    expect(tablet.get_by_role("alert")).to_contain_text("none of the passcodes")
    tablet.get_by_label("The passcode stands on the screen").fill(passcode)
    tablet.get_by_role("button", name="Enter").click()
    expect(tablet.get_by_role("textbox", name="Title")).to_have_value("Scree, noon", timeout=20_000)
    expect(page.get_by_role("button", name=re.compile("Put out"))).to_be_visible()
    made = owner.page.request.patch(f"{address}/api/setups/2", data={"title": "Scree, dusk"})
    assert made.ok
    expect(tablet.get_by_role("textbox", name="Title")).to_have_value("Scree, dusk", timeout=3_000)
    page.get_by_role("button", name=re.compile("Put out")).click()
    tablet.reload()
    expect(tablet.get_by_label("The passcode stands on the screen")).to_be_visible()
    tablet.context.close()
    owner.page.close()
    assert owner.wrong == []


@pytest.mark.torture
def test_the_kit_and_the_lists_of_one_page_are_those_of_the_other(
    watched: Watched, chromium: Browser, address: str
) -> None:
    other = Watched(chromium, address)
    kit, lists = watched.open("/kit"), other.open("/setup/1/check")
    lists.get_by_role("tab", name="Before and after a take").click()
    card = lists.get_by_role("checkbox", name=re.compile("Grey card"))
    expect(card).not_to_be_checked(timeout=20_000)
    ticked = other.page.request.get(f"{address}/api/setups/1/lists").json()["items"]
    item = next(one["id"] for one in ticked if "rey card" in one["text"])
    assert other.page.request.put(f"{address}/api/setups/1/lists/{item}", data={"ticked": True}).ok
    expect(card).to_be_checked(timeout=5_000)
    stored = watched.page.request.get(f"{address}/api/kit").json()
    stored["kit"]["sandbags"] = 77
    body = {"base": stored["revision"], "kit": stored["kit"]}
    assert watched.page.request.put(f"{address}/api/kit", data=body).ok
    expect(kit.get_by_role("textbox", name=re.compile("andbags")).first).to_have_value("77", timeout=3_000)
    other.page.close()
    assert other.wrong == []


@pytest.mark.torture
def test_a_set_up_is_taken_along_and_opened_again(watched: Watched, tmp_path: Path) -> None:
    page = watched.open("/setup/2")
    page.get_by_role("button", name="Take along").click()
    with page.expect_download() as saving:
        page.get_by_role("link", name="Save: The plan itself").click()
    saving.value.save_as(tmp_path / "plan.json")
    sheet = page.get_by_role("link", name="Set sheet, Letter").get_attribute("href") or ""
    assert page.request.get(watched.address + sheet).body().startswith(b"%PDF-")
    page.get_by_role("link", name="Ausblick").click()
    page.get_by_label("Open a plan document").set_input_files(tmp_path / "plan.json")
    expect(page.get_by_role("textbox", name="Title")).to_have_value("Scree, noon")
    expect(page.get_by_text("0.50 m of screen is missing")).to_be_visible()
