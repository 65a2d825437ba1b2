"""How a hand works the controls of the pages: lists to choose from, menus, pickers."""

from __future__ import annotations

import re

from playwright.sync_api import Locator, Page, Route, TimeoutError, expect

from tests.serving import until


def page_of(scope: Page | Locator) -> Page:
    return scope if isinstance(scope, Page) else scope.page


def choose(scope: Page | Locator, name: str, option: str | re.Pattern[str]) -> None:
    """Choose from the list of that name: the list itself lies over the page."""
    page = page_of(scope)
    box = scope.get_by_role("combobox", name=name, exact=True)
    # What is chosen lies over the field itself.
    box.locator("xpath=ancestor::*[contains(@class, 'el-select__wrapper')][1]").click()
    listed = page.get_by_role("listbox", name=name, exact=True)
    exact = isinstance(option, str)
    listed.get_by_role("option", name=option, exact=exact).click()
    expect(listed).to_be_hidden()


def more(page: Page, item: str) -> None:
    """Choose from the menu at the end of a screen's head. One that something took away meanwhile is opened again."""
    opens = page.locator("main header").get_by_role("button", name=re.compile("^More for this"))
    for _ in range(6):
        opens.click()
        try:
            page.get_by_role("menuitem", name=item).click(timeout=10_000)
            break
        except TimeoutError:
            expect(page.get_by_role("menuitem")).to_have_count(0)
    expect(page.get_by_role("menuitem")).to_have_count(0)


def tick(scope: Page | Locator, name: str | re.Pattern[str], on: bool = True) -> None:
    """Tick or untick a box: the box itself is drawn, so the hand goes to its words."""
    box = scope.get_by_role("checkbox", name=name, exact=isinstance(name, str))
    if box.is_checked() != on:
        box.locator("xpath=ancestor::label").click()
    expect(box).to_be_checked(checked=on)


def fill_picker(scope: Page | Locator, name: str, text: str) -> None:
    """Type into a field that has a picker, and let the picker go."""
    field = scope.get_by_role("combobox", name=name, exact=True)
    field.fill(text)
    field.press("Enter")
    expect(page_of(scope).locator(".el-picker__popper:visible")).to_have_count(0)


def held_back(page: Page, held: list[Route], number: int) -> Route:
    """That one (from 0) of the questions whose answers are held back, once it has been asked."""
    until(lambda: len(held) > number, f"question {number}", page)
    return held[number]
