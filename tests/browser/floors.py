"""Ways to put a session on today, to run it by phone, and to see what the server has of it."""

from __future__ import annotations

from typing import Any

from playwright.sync_api import Browser, BrowserContext, Locator, Page, expect

from tests.browser.screens import call
from tests.browser.squads import OwnSquad
from tests.serving import until

PHONE = {"width": 390, "height": 844}


def windows(
    seconds: float, rounds: int, *, movement: str = "air-squat", rest: float = 0, **more: Any
) -> dict[str, Any]:
    clock = {"kind": "intervals", "work_s": seconds, "rest_s": rest}
    return {"clock": clock, "rounds": rounds, "steps": [{"movement": movement}], **more}


def rounds_in(seconds: float, **more: Any) -> dict[str, Any]:
    return {
        "clock": {"kind": "amrap", "window_s": seconds},
        "steps": [{"movement": "push-up", "reps": 5}],
        "part": "finisher",
        **more,
    }


STATIONS = [
    {"name": name, "capacity": 4, "steps": [{"movement": movement}]}
    for name, movement in (("North", "swing"), ("South", "air-squat"), ("West", "push-up"))
]
INNER = {"kind": "intervals", "work_s": 60}
CIRCUIT: dict[str, Any] = {"title": "Circuit", "clock": {"kind": "rotation", "stations": STATIONS, "inner": INNER}}
"""A minute at each of three stations, four people at each."""


def kept_session(page: Page, *blocks: dict[str, Any], title: str = "Short one") -> str:
    """Keep a session of these blocks; its id."""
    squad = call(page, "GET", "/me")["squads"][0]["id"]
    document = {"fine_tally": 1, "title": title, "blocks": list(blocks)}
    return str(call(page, "POST", "/sessions", {"document": document, "squad": squad})["id"])


def entry_today(page: Page, session: str) -> str:
    """Put a session on today; the entry's id."""
    day = call(page, "GET", "/floor/today")["day"]
    return str(call(page, "POST", "/plan/entries", {"session": session, "day": day})["id"])


def on_today(page: Page, *blocks: dict[str, Any], title: str = "Short one") -> str:
    """Put a session of these blocks on today; the entry's id."""
    return entry_today(page, kept_session(page, *blocks, title=title))


def phone_of(browser: Browser, squad: OwnSquad, **how: Any) -> BrowserContext:
    return browser.new_context(
        **{
            "viewport": PHONE,
            "base_url": squad.server.url,
            "storage_state": squad.state(),
            "has_touch": True,
            **how,
        }
    )


def started(page: Page, entry: str) -> str:
    """Start an entry's run on this page; the run's id."""
    page.goto(f"/floor/start/{entry}")
    page.get_by_role("button", name="Start").tap()
    expect(page.locator(".time")).to_be_visible()
    return page.url.rpartition("/")[2]


def due(page: Page, name: str) -> None:
    """Tap what is due, once it is."""
    page.locator(".due").get_by_role("button", name=name, exact=True).tap()


def behind_more(page: Page, name: str) -> None:
    """Open what stands behind "More"."""
    open_more(page)
    page.get_by_role("button", name=name, exact=True).click()


def held(page: Page, name: str) -> None:
    """Hold what is behind "More" for as long as it takes."""
    open_more(page)
    hold(page.get_by_role("button", name=name, exact=True))


def hold(key: Locator) -> None:
    """Hold a key until it was held for long enough, however slow the machine is, and let it go."""
    key.dispatch_event("pointerdown")
    expect(key.page.locator(".holding")).to_have_count(0)
    # The key may have gone with what it did.
    let_go = "keys => keys.forEach((key) => key.dispatchEvent(new PointerEvent('pointerup', { bubbles: true })))"
    key.evaluate_all(let_go)


def open_more(page: Page) -> None:
    if page.get_by_role("region", name="More").count() == 0:
        page.get_by_role("button", name="More", exact=True).click()


def sent(page: Page, run: str, *wanted: str) -> list[dict[str, Any]]:
    """The events that the server has of a run, once those wanted are among them."""

    def events() -> list[dict[str, Any]]:
        have = [one["event"] for one in call(page, "GET", f"/floor/runs/{run}").get("events", [])]
        return sorted(have, key=lambda event: float(event["t"]))

    def came() -> bool:
        kinds = [one["do"] for one in events()]
        return all(kinds.count(do) >= wanted.count(do) for do in wanted)

    until(came, lambda: f"{wanted} among {[one['do'] for one in events()]}", page)
    return events()


def kept(page: Page) -> str:
    """The events that a phone keeps."""
    told: str = page.evaluate(
        """() => new Promise((done) => {
          const asked = indexedDB.open('floor')
          asked.onsuccess = () => {
            const all = asked.result.transaction('events').objectStore('events').getAll()
            all.onsuccess = () => done(JSON.stringify(all.result))
          }
        })"""
    )
    return told
