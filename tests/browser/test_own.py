"""Make it your own: from an empty machine to a squad with people, groups and limits, and somebody who is gone for good."""

from __future__ import annotations

import json
import os
import re
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.controls import choose, more, tick
from tests.browser.screens import call
from tests.browser.squads import OwnSquad, SquadMaker
from tests.conftest import REPOSITORY
from tests.serving import PASSWORD as DEMO_PASSWORD
from tests.serving import answers, free_port, until

pytestmark = pytest.mark.browser
PASSWORD = "snow-rope-4410"
FIRST = {
    "FINE_TALLY_SQUAD": "Vale Search", "FINE_TALLY_NAME": "ada", "FINE_TALLY_PASSWORD": PASSWORD,
    "FINE_TALLY_TIME_ZONE": "Europe/Vienna", "FINE_TALLY_WEEK_START": "sunday",
}  # fmt: skip
NAMES = (
    "Wim Karsholt", "Bea Lindqvarn", "Cato Ferrow", "Dagny Ostrel", "Emil Torvane", "Freya Quist", "Gus Hallowmere",
    "Ilse Brandreth", "Joss Penhallick", "Kaja Wrenfield", "Lorcan Threave", "Maud Ellerby", "Nils Garrowby", "Oona Farthing",
)  # fmt: skip
GONE = "Wim Karsholt"
WALL = 'Ledges\nMain: 30 s on / 15 s off, 2 rounds\n  squat jump\n    or "air squat", easier: air squat\n  push-up'


class OwnMachine:
    """An installation of its own that begins empty: the launcher's own commands, and the processes they start."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        unset = ("FINE_TALLY_DATABASE", *FIRST)
        self._environment = {name: value for name, value in os.environ.items() if name not in unset}
        self._environment |= {"FINE_TALLY_VAR": str(folder), **FIRST}
        self._process: subprocess.Popen[bytes] | None = None

    @property
    def database(self) -> Path:
        return self.folder / "fine-tally.sqlite3"

    def command(self, *arguments: str) -> str:
        made = subprocess.run(
            [sys.executable, "-m", "finetally.cli", *arguments], cwd=REPOSITORY, env=self._environment,
            capture_output=True, text=True, stdin=subprocess.DEVNULL,
        )  # fmt: skip
        assert made.returncode == 0, made.stderr
        return made.stdout

    def start(self) -> None:
        self._process = subprocess.Popen(
            [sys.executable, "-m", "finetally.cli", "run", "--port", str(self.port)], cwd=REPOSITORY,
            env=self._environment, stdin=subprocess.DEVNULL, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        )  # fmt: skip
        until(lambda: answers(f"{self.url}/api/me"), "the server's answer")

    def stop(self) -> None:
        if self._process is not None:
            self._process.send_signal(signal.SIGINT)
            self._process.wait(60)

    def holds(self, word: str) -> bool:
        """Whether a word stands anywhere in the database's files, freed pages and log included."""
        files = [one for one in self.folder.glob(f"{self.database.name}*") if ".before-" not in one.name]
        return any(word.encode() in one.read_bytes() for one in files)


@pytest.fixture
def machine(tmp_path: Path) -> Iterator[OwnMachine]:
    made = OwnMachine(tmp_path / "var")
    made.start()
    yield made
    made.stop()


def visiting(browser: Browser, machine: OwnMachine) -> Page:
    """A browser of somebody's own."""
    return browser.new_context(base_url=machine.url).new_page()


