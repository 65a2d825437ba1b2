"""Takes the pictures in docs/screenshots anew, from the demo data: ./tally screenshots."""

from __future__ import annotations

import re
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from tests.browser import rooms
from tests.browser.conftest import FLAGS
from tests.browser.controls import choose
from tests.browser.squads import sign_in
from tests.conftest import REPOSITORY
from tests.serving import Server

INTO = REPOSITORY / "docs" / "screenshots"
DESK, PHONE, WALL_SCREEN = (1280, 800), (390, 844), (1920, 1080)


def sign_in_page(page: Page) -> None:
    page.context.clear_cookies()
    page.goto("/sign-in")
    page.get_by_label("Name").wait_for()


def first(page: Page) -> None:
    page.goto("/")
    page.get_by_role("region", name="Last sessions").get_by_role("listitem").first.wait_for()
    page.get_by_role("link", name="To the week").wait_for()


def sessions(page: Page) -> None:
    page.goto("/bench")
    page.locator("main :is(tbody tr, li)").first.wait_for()


def bench(page: Page, title: str = "Stretcher-carry readiness B") -> None:
    sessions(page)
    page.get_by_role("link", name=title, exact=True).click()
    page.locator("dl.big").wait_for()


def sessions_to_bench(page: Page) -> None:
    sessions(page)
    page.get_by_role("link", name="Stretcher-carry readiness B", exact=True).click()


def bench_opened(page: Page) -> None:
    bench(page)
    page.get_by_role("button", name="Density, main and finisher").click()
    page.locator(".why").get_by_role("button", name="work", exact=False).first.click()
    inner = page.locator(".why .why").first
    inner.wait_for()
    # Where the clicks left the tally depends on what had come by then.
    inner.evaluate("(opened) => opened.scrollIntoView({ block: 'center', behavior: 'instant' })")


def bench_board(page: Page) -> None:
    bench(page)
    page.get_by_role("tab", name="Board text").click()
    page.get_by_text("Warm-up", exact=False).first.wait_for()


WALL = """Thurs top field, 40 mins
warm up 3 rds: 10 hinges, 10 squats, 5 inchworms
2 min rest
A) 3x10 goblet squats 24/16
rest 90s
B) emom 12
12 pushups
10 gate vaults
15 kb swings 24kg
C) 21-15-9 burpees / step ups, cap 8 min
bring the dog lead!
cool: 20s each calf, hip flexor, chest stretch
"""


def bench_wall(page: Page) -> None:
    page.goto("/bench/new")
    page.get_by_role("button", name="Start from a text").click()
    page.get_by_role("textbox", name="Board text").fill(WALL)
    page.get_by_text("1 movement is new").wait_for()
    page.locator("dl.big").wait_for()
    page.get_by_role("button", name="Line 6: the lines take turns").click()


def bench_fit(page: Page) -> None:
    bench_fit_asked(page)
    page.locator(".fit li").first.wait_for()


def bench_fit_asked(page: Page) -> None:
    bench(page)
    page.get_by_role("button", name="Fit to time").click()
    page.get_by_label("Minutes there are").fill("32")


def board_empty(page: Page) -> None:
    page.goto("/bench/new")
    page.get_by_role("button", name="Start from a text").click()
    page.get_by_role("textbox", name="Board text").wait_for()


def card_asked(page: Page) -> None:
    sessions(page)
    page.get_by_role("link", name="Card of Stretcher-carry readiness B").click()


def card(page: Page) -> None:
    card_asked(page)
    page.get_by_text("Put out").wait_for()


def side_by_side(page: Page) -> None:
    bench(page)
    page.get_by_role("article", name="Block 3, ").get_by_role("button", name="other formats").click()
    page.locator(".page thead th .name").first.wait_for()
    for wish in (re.compile("most work", re.IGNORECASE), re.compile("short rests", re.IGNORECASE)):
        choose(page, "Add a wish", wish)
        page.wait_for_timeout(500)


def side_by_side_below(page: Page) -> None:
    side_by_side(page)
    page.get_by_role("button", name="Sweep").click()
    page.locator(".sweep table").wait_for()
    page.locator(".sweep").evaluate("one => one.scrollIntoView({ block: 'end' })")


def question(page: Page) -> None:
    page.goto("/side-by-side")
    page.get_by_label("These movements").fill("10 push-ups\ngoblet squat 16 kg\nbent row 12 kg each side\nburpees")
    page.get_by_role("button", name="Ask", exact=True).click()
    choose(page.get_by_role("region", name="Why not"), "Why not which format", "Movement pyramid")


