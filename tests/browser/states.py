"""Every state of every screen as contact sheets, to be looked at: ./tally screenshots --states, into var/states.

A sheet a screen and size: at rest, with each list, menu, picker and drawer open, empty, loading, refused.
"""

from __future__ import annotations

import json
import re
import tempfile
from collections.abc import Callable
from pathlib import Path

from PIL import Image
from playwright.sync_api import Browser, Page, Route, sync_playwright

from tests.browser import screenshots as views
from tests.browser.conftest import FLAGS
from tests.browser.controls import more
from tests.browser.floors import CIRCUIT, on_today, rounds_in
from tests.browser.floors import held as held_key
from tests.browser.squads import sign_in
from tests.conftest import REPOSITORY
from tests.serving import PASSWORD, Server

INTO = REPOSITORY / "var" / "states"
SIZES = {"desk": (1280, 800), "phone": (390, 844)}
ACROSS = {"desk": 3, "phone": 6}
SHRUNK = 0.62
Show = Callable[[Page], None]
REFUSED = {"type": "about:rights", "title": "", "status": 403, "detail": "Only coaches of the squad may do that.", "problems": []}  # fmt: skip


def held(pattern: str, then: Show) -> Show:
    """As it is while an answer is on its way: it never comes."""

    def show(page: Page) -> None:
        page.route(re.compile(pattern), lambda route: None)
        then(page)
        page.wait_for_timeout(400)

    return show


def refused(pattern: str, then: Show) -> Show:
    """As it is when the server says no."""

    def answer(route: Route) -> None:
        route.fulfill(status=403, content_type="application/json", body=json.dumps(REFUSED))

    def show(page: Page) -> None:
        page.route(re.compile(pattern), answer)
        then(page)
        page.get_by_role("alert").first.wait_for()

    return show


def given(pattern: str, body: object, then: Show) -> Show:
    """As it is with such an answer."""

    def show(page: Page) -> None:
        page.route(re.compile(pattern), lambda route: route.fulfill(json=body))
        then(page)
        page.wait_for_timeout(400)

    return show


def opened(then: Show, *names: str) -> Show:
    """With a list open: the field of that name."""

    def show(page: Page) -> None:
        then(page)
        for name in names:
            field = page.get_by_role("combobox", name=name, exact=True).first
            field.scroll_into_view_if_needed()
            field.locator("xpath=ancestor::*[contains(@class, 'el-select__wrapper')][1]").click()

    return show


def menu(then: Show) -> Show:
    def show(page: Page) -> None:
        then(page)
        page.locator("main header").get_by_role("button", name=re.compile("^More for this")).click()
        page.get_by_role("menuitem").first.wait_for()

    return show


def chose(then: Show, item: str) -> Show:
    def show(page: Page) -> None:
        then(page)
        more(page, item)

    return show


def goto(path: str) -> Show:
    def show(page: Page) -> None:
        page.goto(path)

    return show


def searched(page: Page) -> None:
    views.sessions(page)
    page.get_by_label("Search").fill("nothing is called so")
    page.get_by_text("No session is called").wait_for()


def put_away(page: Page) -> None:
    views.sessions(page)
    page.get_by_text("put away", exact=True).click()
    page.get_by_text("Nothing is put away").wait_for()


def day_picker(page: Page) -> None:
    chose(views.bench, "Put on a day")(page)
    page.keyboard.press("ArrowDown")


def format_row(page: Page) -> None:
    views.bench(page)
    page.get_by_title("Format and its numbers").nth(1).click()


def found(page: Page) -> None:
    page.goto("/bench/new")
    page.get_by_role("textbox", name="Format").fill("pairs")
    page.locator(".found-list [role=option]").first.wait_for()


def entry(page: Page) -> None:
    views.week(page)
    page.locator(".days article button").first.click()
    page.get_by_role("button", name="Who came").click()
    page.get_by_text("Osk Brannock").first.wait_for()


def adding(page: Page) -> None:
    views.week(page)
    page.get_by_role("button", name="add to").nth(3).click()


def time_picker(page: Page) -> None:
    adding(page)
    page.get_by_label("At", exact=True).click()


def rows(page: Page) -> None:
    views.side_by_side(page)
    page.get_by_role("button", name="Rows", exact=True).click()


def weight(page: Page) -> None:
    views.side_by_side(page)
    page.get_by_role("button", name=re.compile("how much it matters")).first.click()


def wrong_list(page: Page) -> None:
    views.people(page)
    page.get_by_role("button", name="A list").click()
    page.get_by_label("The list").fill("name,group\n,North\n" + "x" * 130 + "\nAda Merribeck, " + "y" * 41)
    page.get_by_role("button", name="See what it brings").click()
    page.get_by_role("alert").wait_for()


def young(page: Page) -> None:
    views.person(page)
    page.get_by_text("is under age").click()
    page.get_by_label("Who agreed").wait_for()


