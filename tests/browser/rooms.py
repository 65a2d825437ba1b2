"""Ways to the rooms of movements, methods and check-ins, as they are used."""

from __future__ import annotations

from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.floors import on_today, rounds_in, windows
from tests.browser.screens import call

STRANGE: dict[str, Any] = {
    "clock": {"kind": "task"},
    "rounds": 3,
    "steps": [{"movement": "gate-run", "reps": 4}, {"movement": "sled-shove", "reps": 4}],
}
"""Movements that nobody knows."""


def squad_of(page: Page) -> int:
    return int(call(page, "GET", "/me")["squads"][0]["id"])


def movements(page: Page) -> None:
    page.goto("/movements?one=push-up")
    expect(page.get_by_role("group", name="Easier and harder").get_by_role("button").first).to_be_visible()


def movement_changed(page: Page) -> None:
    movements(page)
    page.get_by_role("button", name="Change it").press("Enter")
    form = page.get_by_role("form", name="Change push-up")
    form.get_by_role("spinbutton", name="Seconds a rep").fill("2.6")
    page.keyboard.press("Tab")
    form.get_by_role("button", name="See what it changes").press("Enter")
    expect(form.get_by_role("button", name="Keep it")).to_be_visible()


def unknown_names(page: Page) -> None:
    document = {"fine_tally": 1, "title": "Gates", "blocks": [STRANGE]}
    call(page, "POST", "/sessions", {"document": document, "squad": squad_of(page)})
    page.goto("/movements")
    page.get_by_role("button", name="Names to settle: 2").press("Enter")
    expect(page.get_by_role("region", name="Names to settle").get_by_role("listitem")).to_have_count(2)


def movement_files(page: Page) -> None:
    page.goto("/movements")
    page.get_by_role("button", name="Files").press("Enter")
    page.get_by_role("textbox", name="or paste it here").fill(
        "key,name,patterns,pace_s\ngate-vault,gate vault,jump 1,4"
    )
    page.get_by_role("button", name="See what it brings").press("Enter")
    expect(page.get_by_role("button", name="Take 1 in")).to_be_visible()


def methods(page: Page) -> None:
    page.goto("/methods")
    expect(
        page.get_by_role("region", name="Work of a self-paced window").get_by_role("definition").first
    ).to_be_visible()


def asks_for_health(page: Page) -> None:
    """Have check-ins ask for pain and freshness."""
    path = f"/squads/{squad_of(page)}/settings"
    seen = call(page, "GET", path)["version"]
    why = "So that nobody carries on in pain."
    call(page, "PATCH", path, {"version": seen, "asks_health": True, "asks_freshness": True, "health_why": why})


def own_link(page: Page, name: str = "Bram Tullivant") -> str:
    """The address of a link that a coach makes for somebody, as the API tells it."""
    person = next(one["id"] for one in call(page, "GET", "/people") if one["name"] == name)
    return str(call(page, "POST", f"/people/{person}/checkin")["address"])


def check_in(page: Page) -> None:
    """Somebody's own page: a session with options and a window, health asked for."""
    asks_for_health(page)
    options = [{"label": "knees", "level": "easier", "movement": "knee-push-up"}]
    window = rounds_in(360, title="Window", id="w")
    window["steps"][0].update({"id": "p", "options": options})
    on_today(page, window, windows(30, 4, rest=15, title="Squats"), title="Evening on the ridge")
    address = own_link(page)
    page.context.clear_cookies()
    page.goto(address)
    session = page.get_by_role("article", name="Evening on the ridge")
    session.get_by_role("button", name="I am here").click()
    session.get_by_role("button", name="Tell your coaches").click()
    expect(page.get_by_text("All you said is sent.")).to_be_visible()


def check_in_link(page: Page) -> None:
    person = next(one["id"] for one in call(page, "GET", "/people") if one["name"] == "Bram Tullivant")
    page.goto(f"/people/{person}")
    panel = page.get_by_role("region", name="Check-in link")
    panel.get_by_role("button", name="Make a link").click()
    expect(panel.get_by_role("img", name="The link as a QR code")).to_be_visible()


def help_open(page: Page) -> None:
    page.goto("/week")
    page.locator(".days article").first.wait_for()
    page.get_by_role("button", name="Help on this screen").press("Enter")
    expect(page.get_by_role("dialog", name="What this screen is for")).to_be_visible()


def first_steps(page: Page) -> None:
    page.goto("/")
    page.get_by_role("button", name="New here? Take the first steps").press("Enter")
    expect(page.get_by_role("complementary", name="First steps")).to_be_visible()
