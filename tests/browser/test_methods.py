"""Methods: come to from a figure, where coaches differ with a sample, constants set and put back, who changed what."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.screens import call, open_session
from tests.browser.squads import OwnSquad

pytestmark = pytest.mark.browser


def test_from_a_figure_to_its_paragraph_and_another_school_moves_it(page: Page) -> None:
    open_session(page, "Stretcher-carry readiness B")
    page.get_by_role("button", name="Density, main and finisher").press("Enter")
    page.get_by_role("link", name="How density comes about").press("Enter")
    heading = page.get_by_role("heading", name="Density, work and rest")
    expect(heading).to_be_in_viewport()
    expect(heading).to_be_focused()
    school = page.get_by_role("region", name="Work of a self-paced window")
    expect(school.get_by_text("Rest is rest, whether anyone prescribed it.")).to_be_visible()
    assert school.get_by_role("definition").all_inner_texts() == ["88 %", "100 %"]
    school.get_by_role("button", name="Take: by the clock").press("Enter")
    expect(school.get_by_role("button", name="Take: at pace")).to_be_visible()
    squad = call(page, "GET", "/me")["squads"][0]["id"]
    assert call(page, "GET", f"/squads/{squad}/methods")["methods"]["density"] == "by-the-clock"
    history = page.get_by_role("region", name="Who changed what")
    expect(history.get_by_role("listitem").first).to_contain_text(
        "Work of a self-paced window: at pace → by the clock"
    )


def test_a_constant_is_kept_only_once_it_is_said_so_and_put_back(page: Page) -> None:
    page.goto("/methods#effort")
    field = page.get_by_role("spinbutton", name="Time constant of breathing as it rises")
    field.fill("40")
    page.keyboard.press("Tab")
    row = page.locator(".row").filter(has=field)
    row.get_by_role("button", name="Leave it").press("Enter")
    expect(field).to_have_value("35")
    field.fill("40")
    page.keyboard.press("Tab")
    row.get_by_role("button", name="Keep it").press("Enter")
    back = row.get_by_role("button", name=re.compile("Put it back"))
    expect(back).to_be_visible()
    history = page.get_by_role("region", name="Who changed what")
    expect(history.get_by_role("listitem").first).to_contain_text("Time constant of breathing as it rises: 35 → 40")
    back.press("Enter")
    expect(field).to_have_value("35")
    expect(history.get_by_role("listitem").first).to_contain_text("Time constant of breathing as it rises: 40 → 35")


def test_who_does_not_lead_the_squad_reads_and_changes_nothing(page: Page, squad: OwnSquad) -> None:
    page.context.clear_cookies()
    page.context.add_cookies(squad.state("tamsin")["cookies"])  # type: ignore[arg-type]
    page.goto("/methods#load")
    expect(page.get_by_role("heading", name="Load, weeks and ratios")).to_be_in_viewport()
    expect(page.get_by_text("A head coach sets these.")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("Take:"))).to_have_count(0)
    expect(page.get_by_role("spinbutton")).to_have_count(0)
