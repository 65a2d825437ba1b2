"""A person's own link on their phone: two devices, without a network, what it keeps, and how it ends."""

from __future__ import annotations

import json
import re
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect

from tests.browser.floors import PHONE, on_today, rounds_in
from tests.browser.rooms import asks_for_health
from tests.browser.screens import call
from tests.browser.squads import OwnSquad
from tests.browser.test_log import person_called
from tests.serving import until

pytestmark = pytest.mark.browser
NAME = "Bram Tullivant"
KEPT = """() => new Promise((done) => {
  const asked = indexedDB.open('own-link')
  asked.onsuccess = () => {
    const db = asked.result
    const names = [...db.objectStoreNames]
    if (!names.length) return done('[]')
    const tx = db.transaction(names)
    Promise.all(names.map((name) => new Promise((got) => {
      const all = tx.objectStore(name).getAll()
      all.onsuccess = () => got(all.result)
    }))).then((found) => { db.close(); done(JSON.stringify(found)) })
  }
})"""
"""All that the phone's own database holds of the link, as text."""


def own_phone(browser: Browser, squad: OwnSquad, link: str, **how: Any) -> tuple[BrowserContext, Page]:
    """A phone of nobody's account that opens a link."""
    context = browser.new_context(viewport=PHONE, has_touch=True, base_url=squad.server.url, **how)
    page = context.new_page()
    page.goto(link)
    return context, page


def made_link(page: Page, person: str) -> str:
    """The address of a link that a coach makes on somebody's page."""
    page.goto(f"/people/{person}")
    panel = page.get_by_role("region", name="Check-in link")
    panel.get_by_role("button", name="Make a link").click()
    expect(panel.get_by_role("img", name="QR code")).to_be_visible()
    return panel.locator(".address").inner_text()


def test_a_check_in_without_a_network_is_sent_later(page: Page, browser: Browser, squad: OwnSquad) -> None:
    asks_for_health(page)
    person = person_called(page, NAME)
    entry = on_today(page, rounds_in(360, title="Window", id="w"), title="Evening window")
    link = made_link(page, person)
    first, phone = own_phone(browser, squad, link, service_workers="allow")
    expect(phone.get_by_role("heading", name="Evening window")).to_be_visible()
    assert "#" not in phone.url, "the address is cleared"
    phone.evaluate("navigator.serviceWorker.ready")
    phone.reload()
    session = phone.get_by_role("article", name="Evening window")
    expect(session.get_by_text("yours should be about")).to_be_visible()

    first.set_offline(True)
    session.get_by_role("button", name="I am here").tap()
    session.get_by_role("textbox", name="Score in Window").fill("14+2")
    session.get_by_role("textbox", name="Score in Window").press("Enter")
    session.get_by_role("button", name="7 very hard").tap()
    session.get_by_role("button", name="Tell your coaches").tap()
    session.get_by_role("textbox", name="Where").fill("left calf")
    session.get_by_role("button", name="Send it").tap()
    phone.get_by_role("button", name="2 tired").tap()
    expect(phone.get_by_text("5 of what you said waits on this phone")).to_be_visible()
    assert "left calf" in phone.evaluate(KEPT), "until it is sent it is not lost"
    phone.reload()
    expect(phone.get_by_text("5 of what you said waits on this phone")).to_be_visible()
    expect(session.get_by_role("button", name="I am here")).to_have_attribute("aria-pressed", "true")
    expect(session.get_by_text("You said: 7, very hard.")).to_be_visible()
    assert call(page, "GET", f"/log/entries/{entry}")["notes"] == []

    first.set_offline(False)
    expect(phone.get_by_text("waits on this phone")).to_have_count(0)
    told = call(page, "GET", f"/log/entries/{entry}")
    row = next(one for one in told["people"] if one["person"] == person)
    assert (row["came"], row["rated"], row["way"], row["fresh"]) == (True, 7, "own", 2)
    assert [(one["kind"], one["place"]) for one in told["notes"]] == [("pain", "left calf")]
    assert [one["score"]["rounds"] for one in told["results"]] == [14]
    # Health went in and comes not out: neither on the page nor on the phone.
    expect(phone.get_by_text("Sent to your coaches.").first).to_be_visible()
    assert "left calf" not in phone.content() + phone.evaluate(KEPT)
    page.goto(f"/floor/start/{entry}")
    expect(page.get_by_text("said they are here, fresh 2 of 5")).to_be_visible()
    first.close()


