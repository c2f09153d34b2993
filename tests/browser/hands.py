"""What hands do on the page, whatever the task."""

from __future__ import annotations

from playwright.sync_api import Page, expect


def handle(page: Page, name: str) -> tuple[float, float]:
    box = page.get_by_role("slider", name=name).locator(".hit").bounding_box()
    assert box is not None
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def drag(page: Page, name: str, dx: float, dy: float) -> None:
    x, y = handle(page, name)
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + dx / 2, y + dy / 2, steps=4)
    page.mouse.move(x + dx, y + dy, steps=4)
    page.mouse.up()


def saved(page: Page) -> None:
    expect(page.get_by_role("banner").get_by_role("status")).to_have_text("Saved")
