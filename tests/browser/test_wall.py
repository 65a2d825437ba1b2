"""From a message to a card: any words give figures, what was assumed is settled, new names are told what they are."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect

from tests.browser.controls import choose
from tests.browser.test_writing import document_of

MESSAGE = """Hi all, Thursday top field (40 min), bring gloves!

Warm up 3 rds: 10 hinges, 10 squats, 5 inchworms
2 min rest

A) 3x10 goblet squats 24/16 kg
rest 90s

B) emom 12
12 pushups
10 gate vaults
15 kb swings 24kg

Have a drink, two minutes rest

C) 21-15-9 burpees / step ups, cap 8 min

D) 3 rounds, 60 s rest
20 m lizard creep
12 sit ups
30 s wobble board

11 = 7 + x, ask Bram

jog 3 laps
cool: 20s each
calf
hip flexor
"""


def words(page: Page) -> None:
    page.goto("/bench/new")
    page.get_by_role("button", name="Start from a text").click()
    page.get_by_role("textbox", name="Board text").fill(MESSAGE)
    expect(page.get_by_text("3 movements are new")).to_be_visible()
    expect(page.get_by_text("1 line is not in the figures")).to_be_visible()


def length(page: Page) -> str:
    return page.get_by_role("button", name="Length, whole session").locator("b").inner_text()


def test_a_message_gives_figures_at_once_and_is_settled_to_a_card(page: Page) -> None:
    words(page)
    expect(page.get_by_role("region", name="Stave")).to_contain_text("unassigned")
    expect(page.get_by_text("gate vaults, lizard creep, wobble board are new")).to_be_visible()
    page.get_by_role("button", name=re.compile("Line 9: the lines take turns")).click()
    menu = page.get_by_role("dialog", name="What line 9 could mean")
    menu.get_by_role("button", name=re.compile("every start does all the lines")).click()
    expect(menu).to_have_count(0)
    expect(page.get_by_label("What the words come to")).to_contain_text("+ 15 swing 24 kg")
    page.get_by_role("button", name=re.compile("Line 11: guessed")).click()
    page.get_by_role("dialog").get_by_role("button", name="tell what it is").click()
    form = page.get_by_role("form", name="New movement")
    choose(form, "mostly works", "jump")
    form.get_by_label("also called").fill("vault over")
    form.get_by_role("button", name="Define it").click()
    expect(page.get_by_text("2 movements are new")).to_be_visible()
    page.get_by_role("button", name="Keep all").click()
    expect(page.get_by_text(re.compile("read one way of several"))).to_have_count(0)
    kept = document_of(page)
    assert kept["wall"]["text"] == MESSAGE
    assert kept["movements"][0]["aliases"] == ["vault over"]
    page.get_by_role("button", name="Card", exact=True).click()
    expect(page.get_by_role("heading", name="Hi all, Thursday top field, bring gloves")).to_be_visible()
    expect(page.get_by_role("article")).to_contain_text("20 m lizard creep")
    expect(page.get_by_role("article")).not_to_contain_text('"')


def test_without_a_mouse(page: Page) -> None:
    words(page)
    before = length(page)
    page.keyboard.press("Control+Home")
    page.keyboard.press("Alt+n")
    page.keyboard.press("Alt+ArrowDown")
    menu = page.get_by_role("dialog", name=re.compile("What line 4 could mean"))
    expect(menu.get_by_role("button", name=re.compile("before what follows"))).to_be_focused()
    page.keyboard.press("2")
    expect(menu).to_have_count(0)
    expect(page.get_by_role("textbox", name="Board text")).to_be_focused()
    expect(page.get_by_role("button", name="Length, whole session").locator("b")).not_to_have_text(before)
    page.keyboard.press("Alt+n")
    page.keyboard.press("Alt+ArrowDown")
    expect(page.get_by_role("dialog")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.press("Alt+k")
    expect(page.get_by_text(re.compile("read one way of several"))).to_have_count(0)


def test_a_near_name_is_taken_for_this_and_all_later_sessions(page: Page) -> None:
    page.goto("/bench/new")
    page.get_by_role("button", name="Start from a text").click()
    editor = page.get_by_role("textbox", name="Board text")
    editor.fill("3 rounds\n10 goblin squats\n10 burpees\n")
    page.get_by_role("button", name=re.compile("Line 2: guessed")).click()
    page.get_by_role("dialog").get_by_role("button", name=re.compile("it is goblet squat")).click()
    expect(page.get_by_text("Everything was understood.")).to_be_visible()
    expect(editor).to_contain_text("10 goblin squats")
    assert document_of(page)["blocks"][0]["steps"][0]["movement"] == "goblet-squat"
    page.goto("/bench/new")
    page.get_by_role("button", name="Start from a text").click()
    page.get_by_role("textbox", name="Board text").fill("amrap 10\n5 Goblin squat\n5 burpees\n")
    expect(page.get_by_text("Everything was understood.")).to_be_visible()
    expect(page.get_by_label("What the words come to")).to_contain_text("5 goblet squat")


def test_the_words_stay_until_the_blocks_are_changed_and_can_be_written_out(page: Page) -> None:
    page.goto("/bench/new")
    page.get_by_role("button", name="Start from a text").click()
    editor = page.get_by_role("textbox", name="Board text")
    editor.fill("Top field, 20 min\n12 min amrap 10 swings 10 gate vaults\n")
    expect(page.get_by_label("What the words come to")).to_contain_text("10 gate vaults")
    document_of(page)
    page.reload()
    page.get_by_role("tab", name="Board text").click()
    expect(editor).to_contain_text("12 min amrap 10 swings 10 gate vaults")
    page.get_by_role("button", name="Written out").click()
    expect(editor).to_contain_text("as many rounds as fit in 12:00")
    expect(editor).to_contain_text('10 "gate vaults"')


def test_a_table_from_a_sheet_and_a_week_in_one_text(page: Page) -> None:
    page.goto("/bench/new")
    page.get_by_role("button", name="Start from a text").click()
    editor = page.get_by_role("textbox", name="Board text")
    editor.fill("Lift\nExercise\tSets\tReps\tLoad\tRest\nBack squat\t4\t6\t90 kg\t2 min\n")
    expect(page.get_by_role("button", name="Length, whole session").locator("b")).to_have_text("7:26")
    editor.fill("Monday\n20 burpees\n\nTuesday\n20 min jog\n")
    page.get_by_role("button", name="Make 2 sessions of it").click()
    expect(page.get_by_role("link", name="Tuesday", exact=True)).to_be_visible()


@pytest.mark.parametrize("text", ["Rest day!", "🔥", "Have fun\n\nand drink"])
def test_words_without_work_are_an_empty_session(page: Page, text: str) -> None:
    page.goto("/bench/new")
    page.get_by_role("button", name="Start from a text").click()
    page.get_by_role("textbox", name="Board text").fill(text)
    expect(page.get_by_text("Nothing to tally yet.")).to_be_visible()
    expect(page.get_by_role("alert")).to_have_count(0)