def erasing(page: Page) -> None:
    views.person(page)
    page.get_by_role("button", name="See where the name stands").click()
    page.get_by_label("Your password").fill(PASSWORD)
    page.get_by_role("button", name="Erase").click()


def link(page: Page) -> None:
    views.squad(page)
    page.get_by_role("button", name="Make the link").click()
    page.get_by_role("img", name="The link as a QR code").wait_for()


NAMES = (
    "Wim",
    "Bea",
    "Cato",
    "Dagny",
    "Emil",
    "Freya",
    "Gus",
    "Ilse",
    "Joss",
    "Kaja",
    "Maximiliana-Theodora",
    "Oona",
)
SIXTY = [
    {
        "id": f"00000000-0000-4000-8000-{n:012}", "name": f"{NAMES[n % 12]} {'Hallowmere-Strathvane'[: 4 + n % 18]}",
        "short_name": NAMES[n % 12], "groups": [{"id": k, "name": f"Group {k}", "mark": mark} for k, mark in enumerate(
            ("ring", "bar", "peak", "cross", "step", "wave", "frame", "star")) if (n >> (k % 6)) % 3 == k % 3],
        "account": f"account-{n}" if n % 4 == 0 else None, "under_age": n % 7 == 0,
        "away": "2027-01-07" if n % 5 == 0 else None, "limited": n % 6 == 0,
    }
    for n in range(60)
]  # fmt: skip


def floor_with(key: str) -> Show:
    """A run, with a key of it pressed."""

    def show(page: Page) -> None:
        views.floor(page)
        page.get_by_role("button", name=key, exact=True).click()
        page.wait_for_timeout(300)

    return show


def panel(name: str) -> Show:
    """A run, with what stands behind "More" opened."""

    def show(page: Page) -> None:
        floor_with("More")(page)
        page.get_by_role("button", name=name, exact=True).click()
        page.wait_for_timeout(600)

    return show


LONG_NAME = "Rounds at the stations by the old quarry wall, with a name that goes over the line"


def before(page: Page) -> None:
    page.goto(f"/floor/start/{on_today(page, CIRCUIT, rounds_in(480), title=LONG_NAME)}")
    page.get_by_text("more people than fit").wait_for()


def stations(page: Page) -> None:
    before(page)
    page.get_by_text("A station twice").click()
    page.get_by_role("button", name="Start").click()
    page.locator(".station h2 small").first.wait_for()


def waiting(page: Page) -> None:
    stations(page)
    held_key(page, "Skip this block")
    page.get_by_role("button", name="Less", exact=True).click()


def outdoors(page: Page) -> None:
    page.evaluate("localStorage.setItem('floor-outdoors', 'true')")
    waiting(page)


def no_sound(page: Page) -> None:
    page.evaluate("localStorage.setItem('floor-calls', JSON.stringify({ tones: false, voice: false }))")
    waiting(page)
    page.locator(".due button").first.click()


def score_sheet(page: Page) -> None:
    page.goto(f"/floor/scores/{on_today(page, rounds_in(480), rounds_in(240), title=LONG_NAME)}")
    page.get_by_role("button", name="Print it").wait_for()