def sign_in(page: Page, name: str) -> None:
    page.goto("/sign-in")
    page.get_by_label("Name").fill(name)
    page.get_by_label("Password", exact=True).fill(PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("heading", name="Last sessions").wait_for()


def invited(head: Page, role: str, person: str = "") -> str:
    """The address of an invitation, as the head coach reads it off the page."""
    head.goto("/squad")
    panel = head.get_by_role("region", name="Invite somebody")
    choose(panel, "As what", role)
    if person:
        choose(panel, "For whom", person)
    panel.get_by_role("button", name="Make the link").click()
    shown = panel.get_by_role("status")
    expect(shown.get_by_role("img", name="The link as a QR code")).to_be_visible()
    address = shown.locator(".address").text_content()
    assert address is not None
    return address


def joined(browser: Browser, machine: OwnMachine, address: str, name: str) -> Page:
    page = visiting(browser, machine)
    page.goto(address)
    expect(page.get_by_role("heading", name="Join Vale Search")).to_be_visible()
    # The token is in no history: the address is cleared as soon as it is read.
    expect(page).to_have_url(f"{machine.url}/join")
    page.get_by_label("Name to sign in with").fill(name)
    page.get_by_role("textbox", name="Password").fill(PASSWORD)
    page.get_by_role("button", name="Make an account and join").click()
    page.get_by_role("heading", name="Last sessions").wait_for()
    return page


def asked(page: Page, path: str) -> Any:
    """What the server answers a signed-in browser: status and body."""
    answer = page.request.get(f"/api{path}")
    return answer.status, answer.text()


def the_squad_is_set(head: Page) -> None:
    head.goto("/squad")
    expect(head.get_by_role("combobox", name="Time zone")).to_be_visible()
    settings = head.get_by_role("region", name="Name, place, week")
    expect(settings).to_contain_text("Europe/Vienna")
    expect(settings).to_contain_text("Sunday")
    settings.get_by_label("In an emergency").fill("Ring 112; the key is at the pump house.")
    settings.get_by_role("button", name="Save").click()
    expect(head.get_by_text("Saved.")).to_be_visible()
    kit = head.get_by_role("region", name="Kit in the hall")
    choose(kit, "add kit", "kettlebell")
    kit.get_by_role("button", name="Put it in").click()
    kit.get_by_label("How many of kettlebell").fill("4")
    with head.expect_response(lambda answer: answer.request.method != "GET"):
        kit.get_by_label("How many of kettlebell").press("Enter")
    head.reload()
    expect(kit.get_by_label("How many of kettlebell")).to_have_value("4")


def people_come_from_a_list(head: Page) -> None:
    head.goto("/people")
    head.get_by_role("button", name="A list").click()
    lines = [f"{name},{'North' if number % 2 else 'South'}" for number, name in enumerate(NAMES)]
    file = {"name": "people.csv", "mimeType": "text/csv", "buffer": "\n".join(["name,group", *lines]).encode()}
    head.locator("input[type=file]").set_input_files([file])  # type: ignore[list-item]
    expect(head.get_by_role("row", name=re.compile("Oona Farthing"))).to_contain_text("is added")
    head.get_by_role("button", name="Take it in: 14 new").click()
    expect(head.get_by_text("14 in all")).to_be_visible()
    head.get_by_role("button", name="Groups").click()
    expect(head.get_by_label("Name of North")).to_be_visible()
    expect(head.get_by_label("Name of South")).to_be_visible()


def the_inviter_is_told(head: Page) -> None:
    head.goto("/people")
    for name in ("osk, coach", "wim, athlete"):
        notice = head.get_by_role("status").get_by_text(f"Your invitation was accepted: {name} of Vale Search.")
        notice.get_by_role("button", name="I have read it").click()
        expect(notice).to_have_count(0)


def a_limit_is_set(head: Page) -> None:
    head.get_by_role("link", name=GONE).click()
    limits = head.get_by_role("region", name="Limits")
    choose(limits, "What is to be spared", "ankle")
    limits.get_by_label("Note, for the head coach and the person").fill("twisted at the weir")
    limits.get_by_role("button", name="Add the limit").click()
    expect(limits.get_by_role("listitem")).to_contain_text("twisted at the weir")


def a_session_obeys_it(head: Page) -> str:
    """Its address on the Bench; planned for the group South, today."""
    head.goto("/")
    head.get_by_role("textbox", name="Start from a text").fill(WALL)
    head.get_by_role("button", name="Read it", exact=True).click()
    expect(head).to_have_url(re.compile(r"/bench/[0-9a-f-]{36}$"))
    head.get_by_role("tab", name="Blocks").click()
    expect(head.get_by_text("Wim: air squat (ankle)")).to_be_visible()
    # As him the figures are with the option.
    choose(head, "As whom", GONE)
    expect(head.get_by_role("main")).to_contain_text("Wim: air squat")
    more(head, "Put on a day")
    form = head.get_by_role("form", name="Put on a day")
    choose(form, "group", "South")
    form.get_by_role("button", name="Put it there").click()
    expect(form).to_contain_text("It stands on")
    return head.url


def test_from_an_empty_machine_to_a_squad_and_to_somebody_who_is_gone(
    browser: Browser, machine: OwnMachine
) -> None:
    head = visiting(browser, machine)
    sign_in(head, "ada")
    the_squad_is_set(head)
    coach = joined(browser, machine, invited(head, "coach"), "osk")
    people_come_from_a_list(head)
    athlete = joined(browser, machine, invited(head, "athlete", GONE), "wim")
    the_inviter_is_told(head)
    a_limit_is_set(head)
    bench = a_session_obeys_it(head)

    # A week for one group: it stands there, and in no other.
    head.goto("/week")
    for group, count in (("South", 1), ("North", 0)):
        choose(head, "Whose week", f"group {group}")
        expect(head.get_by_role("article", name="Ledges")).to_have_count(count)

    # The coach plans; the note is not theirs to read.
    coach.goto(bench)
    expect(coach.get_by_text("Wim: air squat (ankle)")).to_be_visible()
    coach.goto("/people")
    coach.get_by_role("link", name=GONE).click()
    expect(coach.get_by_role("region", name="Limits").get_by_role("listitem")).to_contain_text("ankle")
    expect(coach.get_by_text("twisted at the weir")).to_have_count(0)

    # The athlete sees their own, and of others the option alone.
    athlete.goto("/week")
    expect(athlete.get_by_role("article", name="Ledges")).to_be_visible()
    athlete.get_by_role("link", name="You", exact=True).click()
    expect(athlete.get_by_text("twisted at the weir")).to_be_visible()
    others = json.loads(asked(head, "/people")[1])
    for one in others:
        assert (asked(athlete, f"/people/{one['id']}")[0] == 200) is (one["name"] == GONE)
    assert asked(athlete, "/people")[0] == 403

    backup = machine.folder / "older.sqlite3"
    machine.command("backup", str(backup))
    erased = next(one["id"] for one in others if one["name"] == GONE)
    head.goto(f"/people/{erased}")
    kept = head.get_by_role("region", name="What is kept")
    kept.get_by_label("Your password").fill(PASSWORD)
    kept.get_by_role("button", name="Erase").click()
    kept.get_by_role("button", name="Yes, do it").click()
    expect(head.get_by_text("13 in all")).to_be_visible()
    gone_everywhere(head, athlete, machine)
    machine.stop()
    # An older backup brings nobody back.
    assert "erased again" in machine.command("restore", str(backup))
    assert not machine.holds(GONE)
    machine.start()
    back = visiting(browser, machine)
    sign_in(back, "ada")
    back.goto("/people")
    expect(back.get_by_text("13 in all")).to_be_visible()
    gone_everywhere(back, athlete, machine)


def gone_everywhere(head: Page, athlete: Page, machine: OwnMachine) -> None:
    """From every page, answer and export, from the account's own browser, and from the file of the database."""
    squad = json.loads(asked(head, "/me")[1])["squads"][0]["id"]
    day = time.strftime("%Y-%m-%d")
    entry = json.loads(asked(head, f"/plan/week?day={day}")[1])["entries"][0]["id"]
    for path in (
        "/people", "/groups", f"/squads/{squad}/history", f"/squads/{squad}/members", f"/squads/{squad}/invitations",
        f"/plan/week?day={day}", f"/plan/entries/{entry}/attendance", f"/plan/week.csv?day={day}", f"/plan/week.ics?day={day}",
    ):  # fmt: skip
        status, text = asked(head, path)
        assert status == 200, path
        assert "Karsholt" not in text, path
        assert "wim" not in text, path
    for path in ("/people", "/squad", "/week"):
        head.goto(path)
        head.wait_for_load_state("networkidle")
        assert "Karsholt" not in (head.locator("main").text_content() or "")
    head.goto("/squad")
    tick(head, "with limits, measures, ratings and notes")
    head.get_by_role("region", name="The squad as a file").get_by_label("Your password").fill(PASSWORD)
    with head.expect_download() as saved:
        head.get_by_role("button", name="Take it out").click()
    assert "Karsholt" not in saved.value.path().read_text("utf-8")
    assert athlete.request.get("/api/me").status == 401
    kept = (GONE, "twisted at the weir")
    until(lambda: not any(machine.holds(one) for one in kept), "database files without the name")


def test_who_has_an_account_signs_in_on_the_way_and_joins_with_it(
    page: Page, squad: OwnSquad, squads: SquadMaker
) -> None:
    other = squads.make()
    number = call(page, "GET", "/me")["squads"][0]["id"]
    made = call(page, "POST", f"/squads/{number}/invitations", {"role": "athlete"})
    page.context.clear_cookies()
    page.goto(made["address"])
    page.get_by_role("link", name="I have an account already").click()
    # The page before it has fields of the same names: what is filled in there is gone with it.
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()
    page.get_by_label("Name").fill(other.account("osk"))
    page.get_by_label("Password", exact=True).fill(DEMO_PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("button", name=f"Join as {other.account('osk')}").click()
    page.get_by_role("heading", name="Last sessions").wait_for()
    # Two squads now, of which the one that was joined is on the screen; as an athlete there.
    expect(page.get_by_role("combobox", name="Which squad")).to_be_attached()
    expect(page.get_by_role("link", name="You", exact=True)).to_be_visible()
    page.goto("/join")
    expect(page.get_by_role("alert")).to_contain_text("is no invitation")


def test_a_password_is_set_anew_and_told_at_the_next_sign_in(page: Page, squad: OwnSquad) -> None:
    page.goto("/squad")
    member = (
        page.get_by_role("region", name="Accounts").get_by_role("listitem").filter(has_text=squad.account("osk"))
    )
    member.get_by_role("button", name="New password").click()
    address = member.locator(".address").text_content() or ""
    page.context.clear_cookies()
    page.goto(address)
    page.get_by_role("textbox", name="Password that is to hold").fill("short")
    page.get_by_role("button", name="Set it").click()
    expect(page.get_by_role("alert")).to_contain_text("too short")
    page.get_by_role("textbox", name="Password that is to hold").fill(PASSWORD)
    page.get_by_role("button", name="Set it").click()
    expect(page.get_by_role("status")).to_contain_text("is set")
    page.goto(address)
    expect(page.get_by_role("alert")).to_contain_text("opens nothing")
    sign_in(page, squad.account("osk"))
    notice = page.get_by_text(f"Your password was set anew with a link that {squad.account('marit')} made")
    notice.get_by_role("button").click()
    expect(notice).to_have_count(0)


def test_a_group_is_made_and_somebody_put_into_it_by_keys_alone(page: Page, squad: OwnSquad) -> None:
    page.goto("/people")
    page.get_by_role("button", name="Add somebody").press("Enter")
    page.keyboard.type("Wim Karsholt")
    page.keyboard.press("Tab")
    page.keyboard.type("Night team")
    page.keyboard.press("Enter")
    page.get_by_role("link", name="Wim Karsholt").press("Enter")
    limits = page.get_by_role("region", name="Limits")
    limits.get_by_role("combobox", name="What is to be spared").focus()
    page.keyboard.type("wrist")
    page.get_by_role("option", name="wrist").wait_for()
    page.keyboard.press("Enter")
    limits.get_by_role("button", name="Add the limit").press("Enter")
    expect(limits.get_by_role("listitem")).to_contain_text("wrist")
    limits.get_by_role("button", name="End it").press("Enter")
    expect(limits.get_by_text("None holds.")).to_be_visible()
    page.get_by_label("Your password").fill(DEMO_PASSWORD)
    page.get_by_role("button", name="Erase").press("Enter")
    # What would do harm is not where the focus is.
    expect(page.get_by_role("button", name="No, leave it")).to_be_focused()
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="Erase")).to_be_visible()
