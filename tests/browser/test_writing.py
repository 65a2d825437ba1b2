"""Writing a session on the Bench: by keyboard alone, by format, on the board; and what comes out of it."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from finetally.core.formats.table import FORMATS
from finetally.core.session.ids import without_ids
from tests.browser.controls import choose, more
from tests.browser.screens import block, call, figure, open_list, open_session

pytestmark = pytest.mark.browser

MOVEMENTS = ["air squat", "push-up", "swing", "burpee", "sit-up", "bent row"]


def add_block(page: Page, words: str, movements: list[str], part: str = "") -> None:
    """Add a block by keyboard: the palette, its movements, and Enter on an empty line."""
    page.keyboard.press("a")
    expect(page.get_by_role("textbox", name="Format")).to_be_focused()
    page.keyboard.type(words)
    page.keyboard.press("Enter")
    for number, movement in enumerate(movements, start=1):
        expect(page.get_by_role("textbox", name=f"Movement {number}")).to_be_focused()
        page.keyboard.type(movement)
        page.keyboard.press("Enter")
    expect(page.get_by_role("textbox", name=f"Movement {len(movements) + 1}")).to_be_focused()
    if part:
        page.get_by_role("combobox", name="Part of the new block").focus()
        page.keyboard.type(part)
        page.keyboard.press("Enter")
        page.get_by_role("textbox", name=f"Movement {len(movements) + 1}").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Add a block")).to_have_count(0)


def document_of(page: Page) -> dict[str, Any]:
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.wait_for_url(lambda url: not url.endswith("/new"))
    document: dict[str, Any] = call(page, "GET", f"/sessions/{page.url.rsplit('/', 1)[1]}")["document"]
    return document


def test_a_session_from_nothing_by_keyboard_to_its_card_and_back_from_a_file(page: Page, tmp_path: Path) -> None:
    page.goto("/bench/new")
    page.get_by_role("textbox", name="Format").press("Escape")
    page.get_by_label("Title").focus()
    page.keyboard.press("Control+A")
    page.keyboard.type("Winter ready")
    page.get_by_label("told").focus()
    page.keyboard.type("45:00")
    page.keyboard.press("Tab")
    page.evaluate("document.activeElement.blur()")
    add_block(page, "flow", ["march", "hip hinge", "air squat"], "warm-up")
    add_block(page, "20 10 pairs", ["swing", "plank tap", "squat jump", "push-up"])
    add_block(page, "against the clock", ["step-up", "air squat"], "finisher")
    add_block(page, "flow", ["calf stretch", "chest stretch"], "cool-down")
    expect(page.get_by_role("article")).to_have_count(4)
    expect(block(page, 1).get_by_label("rest after")).to_have_value("60")
    document = document_of(page)
    assert [b.get("part", "main") for b in document["blocks"]] == ["warm-up", "main", "finisher", "cool-down"]
    assert document["blocks"][2]["steps"][0]["sides"] == "alternate"
    assert (document["title"], document["announced_s"]) == ("Winter ready", 2700)
    length = figure(page, "Length, whole session")

    files = {}
    for kind in ("json", "txt"):
        with page.expect_download() as waiting:
            more(page, f"(.{kind})")
        files[kind] = tmp_path / waiting.value.suggested_filename
        waiting.value.save_as(files[kind])
    assert json.loads(files["json"].read_text("utf-8")) == document

    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("c")
    expect(page.get_by_role("heading", name="Winter ready")).to_be_visible()
    expect(page.get_by_text("20/10 pairs, 1:00 between pairs")).to_be_visible()
    with page.expect_download() as waiting:
        page.get_by_role("button", name="PDF").press("Enter")
    assert waiting.value.path().read_bytes().startswith(b"%PDF-")

    for kind, path in files.items():
        page.goto("/bench")
        page.locator("input[type=file]").set_input_files(path)
        expect(page.locator("dl.big")).to_be_visible()
        assert figure(page, "Length, whole session") == length
        assert document_of(page) == document, kind


@pytest.mark.parametrize("part", range(3))
def test_every_format_by_hand_and_on_the_board_is_the_same_session(page: Page, part: int) -> None:
    page.goto("/bench/new")
    page.get_by_role("textbox", name="Format").press("Escape")
    formats = FORMATS[part::3]
    for number, one in enumerate(formats, start=1):
        count = {"rep-ladder": 3, "rep-ladder-pulse": 3}.get(one.key, one.holds.least)
        page.evaluate("document.activeElement.blur()")
        add_block(page, one.name, MOVEMENTS[:count])
        expect(block(page, number)).to_be_visible()
    by_hand = document_of(page)
    assert len(by_hand["blocks"]) >= len(formats)
    text = call(page, "POST", "/board/write", {"document": by_hand})["text"]
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("b")
    expect(page.get_by_role("textbox", name="Board text")).to_contain_text(text.splitlines()[-1].strip())
    page.goto("/bench/new")
    page.get_by_role("textbox", name="Format").press("Escape")
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("b")
    page.get_by_role("textbox", name="Board text").fill(text)
    on_the_board = document_of(page)
    assert without_ids(on_the_board) == without_ids(by_hand)


def test_the_board_reads_any_words_and_ids_stay(page: Page) -> None:
    made = call(
        page,
        "POST",
        "/sessions/import",
        {"kind": "txt", "text": "Ridge\nMain: 30 s each, 3 rounds\n  burpee\n  swing 16 kg\n"},
    )
    page.goto(f"/bench/{made['id']}")
    page.get_by_role("tab", name="Board text").click()
    editor = page.get_by_role("textbox", name="Board text")
    expect(editor).to_contain_text("swing 16 kg")
    length = page.get_by_role("button", name="Length, whole session").locator("b")
    editor.fill("Ridge\n\nMain: 30 s each, 5 rounds\n  burpee\n  otter drag 16 kg\n")
    expect(page.get_by_text("1 movement is new")).to_be_visible()
    expect(length).to_have_text("5:00")
    expect(page.get_by_text("otter drag is new")).to_be_visible()
    editor.fill("Ridge\n\nMain: 30 s each, 4 rounds\n  burpee\n  swing 16 kg\n")
    expect(length).to_have_text("4:00")
    expect(page.get_by_text("Everything was understood.")).to_be_visible()
    kept = document_of(page)
    assert [s["id"] for s in kept["blocks"][0]["steps"]] == [
        s["id"] for s in made["document"]["blocks"][0]["steps"]
    ]


def test_a_movement_is_defined_on_the_spot(page: Page) -> None:
    made = call(
        page, "POST", "/sessions/import", {"kind": "txt", "text": "Ridge\nMain: 30 s each, 3 rounds\n  burpee\n"}
    )
    page.goto(f"/bench/{made['id']}")
    block(page, 1).get_by_role("button", name="add a movement").click()
    page.get_by_role("textbox", name="Movement to add").fill("wet rope climb")
    page.keyboard.press("Enter")
    choose(page, "mostly works", "pull-overhead")
    page.get_by_role("button", name="Define it").click()
    expect(block(page, 1).get_by_role("button", name="wet rope climb", exact=True)).to_be_visible()
    expect(page.get_by_role("button", name="pull", exact=False).first).to_be_visible()
    document = document_of(page)
    assert document["movements"][0]["patterns"] == {"pull-overhead": 1}
    assert document["blocks"][0]["steps"][1]["movement"] == "wet-rope-climb"


def test_a_block_moves_changes_its_format_and_comes_back(page: Page) -> None:
    made = call(
        page,
        "POST",
        "/sessions/import",
        {
            "kind": "txt",
            "text": "Ridge\nMain: 30 s each, 3 rounds\n  burpee\n  swing\nMain: for time\n  10 push-up\n",
        },
    )
    page.goto(f"/bench/{made['id']}")
    page.get_by_role("button", name="Move block 1: arrow").press("ArrowDown")
    expect(block(page, 1).get_by_role("button", name="push-up", exact=True)).to_be_visible()
    block(page, 2).locator("button.format").click()
    choose(block(page, 2), "format", "20/10 pairs")
    expect(block(page, 2).get_by_label("between pairs")).to_have_value("60")
    expect(block(page, 2).get_by_role("button", name="swing", exact=True)).to_be_visible()
    block(page, 2).get_by_label("between pairs").fill("90")
    block(page, 2).get_by_label("between pairs").press("Tab")
    expect(block(page, 2).get_by_label("between groups")).to_have_value("90")
    for _ in range(3):
        page.get_by_role("button", name="Undo").click()
    expect(block(page, 1).get_by_label("rounds", exact=True).last).to_have_value("3")
    assert without_ids(document_of(page)) == without_ids(made["document"])


def test_a_number_is_tried_and_given_back(page: Page) -> None:
    open_session(page, "Ridge day, rounds with rest")
    rest = block(page, 2).get_by_label("between rounds")
    rest.press("ArrowUp")
    expect(rest).to_have_value("65")
    row = page.get_by_role("button", name="Length, whole session")
    expect(row.locator("small")).to_have_text("+0:20")
    rest.press("ArrowUp")
    expect(row.locator("small")).to_have_text("+0:40")
    rest.press("Escape")
    expect(rest).to_have_value("60")
    expect(row.locator("small")).to_have_count(0)
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()


def test_the_session_is_fitted_to_the_time_with_one_key_and_undone_with_one(page: Page) -> None:
    open_session(page, "Stretcher-carry readiness B")
    length = figure(page, "Length, whole session")
    page.locator("main").press("f")
    page.get_by_label("Minutes there are").fill("33")
    expect(page.get_by_role("region", name="Fit to time").locator("li").first).to_be_visible()
    page.get_by_label("Minutes there are").press("Enter")
    expect(page.get_by_role("button", name="Length, whole session").locator("b")).not_to_have_text(length)
    minutes, seconds = figure(page, "Length, whole session").split(":")
    assert int(minutes) * 60 + int(seconds) <= 33 * 60
    page.locator("main").press("Control+z")
    expect(page.get_by_role("button", name="Length, whole session").locator("b")).to_have_text(length)


def test_another_person_and_an_easier_option_show_the_difference(page: Page) -> None:
    document = {"fine_tally": 1, "title": "Options", "blocks": [{"clock": {"kind": "task"}, "rounds": 3, "steps": [
        {"movement": "push-up", "reps": 20, "options": [{"label": "knees", "level": "easier", "movement": "knee-push-up", "reps": 10}]}]}]}  # fmt: skip
    made = call(page, "POST", "/sessions", {"document": document})
    page.goto(f"/bench/{made['id']}")
    choose(page, "With what", "easier")
    reps = page.locator("dl.big > div").filter(has_text="Called")
    expect(reps).to_contain_text("Reps called −30")
    expect(reps.get_by_role("button")).to_contain_text("30 · 0 · 0")
    choose(page, "As whom", "Osk Brannock")
    expect(reps.get_by_role("button")).to_contain_text("30 · 0 · 0")
    choose(page, "With what", "the standard")
    expect(reps.get_by_role("button")).to_contain_text("60 · 0 · 0")


def test_versions_say_what_changed_and_come_back(page: Page) -> None:
    made = call(
        page,
        "POST",
        "/sessions/import",
        {"kind": "txt", "text": "Versioned\nMain: 30 s each, 3 rounds\n  burpee\n"},
    )
    page.goto(f"/bench/{made['id']}")
    block(page, 1).get_by_label("rounds", exact=True).fill("5")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    more(page, "Versions")
    panel = page.get_by_role("dialog", name="Versions")
    panel.get_by_role("button", name="what changed").click()
    expect(panel).to_contain_text("rounds: 3 → 5")
    panel.get_by_role("button", name="bring it back").click()
    expect(block(page, 1).get_by_label("rounds", exact=True)).to_have_value("3")


def test_the_list_is_searched_tagged_and_sorted(page: Page) -> None:
    open_list(page)
    titles = page.locator("tbody a.title")
    choose(page, "Tag", "strength")
    expect(titles).to_have_text(["Strength for the lift"])
    choose(page, "Tag", "any tag")
    page.get_by_label("Search").fill("pack ladder")
    expect(titles).to_have_text(["Pack ladder under a pulse"])
    page.get_by_label("Search").fill("")
    expect(titles).not_to_have_count(1)
    loads = page.locator("tbody tr td.load")
    most_first = sorted((int(text) for text in loads.all_inner_texts()), reverse=True)
    page.get_by_role("button", name="Load").click()
    expect(loads).to_have_text([str(load) for load in most_first])


def test_a_wrong_file_is_refused_with_its_line(page: Page, tmp_path: Path) -> None:
    wrong = tmp_path / "wrong.txt"
    wrong.write_text("Day\n10 burpees\n--- not for the wall ---\n{no\n")
    open_list(page)
    page.locator("input[type=file]").set_input_files(wrong)
    expect(page.get_by_role("alert")).to_contain_text("wrong.txt: line 4, column 1")


def test_pounds_are_typed_shown_and_kept_as_typed(page: Page) -> None:
    open_session(page, "Strength for the lift")
    load = page.get_by_role("textbox", name="load", exact=True).first
    unit = page.get_by_role("combobox", name="Unit of the load").first
    before = (load.input_value(), unit.input_value())
    unit.select_option("lb")
    load.fill("35")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.reload()
    expect(load).to_have_value("35")
    expect(unit).to_have_value("lb")
    page.get_by_role("tab", name="Board text").click()
    expect(page.locator(".cm-content")).to_contain_text("35 lb")
    page.get_by_role("tab", name="Blocks", exact=True).click()
    unit.select_option(before[1])
    load.fill(before[0])
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()


def test_the_nearest_movement_stands_first(page: Page) -> None:
    page.goto("/bench/new")
    page.get_by_role("textbox", name="Format").fill("even")
    page.get_by_role("textbox", name="Format").press("Enter")
    page.get_by_role("textbox", name="Movement 1").fill("squat")
    expect(page.locator(".found-list").get_by_role("option").first).to_contain_text("air squat")
    page.get_by_role("textbox", name="Movement 1").press("ArrowUp")
    page.get_by_role("textbox", name="Movement 1").press("Enter")
    expect(page.get_by_role("listitem").filter(has_text="air squat")).to_be_visible()


def test_what_is_chosen_twice_is_read_so_with_a_lighter_mark_and_can_be_forgotten(page: Page) -> None:
    text = "Ridge\nMain\n3 rounds\n10 push-ups\n10 squats\nrest 90 s\n\nFinisher\n20 burpees"
    squad = call(page, "GET", "/me")["squads"][0]["id"]
    for reading in ("between the rounds", "between the rounds"):
        page.goto("/bench/new")
        page.get_by_role("tab", name="Board text").click()
        board = page.get_by_role("textbox", name="Board text")
        board.fill(text)
        label = page.locator(".mark-label.open")
        label.first.click()
        page.get_by_role("button", name=reading).first.click()
        expect(page.locator(".kept-words")).to_have_count(1)
    assert [one["read_as"] for one in call(page, "GET", f"/squads/{squad}/habits")] == ["between the rounds"]
    page.goto("/bench/new")
    page.get_by_role("tab", name="Board text").click()
    page.get_by_role("textbox", name="Board text").fill(text)
    expect(page.locator(".habit-words")).to_have_count(1)
    expect(page.locator(".mark-label.open")).to_have_count(0)
    page.goto("/squad")
    habits = page.get_by_role("region", name="Habits of reading")
    expect(habits.get_by_role("listitem")).to_contain_text("a rest under the last line: between the rounds")
    habits.get_by_role("button", name="Forget it").press("Enter")
    expect(habits.get_by_text("None yet.")).to_be_visible()