def which_format(page: Page) -> None:
    page.goto("/side-by-side")
    page.get_by_role("button", name="main part in other formats").first.wait_for()


def week(page: Page) -> None:
    page.goto("/week")
    page.locator(".days article").first.wait_for()


def week_level(page: Page) -> None:
    week(page)
    page.get_by_role("button", name="Level the week").click()
    page.get_by_role("heading", name="Ways to level it").wait_for()


def season(page: Page) -> None:
    page.goto("/week/season")
    page.locator("tbody tr").first.wait_for()


def people(page: Page) -> None:
    page.goto("/people")
    page.get_by_role("link", name="Bram Tullivant").wait_for()


def person(page: Page) -> None:
    people(page)
    page.get_by_role("link", name="Bram Tullivant").click()
    page.get_by_role("region", name="Limits").get_by_role("listitem").first.wait_for()


def squad(page: Page) -> None:
    page.goto("/squad")
    page.get_by_role("button", name="Make the link").wait_for()


def floor(page: Page) -> None:
    page.goto("/today")
    page.get_by_label("What stands on the wall").fill(
        "Ridge rounds\n12 min amrap: 8 swings 16 kg, 10 push-ups, 12 squats\nrest 2 min\n3 rounds, 40 s on 20 s off: burpees, sit-ups"
    )
    page.get_by_role("button", name="Read it and run it").click()
    page.get_by_role("button", name="Start").click()
    page.locator(".time").wait_for()
    page.wait_for_timeout(3_000)
    page.get_by_role("button", name="Round done").click()
    page.wait_for_timeout(2_000)


def wall(page: Page) -> None:
    floor(page)
    opened = page.context.new_page()
    opened.goto("/wall")
    opened.locator(".signs").wait_for()
    code = opened.locator(".signs").inner_text()
    opened.close()
    page.goto("/today")
    page.get_by_label("Six signs").fill(code)
    page.get_by_role("button", name="Show our runs there").click()
    page.get_by_text("A screen shows our runs until").wait_for()
    page.goto("/wall")
    page.locator(".time").wait_for()


def log(page: Page) -> None:
    page.goto("/log")
    page.get_by_role("region", name=re.compile("^Week of")).first.wait_for()


def log_entry(page: Page) -> None:
    log(page)
    page.get_by_role("row").filter(has_text="to settle").get_by_role("link").click()
    page.get_by_role("region", name="Rounds against the clock").wait_for()


def person_log(page: Page) -> None:
    log_entry(page)
    page.get_by_role("link", name="Osk Brannock").click()
    page.get_by_role("button", name="The arithmetic").click()


def ratings(page: Page) -> None:
    log_entry(page)
    page.get_by_role("link", name="Ratings, one by one").click()
    page.get_by_role("button", name=re.compile("Osk Brannock")).wait_for()


def methods(page: Page) -> None:
    rooms.methods(page)
    page.goto("/methods#density")


def check_in(page: Page) -> None:
    rooms.check_in(page)
    page.locator("main").evaluate("one => one.scrollTo(0, 0)")


VIEWS: list[tuple[str, tuple[int, int], Callable[[Page], None]]] = [
    ("first", DESK, first),
    ("bench", DESK, bench),
    ("bench-opened", DESK, bench_opened),
    ("bench-wall", DESK, bench_wall),
    ("side-by-side", DESK, side_by_side),
    ("week", DESK, week),
    ("week-level", DESK, week_level),
    ("season", DESK, season),
    ("people", DESK, people),
    ("person", DESK, person),
    ("squad", DESK, squad),
    ("card", DESK, card),
    ("bench-phone", PHONE, bench_fit),
    ("floor", PHONE, floor),
    ("wall", WALL_SCREEN, wall),
    ("log", DESK, log_entry),
    ("movements", DESK, rooms.movements),
    ("methods", DESK, methods),
    ("check-in", PHONE, check_in),
]


def main() -> None:
    INTO.mkdir(parents=True, exist_ok=True)
    server = Server(Path(tempfile.mkdtemp()))
    server.start()
    try:
        with sync_playwright() as playwright:
            chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
            for name, (width, height), show in VIEWS:
                page = chromium.new_context(
                    viewport={"width": width, "height": height}, base_url=server.url
                ).new_page()
                sign_in(page, server.url)
                show(page)
                page.wait_for_timeout(600)
                page.screenshot(path=INTO / f"{name}.png")
                print(f"docs/screenshots/{name}.png")
                page.context.close()
            chromium.close()
    finally:
        server.stop()


if __name__ == "__main__":
    if sys.argv[1:2] == ["--states"]:
        from tests.browser import states

        states.main(sys.argv[2:])
    else:
        main()
