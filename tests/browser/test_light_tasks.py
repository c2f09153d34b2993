"""Light and spill, as somebody works on them: even a screen, cure a spill, clear a pane, choose a distance."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser.conftest import Watched
from tests.browser.hands import drag
from tests.core.light.test_emission import COSINE, V, ies

SLOW = 60_000


def open_station(watched: Watched, title: str, station: str) -> Page:
    page = watched.open("/")
    page.get_by_role("link", name=title).click()
    page.get_by_role("navigation", name="Stations").get_by_role("button", name=station).click()
    return page


def pictured(page: Page) -> Locator:
    """The planned set as the camera sees it, once it is drawn."""
    page.get_by_role("button", name="As the camera sees it").click()
    picture = page.get_by_alt_text("The planned set as the camera sees it")
    expect(picture).to_be_visible(timeout=SLOW)
    return picture


@pytest.mark.torture
def test_a_screen_is_evened_tried_and_kept(watched: Watched) -> None:
    page = open_station(watched, "Seed vault, night round", "Screen light")
    panel = page.get_by_role("region", name="Even the screen")
    panel.get_by_role("checkbox", name="places").check()
    panel.get_by_role("button", name="Even the screen").click()
    expect(panel.get_by_text("Spread 1.29")).to_be_visible(timeout=SLOW)
    expect(panel.get_by_role("listitem").first).to_contain_text("left panel")
    trial = page.get_by_role("region", name="A remedy being tried")
    expect(trial).to_contain_text("1.29 stops")
    page.get_by_role("button", name="now", exact=True).click()
    trial.get_by_role("button", name="Keep").click()
    findings = page.get_by_role("region", name="Findings and numbers")
    expect(findings.get_by_text("The needed screen varies by 1.29 stops")).to_have_count(0, timeout=SLOW)


MAP = """region => {
    const canvas = region.querySelector('canvas'), { width: w, height: h } = canvas;
    const { data } = canvas.getContext('2d').getImageData(0, 0, w, h);
    const at = (x, y) => [...data.slice(4 * (Math.round(y * h) * w + Math.round(x * w))).slice(0, 4)];
    return { wall: at(0.25, 0.2), darker: at(0.5, 0.78), beside: at(0.03, 0.5) };
}"""


def test_the_frame_shows_where_the_screen_is_above_the_wanted_level_and_below(watched: Watched) -> None:
    page = open_station(watched, "Scree, noon", "Screen light")
    frame = page.get_by_role("region", name="Frame", exact=True)
    expect(frame.get_by_role("img", name="What the camera sees: screen 63 % luma, spread 0.88 stops")).to_be_visible()
    found = frame.evaluate(MAP)
    (red, _, blue, cover), (low_red, _, low_blue, low_cover) = found["wall"], found["darker"]
    # Amber above, violet below; what is no screen stays free.
    assert cover == low_cover == 255
    assert red > blue
    assert low_blue > low_red
    assert found["beside"] == [0, 0, 0, 0]


@pytest.mark.torture
def test_one_lamp_alone_and_off(watched: Watched) -> None:
    page = open_station(watched, "Scree, noon", "Screen light")
    page.get_by_role("button", name="left panel alone").click()
    expect(page.get_by_role("region", name="A remedy being tried")).to_contain_text("Only left panel", timeout=SLOW)
    page.get_by_role("button", name="left panel alone").click()
    expect(page.get_by_role("region", name="A remedy being tried")).to_have_count(0)
    page.get_by_role("button", name="left panel on").click()
    expect(page.get_by_role("button", name="left panel on")).to_have_text("off")
    page.get_by_role("button", name="4 sky fill").click()
    page.get_by_role("button", name="Remove lamp").click()
    expect(page.get_by_role("button", name="4 sky fill")).to_have_count(0)


@pytest.mark.torture
def test_the_frame_shows_the_set_as_it_is_lit(watched: Watched) -> None:
    """The drawn picture takes the place of the levels; what is changed draws it anew."""
    page = open_station(watched, "Scree, noon", "Screen light")
    picture = pictured(page)
    before = picture.get_attribute("src")
    page.get_by_role("button", name="left panel on").click()
    expect(page.get_by_role("button", name="left panel on")).to_have_text("off")
    expect(picture).not_to_have_attribute("src", before or "", timeout=SLOW)
    expect(page.get_by_text("Drawn from the plan, without noise")).to_be_visible(timeout=SLOW)
    page.get_by_role("button", name="Levels", exact=True).click()
    expect(picture).to_have_count(0)


@pytest.mark.torture
def test_a_dragged_camera_is_drawn_before_what_costs_more_is_asked_for(watched: Watched) -> None:
    page = open_station(watched, "Seed vault, night round", "Camera")
    pictured(page)
    expect(page.get_by_text("Recorders of the kit")).to_be_visible(timeout=SLOW)
    page.wait_for_timeout(3_000)
    told: list[str] = []
    page.on("request", lambda request: told.append(request.url.rsplit("/", 1)[-1]))
    page.on("requestfinished", lambda request: told.append(f"{request.url.rsplit('/', 1)[-1]} is here"))
    with page.expect_request("**/api/ledger", timeout=SLOW):
        drag(page, "Camera, from above", 12, 6)
    last = max(i for i, one in enumerate(told) if one == "picture")
    assert last < told.index("picture is here", last) < told.index("ledger"), told
    # Which recorders there are does not hang on where the camera stands.
    assert "recorders" not in told


@pytest.mark.torture
def test_black_cloth_against_white_walls(watched: Watched) -> None:
    """The damage comes first, what sends the colour beneath it, and the cloth is what helps the whole plan most."""
    page = watched.open(f"/setup/{watched.white_walls('White coat')}/subject")
    findings = page.get_by_role("region", name="Findings and numbers")
    expect(findings.get_by_role("button", name="The moving hand loses")).to_contain_text(
        "screen colour", timeout=SLOW
    )
    finding = findings.get_by_role("button", name="Screen colour on the face")
    expect(finding).to_contain_text("from")
    expect(finding).to_contain_text("right wall 1.2")
    finding.click()
    findings.get_by_role("button", name="Try: Black cloth on the right").first.click(timeout=SLOW)
    trial = page.get_by_role("region", name="A remedy being tried")
    trial.get_by_role("button", name="Keep").click()
    expect(page.get_by_role("slider", name="Cloth f1, from above")).to_be_visible(timeout=SLOW)
    # It can be taken hold of, made larger, and taken away again.
    page.get_by_role("slider", name="Cloth f1, from above").click()
    page.get_by_role("textbox", name="High").fill("3")
    page.get_by_role("textbox", name="High").press("Enter")
    page.get_by_role("button", name="Remove it").click()
    expect(page.get_by_role("slider", name="Cloth f1, from above")).to_have_count(0)


@pytest.mark.torture
def test_a_place_of_the_figure_says_who_sends_the_green(watched: Watched) -> None:
    page = open_station(watched, "Scree, noon", "Subject")
    spill = page.get_by_role("region", name="Spill")
    spill.get_by_role("button", name="chin").click(timeout=SLOW)
    expect(spill.get_by_text("chin: who sends it")).to_be_visible()
    expect(spill.get_by_role("listitem").filter(has_text="points").first).to_contain_text("floor run")


@pytest.mark.torture
def test_a_distance_is_chosen_on_the_curve(watched: Watched) -> None:
    page = open_station(watched, "Portraits of the gardeners", "Subject")
    page.get_by_role("button", name="Shadow and spill by distance").click()
    slider = page.get_by_role("slider", name="Mark on the curve of shadow and spill")
    expect(slider).to_be_visible(timeout=SLOW)
    slider.press("ArrowRight")
    trial = page.get_by_role("region", name="A remedy being tried")
    expect(trial).to_contain_text("Mark 1.20 m from the screen", timeout=SLOW)
    page.get_by_role("button", name="Try 2 m and more").click()
    expect(trial).to_contain_text("Mark 2.30 m from the screen", timeout=SLOW)
    trial.get_by_role("button", name="Keep").click()
    expect(page.get_by_role("navigation", name="Stations").get_by_role("button", name="Space")).to_contain_text(
        "2.30 m"
    )


@pytest.mark.torture
def test_a_photometry_file_and_a_soft_box_on_a_lamp(watched: Watched, tmp_path: Path) -> None:
    page = open_station(watched, "Seed vault, night round", "Screen light")
    page.get_by_role("slider", name="right panel, from above").click()
    fields = page.get_by_role("region", name="Fields of 2 right panel")
    good, bad = tmp_path / "lamp.ies", tmp_path / "notes.ies"
    good.write_text(ies(V, [0], [COSINE]))
    bad.write_text("no photometry at all")
    fields.get_by_label("Photometry file").set_input_files(bad)
    expect(fields.get_by_role("alert")).to_contain_text("TILT")
    fields.get_by_label("Photometry file").set_input_files(good)
    expect(fields.get_by_role("img", name="Polar curve of lamp.ies: 1000 cd")).to_be_visible()
    fields.get_by_label("Before it").select_option("softbox")
    expect(fields.get_by_role("textbox", name="Lets through")).to_have_value("0.55")
    assert [m for m in watched.wrong if "422" not in m] == []
    watched.wrong.clear()


@pytest.mark.torture
def test_two_set_ups_side_by_side(watched: Watched) -> None:
    page = watched.open("/compare/1/4")
    expect(page.get_by_role("region", name="Left").get_by_role("listitem").first).to_contain_text(
        "Screen at 75 % luma", timeout=SLOW
    )
    page.get_by_role("combobox", name="Set-up on the right").select_option(label="Scree, noon")
    expect(page.get_by_role("region", name="Right")).to_contain_text("0.50 m of screen is missing", timeout=SLOW)
    expect(page.get_by_role("row", name="Screen to spare")).to_contain_text("−0.50 m")


def test_a_test_key_before_anybody_arrives(watched: Watched) -> None:
    page = open_station(watched, "Seed vault, night round", "Test key")
    page.get_by_role("button", name="Make a test key").click()
    expect(page.get_by_role("img", name="whole frame, as recorded")).to_be_visible(timeout=SLOW)
    page.get_by_role("button", name="matte", exact=True).click(timeout=SLOW)
    expect(page.get_by_role("img", name="whole frame, matte")).to_be_visible()
    quality = page.get_by_role("region", name="Quality and levers")
    expect(quality.get_by_role("row", name="Moving hand")).to_be_visible(timeout=2 * SLOW)
    quality.get_by_role("button", name="Cancel").click()
    expect(quality.get_by_text("Cancelled; what was ready is shown.")).to_be_visible(timeout=SLOW)
    page.get_by_role("button", name="hair, 1:1").click()
    expect(page.get_by_role("img", name="hair, 1:1, matte")).to_be_visible()
    assert watched.axe() == []


@pytest.mark.torture
def test_the_ledger_finds_a_way_and_keeps_what_is_locked(watched: Watched) -> None:
    page = open_station(watched, "Seed vault, night round", "Camera")
    camera = page.get_by_role("region", name="Camera", exact=True)
    expect(camera.get_by_role("row", name="Over what is wanted")).to_contain_text("face +0.4 stops", timeout=SLOW)
    expect(camera.get_by_role("button", name="Try: Base ISO, aperture for the light")).to_be_visible()
    camera.get_by_role("checkbox", name="Lock Aperture").check()
    expect(camera.get_by_role("button", name="Try: Base ISO, aperture for the light")).to_have_count(0, timeout=SLOW)
    camera.get_by_role("button", name="Try: Dimmers alone").click()
    page.get_by_role("region", name="A remedy being tried").get_by_role("button", name="Keep").click()
    expect(camera.get_by_role("row", name="Over what is wanted")).to_contain_text("face 0.0 stops", timeout=SLOW)


@pytest.mark.torture
def test_a_grid_goes_on_a_soft_box_and_a_window_into_the_wall(watched: Watched) -> None:
    setup = watched.small_setup("Modifiers in order")
    page = watched.open(f"/setup/{setup}/light")
    page.get_by_role("slider", name="lamp, from above").first.click()
    page.get_by_role("combobox", name="Before it").select_option("soft box")
    page.get_by_role("combobox", name="Then").select_option("grid")

    def lights() -> list[dict[str, Any]]:
        return list(watched.page.request.get(f"{watched.address}/api/setups/{setup}").json()["plan"]["lights"])

    def until(holds: Callable[[], bool]) -> None:
        for _ in range(100):
            if holds():
                return
            page.wait_for_timeout(100)
        raise AssertionError(lights())

    until(lambda: [one["kind"] for lamp in lights() for one in lamp["beyond"]] == ["grid"])
    # What is taken away lets the next one move up.
    page.get_by_role("combobox", name="Before it").select_option("nothing")
    until(lambda: [lamp["modifier"]["kind"] for lamp in lights()].count("grid") == 1)
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Add a lamp").click()
    page.get_by_role("button", name="Add a window").click()
    until(lambda: lights()[-1]["fixture"]["luminance"] == 3000)
    expect(page.get_by_role("textbox", name="Sky luminance")).to_be_visible()
    expect(page.get_by_role("slider", name="window, from above", exact=True)).to_be_visible()
