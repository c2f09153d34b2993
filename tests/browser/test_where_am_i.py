"""The address carries what is open; what is being worked out says so; a trial is always in view."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Route, expect

from tests.browser.conftest import Watched


def test_reload_back_and_links_restore_what_was_open(watched: Watched) -> None:
    page = watched.open("/setup/1/light")
    page.get_by_role("tab", name="Numbers").click()
    expect(page).to_have_url(re.compile(r"/setup/1/light\?tab=numbers$"))
    page.reload()
    expect(page.get_by_role("tab", name="Numbers")).to_have_attribute("aria-selected", "true")
    told = page.get_by_role("region", name="Findings and numbers")
    told.evaluate("one => one.scrollTo(0, 400)")
    page.keyboard.press("5")
    expect(page).to_have_url(re.compile(r"/setup/1/subject"))
    # Another station opens with what is worst, not in the middle.
    page.wait_for_function("document.querySelector('[aria-label=\"Findings and numbers\"]').scrollTop === 0")
    page.keyboard.press("4")
    page.get_by_role("tab", name="Numbers").click()
    page.keyboard.press("8")
    page.get_by_role("tab", name="Before and after a take").click()
    expect(page).to_have_url(re.compile(r"/setup/1/check\?part=lists(&frame=1)?$"))
    page.reload()
    expect(page.get_by_text("Nothing in the plan stops the shoot")).to_be_visible()
    page.go_back()
    expect(page.get_by_role("tab", name="Numbers")).to_have_attribute("aria-selected", "true")


def test_set_ups_can_be_opened_before_they_are_judged(watched: Watched) -> None:
    held: list[Route] = []
    watched.page.route("**/api/setups", lambda route: held.append(route))
    page = watched.open("/")
    title = page.get_by_role("link", name=re.compile("^Seed vault")).first
    expect(title).to_be_visible()
    expect(page.get_by_text("Being judged …").first).to_be_visible()
    title.click()
    expect(page.get_by_role("region", name="Findings and numbers").get_by_role("listitem").first).to_be_visible()
    page.unroute("**/api/setups")
    page.go_back()
    expect(page.get_by_text(re.compile(r"^\d+ open$")).first).to_be_visible()
    assert page.get_by_text("Being judged …").count() == 0


def test_an_address_that_leads_nowhere_says_so(watched: Watched) -> None:
    page = watched.open("/nowhere")
    expect(page.get_by_text("Nothing is at “/nowhere”.")).to_be_visible()
    page.get_by_role("link", name="To the set-ups").click()
    expect(page.get_by_role("heading", name="Set-ups")).to_be_visible()


@pytest.mark.torture
def test_a_trial_is_docked_and_kept_or_dropped_by_keys(watched: Watched) -> None:
    page = watched.open("/setup/2")
    tried = page.get_by_role("button", name=re.compile("Try: Floor run"))
    tried.click()
    trial = page.get_by_role("region", name="A remedy being tried")
    expect(trial).to_be_in_viewport(ratio=1.0)
    expect(trial).to_contain_text("Screen to spare")
    expect(trial.get_by_role("button", name="Keep")).to_be_focused()
    page.keyboard.press("Escape")
    expect(trial).to_have_count(0)
    expect(tried).to_be_focused()
    tried.click()
    expect(trial.get_by_role("button", name="Keep")).to_be_focused()
    page.keyboard.press("k")
    expect(trial).to_have_count(0)
    expect(page.get_by_text("of screen is missing")).to_have_count(0)


@pytest.mark.torture
def test_what_is_still_looked_for_says_so_and_keeps_the_old(watched: Watched) -> None:
    page = watched.open("/setup/2")
    tried = page.get_by_role("button", name=re.compile("^Try: "))
    expect(tried.first).to_be_enabled()
    # The answer with remedies is held back: the first remedies stay, dimmed, and cannot be pressed.
    page.route(
        "**/api/evaluate",
        lambda route: route.continue_() if '"remedies":false' in (route.request.post_data or "") else None,
    )
    page.get_by_role("textbox", name="Title").fill("Scree at four")
    page.keyboard.press("Tab")
    findings = page.get_by_role("region", name="Findings and numbers")
    expect(findings).to_have_attribute("aria-busy", "true")
    expect(tried.first).to_be_disabled()
    expect(page.get_by_text("No single change")).to_have_count(0)
    page.unroute_all(behavior="ignoreErrors")


@pytest.mark.torture
def test_what_was_deleted_is_listed_and_comes_back(watched: Watched) -> None:
    page = watched.open("/setup/1/check")
    # What is being read of a frame is finished first: a picture that is gone would be asked for.
    expect(page.get_by_role("region", name="Cause").locator("visible=true")).to_contain_text("left", timeout=45_000)
    page.get_by_role("button", name="Remove this frame").click()
    expect(page.get_by_text(re.compile("is removed"))).to_be_visible()
    page.get_by_role("link", name="Ausblick").click()
    page.get_by_role("button", name="Delete Scree, noon").click()
    expect(page.get_by_role("link", name="Scree, noon")).to_have_count(0)
    page.reload()
    page.get_by_text("Deleted things").click()
    page.get_by_role("button", name="Bring back Scree, noon").click()
    expect(page.get_by_role("link", name="Scree, noon")).to_be_visible()
    page.get_by_role("button", name=re.compile("Bring back .*")).first.click()
    expect(page.get_by_text("Nothing is in here")).to_be_visible()
    assert page.request.get(f"{watched.address}/api/setups/1/frames").json()["frames"]


@pytest.mark.torture
def test_a_change_of_the_kit_is_undone(watched: Watched) -> None:
    page = watched.open("/kit")
    lamps = page.get_by_role("region", name="Lamps")
    lamps.get_by_text("large soft panel").click()
    lamps.get_by_role("button", name="Remove large soft panel").click()
    expect(lamps.get_by_text("large soft panel")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(lamps.get_by_text("large soft panel")).to_be_visible()
    page.get_by_role("button", name="Redo").click()
    expect(lamps.get_by_text("large soft panel")).to_have_count(0)


@pytest.mark.torture
def test_the_first_finding_is_at_most_eight_stops_away(watched: Watched) -> None:
    page = watched.open("/setup/2")
    expect(page.get_by_role("button", name=re.compile("^Try: ")).first).to_be_enabled()
    page.keyboard.press("Tab")
    expect(page.get_by_role("link", name="To the findings")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Findings and numbers")).to_be_focused()
    stops = 2
    while stops <= 8 and not page.evaluate("document.activeElement.matches('li > button')"):
        page.keyboard.press("Tab")
        stops += 1
    assert page.evaluate("document.activeElement.textContent.includes('of screen is missing')")
    assert stops <= 8
    spoken = page.locator("p[aria-live]")
    expect(spoken).to_contain_text(re.compile(r"Will not do as it is: \d+ of \d+ open findings stop it"))


def test_a_lamp_is_deleted_by_its_key_and_comes_back(watched: Watched) -> None:
    page = watched.open("/setup/2")
    lamp = page.get_by_role("slider", name="right panel, from above", exact=True)
    lamp.focus()
    page.keyboard.press("Enter")
    page.keyboard.press("Delete")
    expect(lamp).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(lamp).to_have_count(1)


@pytest.mark.torture
def test_the_drawing_comes_nearer_and_hands_still_move_what_they_hold(watched: Watched) -> None:
    page = watched.open("/setup/2")
    drawing = page.get_by_role("group", name=re.compile("The set to scale"))
    # The bars above take their height once the set is judged.
    expect(page.get_by_role("button", name=re.compile("^Try: ")).first).to_be_enabled()
    whole = drawing.get_attribute("viewBox") or ""
    lamp = page.get_by_role("slider", name="right panel, from above", exact=True)

    def across() -> float:
        return float((lamp.get_attribute("aria-valuetext") or "").split(" m")[0].replace("−", "-"))

    def pulled(pixels: float) -> float:
        """How far the lamp goes across when it is pulled down by so many pixels, m."""
        before, box = across(), lamp.locator(".hit").bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x, y + pixels, steps=4)
        page.mouse.up()
        return before - across()

    far = pulled(20)
    page.get_by_role("button", name="Nearer").click()
    page.get_by_role("button", name="Nearer").click()
    assert drawing.get_attribute("viewBox") != whole
    near = pulled(20)
    assert 0.05 < near < 0.8 * far
    page.get_by_role("button", name="whole", exact=True).click()
    assert drawing.get_attribute("viewBox") == whole
    page.get_by_role("button", name="set", exact=True).click()
    expect(page.get_by_role("button", name="set", exact=True)).to_have_attribute("aria-pressed", "true")


@pytest.mark.torture
def test_a_version_is_compared_with_what_is_now(watched: Watched) -> None:
    page = watched.open("/setup/2")
    page.get_by_role("button", name="Versions").click()
    page.get_by_role("textbox", name="Name for this state").fill("before lunch")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("link", name="Compare with before lunch")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("slider", name="Subject, from above").focus()
    with page.expect_response(lambda answer: answer.request.method == "PUT"):
        page.keyboard.press("Enter")
        page.keyboard.press("Shift+ArrowRight")
    page.get_by_role("button", name="Versions").click()
    page.get_by_role("link", name="Compare with before lunch").click()
    expect(page.get_by_role("combobox", name="Set-up on the left")).to_contain_text("an earlier version")
    # What differs stands first.
    first = page.get_by_role("row").nth(1)
    left, right = first.get_by_role("cell").nth(1), first.get_by_role("cell").nth(2)
    expect(left).not_to_have_text(right.inner_text())
    expect(page.get_by_role("row", name=re.compile("Mark to screen"))).to_contain_text("2.70 m")


@pytest.mark.torture
def test_the_tour_sees_what_was_done_and_goes_on(watched: Watched) -> None:
    page = watched.open("/")
    page.get_by_role("button", name="A tour in five minutes").click()
    bar = page.get_by_role("complementary", name="Tour")
    expect(bar).to_contain_text("1 of 7")
    page.get_by_role("slider", name="Subject, from above").focus()
    page.keyboard.press("Enter")
    page.keyboard.press("Shift+ArrowRight")
    expect(bar).to_contain_text("2 of 7")
    page.keyboard.press("Escape")
    page.get_by_role("button", name=re.compile("^Try: ")).first.click()
    expect(bar).to_contain_text("3 of 7")
    page.keyboard.press("k")
    expect(bar).to_contain_text("4 of 7")
    page.keyboard.press("4")
    page.get_by_role("button", name="left panel on").click()
    expect(bar).to_contain_text("5 of 7")
    bar.get_by_role("button", name="Skip").click()
    page.keyboard.press("8")
    expect(bar).to_contain_text("7 of 7")
    bar.get_by_role("button", name="Done").click()
    expect(bar).to_have_count(0)


def test_the_focus_goes_into_opened_fields_and_back(watched: Watched) -> None:
    page = watched.open("/setup/2/light")
    name = page.get_by_role("button", name=re.compile(r"^\d right panel$"))
    name.press("Enter")
    fields = page.get_by_role("region", name=re.compile("Fields of .*right panel"))
    expect(fields.locator("input, select").first).to_be_focused()
    page.keyboard.press("Escape")
    expect(fields).to_have_count(0)
    expect(name).to_be_focused()
    handle = page.get_by_role("slider", name="right panel, from above", exact=True)
    handle.press("Enter")
    expect(handle).to_be_focused()
    page.keyboard.press("Tab")
    expect(fields.locator("input, select").first).to_be_focused()
    fields.get_by_role("button", name="Close the fields").press("Enter")
    expect(handle).to_be_focused()


@pytest.mark.torture
def test_fields_never_cover_what_they_edit(watched: Watched) -> None:
    page = watched.open("/setup/2")
    for name in ("Camera, from above", "right panel, from above", "Subject, from above"):
        handle = page.get_by_role("slider", name=name, exact=True)
        handle.press("Enter")
        for nearer in range(3):
            fields = page.get_by_role("region", name=re.compile("^Fields of ")).bounding_box()
            own = handle.locator(".hit").bounding_box()
            assert fields is not None
            assert own is not None
            at = own["x"] + own["width"] / 2
            assert not fields["x"] <= at <= fields["x"] + fields["width"], (name, nearer)
            page.get_by_role("button", name="Nearer").click()
        page.get_by_role("button", name="whole", exact=True).click()
        page.keyboard.press("Escape")


@pytest.mark.torture
def test_a_field_tells_what_its_word_means(watched: Watched) -> None:
    page = watched.open("/setup/2")
    page.get_by_role("navigation", name="Stations").get_by_role("button", name=re.compile("6 Camera")).click()
    field = page.get_by_role("textbox", name="White balance")
    field.focus()
    meaning = "Which colour of light the camera records as neutral"
    expect(page.get_by_role("region", name="Fields of Camera").get_by_text(meaning).last).to_be_visible()
    expect(field).to_have_accessible_description(re.compile(meaning))
    # The size of the sensor in a word, and what it does to the angle of view.
    page.get_by_role("combobox", name="Sensor", exact=True).select_option("a phone's")
    page.get_by_text("9.8 × 5.5 mm").click()
    expect(page.get_by_role("textbox", name="Sensor width")).to_have_value("9.8")


@pytest.mark.torture
def test_the_room_changes_later_in_the_words_it_was_asked_in(watched: Watched) -> None:
    page = watched.open("/setup/2/space")
    room = page.get_by_role("region", name="The room", exact=True)
    expect(room.get_by_role("textbox", name="Length, m")).to_have_value("9.80")
    room.get_by_role("button", name="Walls: draped").click()
    room.get_by_role("textbox", name="Height, m").fill("2.9")
    page.keyboard.press("Tab")
    for _ in range(60):
        plan = page.request.get(f"{watched.address}/api/setups/2").json()["plan"]
        if plan["room"]["height"] == 2.9:
            break
        page.wait_for_timeout(200)
    assert (plan["room"]["height"], plan["room"]["reflectance"]["walls"]) == (2.9, [0.03, 0.03, 0.03])