def test_what_waits_on_a_shared_phone_belongs_to_its_own_link(
    page: Page, browser: Browser, squad: OwnSquad
) -> None:
    """Ben's phone has no network; Cato opens the own link on it. Nobody's word is booked under the other."""
    ben, cato = person_called(page, NAME), person_called(page, "Saoirse Mapleby")
    entry = on_today(page, rounds_in(360, title="Window", id="w"), title="Evening window")
    of_ben, of_cato = made_link(page, ben), made_link(page, cato)
    context, phone = own_phone(browser, squad, of_ben)
    session = phone.get_by_role("article", name="Evening window")
    expect(session).to_be_visible()
    context.route("**/api/checkin/say", lambda route: route.abort())
    session.get_by_role("button", name="I am here").tap()
    expect(phone.get_by_text("1 of what you said waits on this phone")).to_be_visible()

    def came() -> dict[str, Any]:
        sheet = call(page, "GET", f"/floor/entries/{entry}/sheet")
        return {one["person"]: one["said"] for one in sheet["people"] if one["person"] in (ben, cato)}

    context.unroute("**/api/checkin/say")
    phone.goto("about:blank")
    phone.goto(of_cato)
    expect(phone.get_by_text("Saoirse Mapleby · ")).to_be_visible()
    waits = phone.get_by_role("region", name="Waiting on this phone for others")
    expect(waits).to_contain_text(f"{NAME}: 1 not sent yet")
    expect(session.get_by_role("button", name="I am here")).to_have_attribute("aria-pressed", "false")
    assert came() == {ben: "", cato: ""}
    session.get_by_role("button", name="I cannot come").tap()
    until(lambda: came() == {ben: "", cato: "away"}, came, phone)
    phone.goto("about:blank")
    phone.goto(of_ben)
    expect(session.get_by_role("button", name="I am here")).to_have_attribute("aria-pressed", "true")
    expect(waits).to_have_count(0)
    until(lambda: came() == {ben: "here", cato: "away"}, came, phone)
    context.close()


def test_two_phones_no_third_and_gone_when_the_coach_ends_it(page: Page, browser: Browser, squad: OwnSquad) -> None:
    person = person_called(page, NAME)
    on_today(page, rounds_in(360, title="Window", id="w"), title="Evening window")
    link = made_link(page, person)
    phones = [own_phone(browser, squad, link) for _ in range(3)]
    for _, phone in phones[:2]:
        expect(phone.get_by_role("heading", name="Evening window")).to_be_visible()
    third = phones[2][1]
    expect(third.get_by_role("alert")).to_contain_text("in use on two devices already")
    expect(third.get_by_text("Evening window")).to_have_count(0)
    # A place is free again once one of the two is given up, by whoever holds it.
    phones[1][1].get_by_role("button", name="End it here").click()
    phones[1][1].get_by_role("button", name="Yes, do it").click()
    expect(phones[1][1].get_by_text("nothing of it is kept on this phone")).to_be_visible()
    third.goto("about:blank")
    third.goto(link)
    expect(third.get_by_role("heading", name="Evening window")).to_be_visible()

    page.goto(f"/people/{person}")
    panel = page.get_by_role("region", name="Check-in link")
    expect(panel.get_by_role("listitem")).to_have_count(2)
    panel.get_by_role("button", name="End the link").click()
    panel.get_by_role("button", name="Yes, do it").click()
    expect(panel.get_by_text("There is no link.")).to_be_visible()
    phones[0][1].get_by_role("button", name="I am here").first.tap()
    for phone in (phones[0][1], third):
        if phone is third:
            phone.reload()
        expect(phone.get_by_text("Your link is ended")).to_be_visible()
        assert json.loads(phone.evaluate(KEPT)) in ([], [[], []])
    for context, _ in phones:
        context.close()


def test_a_phone_without_a_network_that_never_opened_it_says_so(browser: Browser, squad: OwnSquad) -> None:
    context, phone = own_phone(browser, squad, "/me")
    expect(phone.get_by_role("alert")).to_contain_text("Open the link that your coach gave you")
    phone.route(re.compile("/api/checkin"), lambda route: route.abort())
    phone.reload()
    expect(phone.get_by_role("alert")).to_contain_text("No network")
    phone.unroute(re.compile("/api/checkin"))
    phone.get_by_role("button", name="Try again").tap()
    expect(phone.get_by_role("alert")).to_contain_text("Open the link that your coach gave you")
    context.close()


def test_what_was_said_too_late_is_told_in_words(page: Page, browser: Browser, squad: OwnSquad) -> None:
    person = person_called(page, NAME)
    entry = on_today(page, rounds_in(360, title="Window", id="w"), title="Evening window")
    context, phone = own_phone(browser, squad, made_link(page, person))
    session = phone.get_by_role("article", name="Evening window")
    expect(session).to_be_visible()
    call(page, "PUT", f"/log/entries/{entry}", {"minutes": 20, "effort": 6})
    session.get_by_role("button", name="I cannot come").tap()
    expect(phone.get_by_role("alert")).to_contain_text("tell your coach")
    expect(session.get_by_text("This session is logged by now.")).to_be_visible()
    phone.get_by_role("button", name="Understood").tap()
    expect(phone.get_by_role("alert")).to_have_count(0)
    context.close()