SCREENS: dict[str, dict[str, Show]] = {
    "sessions": {
        "rest": views.sessions, "list": opened(views.sessions, "Tag"), "none": searched, "empty": put_away,
        "loading": held(r"/api/sessions\?", goto("/bench")), "refused": refused(r"/api/sessions\?", goto("/bench")),
    },
    "bench": {
        "rest": views.bench, "menu": menu(views.bench), "versions": chose(views.bench, "Versions"),
        "keys": chose(views.bench, "Keys"), "day": day_picker, "format": opened(format_row, "format"),
        "opened": views.bench_opened, "fit": views.bench_fit, "found": found, "whom": opened(views.bench, "As whom"),
        "loading": held(r"/api/sessions/[0-9a-f-]+$", views.sessions_to_bench),
        "refused": refused(r"/api/fit", views.bench_fit_asked),
    },
    "board": {"rest": views.bench_board, "wall": views.bench_wall, "empty": views.board_empty},
    "card": {
        "rest": views.card, "paper": opened(views.card, "paper"),
        "loading": held(r"/api/card$", views.card_asked), "refused": refused(r"/api/card$", views.card_asked),
    },
    "question": {
        "rest": views.question, "start": views.which_format, "why": opened(views.question, "Why not which format"),
        "loading": held(r"/api/sessions\?", goto("/side-by-side")),
    },
    "side-by-side": {
        "rest": views.side_by_side, "rows": rows, "weight": weight, "below": views.side_by_side_below,
        "add": opened(views.side_by_side, "Add a format"), "menu": menu(views.side_by_side),
        "loading": held(r"/api/compare$", goto("/side-by-side?movements=push-up,swing")),
        "refused": refused(r"/api/compare$", goto("/side-by-side?movements=push-up,swing")),
    },
    "week": {
        "rest": views.week, "menu": menu(views.week), "entry": entry, "on": opened(entry, "on"), "adding": adding,
        "time": time_picker, "level": views.week_level, "targets": chose(views.week, "Targets"),
        "phase": chose(views.week, "Phase and times away"), "export": chose(views.week, "Export"),
        "loading": held(r"/api/plan/week\?", goto("/week")), "refused": refused(r"/api/plan/week\?", goto("/week")),
    },
    "season": {
        "rest": views.season, "weeks": opened(views.season, "How many weeks"),
        "loading": held(r"/api/plan/season", goto("/week/season")),
        "refused": refused(r"/api/plan/season", goto("/week/season")),
    },
    "people": {
        "rest": views.people, "sixty": given(r"/api/people\?", SIXTY, goto("/people")),
        "empty": given(r"/api/people\?", [], goto("/people")), "wrong list": wrong_list,
        "loading": held(r"/api/people\?", goto("/people")), "refused": refused(r"/api/people\?", goto("/people")),
    },
    "person": {
        "rest": views.person, "young": young, "erasing": erasing,
        "nobody": goto("/people/00000000-0000-4000-8000-000000000000"),
    },
    "squad": {
        "rest": views.squad, "link": link, "loading": held(r"/settings$", goto("/squad")),
        "refused": refused(r"/settings$", goto("/squad")),
    },
    "account": {
        "rest": goto("/account"), "privacy": goto("/privacy"), "no invitation": goto("/join"),
        "old invitation": goto("/join#no-such-token"), "old reset": goto("/reset#no-such-token"),
    },
    "floor": {
        **{name: panel(name) for name in ("Scores", "Note", "People", "Minutes left", "Change the plan", "Calls")},
        "before": before, "stations": stations, "waiting": waiting, "outdoors": outdoors, "no sound": no_sound,
        "score sheet": score_sheet, "today": goto("/today"), "no network": refused(r"/api/floor/today", goto("/today")), "rest": views.floor,
        "more": floor_with("More"), "hurt": floor_with("Someone is hurt"), "held": floor_with("Hold"),
        "loading": held(r"/api/floor/runs", goto("/floor/00000000-0000-4000-8000-000000000000")),
        "nothing": goto("/floor/00000000-0000-4000-8000-000000000000"),
    },
    "wall": {"code": goto("/wall"), "rest": views.wall},
    "sign-in": {"rest": views.sign_in_page, "nowhere": goto("/no/such/page")},
}  # fmt: skip


def shot(chromium: Browser, server: Server, state: object, size: str, show: Show) -> Image.Image | None:
    width, height = SIZES[size]
    phone = size == "phone"
    context = chromium.new_context(
        viewport={"width": width, "height": height}, base_url=server.url, storage_state=state,  # type: ignore[arg-type]
        has_touch=phone, is_mobile=phone,
    )  # fmt: skip
    page = context.new_page()
    page.set_default_timeout(8_000)
    try:
        show(page)
        page.wait_for_timeout(500)
        taken = Path(tempfile.mkstemp(suffix=".png")[1])
        page.screenshot(path=taken)
        with Image.open(taken) as picture:
            return picture.resize((round(width * SHRUNK), round(height * SHRUNK)))
    finally:
        context.close()


def sheet(pictures: list[Image.Image], across: int) -> Image.Image:
    width, height = pictures[0].size
    down = -(-len(pictures) // across)
    made = Image.new("RGB", ((width + 6) * min(across, len(pictures)), (height + 6) * down), "#888")
    for number, picture in enumerate(pictures):
        made.paste(picture, ((number % across) * (width + 6), (number // across) * (height + 6)))
    return made


def main(wanted: list[str]) -> None:
    INTO.mkdir(parents=True, exist_ok=True)
    server = Server(Path(tempfile.mkdtemp()))
    server.start()
    try:
        with sync_playwright() as playwright:
            chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
            context = chromium.new_context(base_url=server.url)
            sign_in(context.new_page(), server.url)
            state = context.storage_state()
            for screen in wanted or list(SCREENS):
                for size in SIZES:
                    pictures = []
                    for name, show in SCREENS[screen].items():
                        try:
                            pictures.append(shot(chromium, server, state, size, show))
                        except Exception as error:  # the other states are still worth a look
                            print(f"{screen}, {name}, {size}: {str(error).splitlines()[0]}")
                    there = [one for one in pictures if one]
                    if there:
                        sheet(there, ACROSS[size]).save(INTO / f"{screen}-{size}.png")
                        print(f"var/states/{screen}-{size}.png: {', '.join(SCREENS[screen])}")
            chromium.close()
    finally:
        server.stop()
