"""How long it takes from a hand on the screen to what it asked for; run with ./tally bench. Not a test."""

from __future__ import annotations

import re
import statistics
import tempfile
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, sync_playwright

from tests.browser.conftest import FLAGS
from tests.browser.controls import choose
from tests.browser.screens import call
from tests.browser.squads import sign_in
from tests.serving import Server

TIMES = 21
WATCH = """
async ([label, value]) => {
  const input = [...document.querySelectorAll('article input')].find(
    (one) => document.querySelector(`label[for="${one.id}"]`)?.textContent.trim() === label)
  const figure = [...document.querySelectorAll('.tally .el-collapse-item__header')].find((one) => one.textContent.includes('Length, whole'))
  const shown = new Promise((done) => {
    const watcher = new MutationObserver(() => requestAnimationFrame(() => { watcher.disconnect(); done(performance.now()) }))
    watcher.observe(figure, { characterData: true, subtree: true, childList: true })
  })
  const began = performance.now()
  input.value = value
  input.dispatchEvent(new Event('input', { bubbles: true }))
  return (await shown) - began
}
"""


CHOOSE = """
async (key) => {
  const began = performance.now()
  const holds = [...document.querySelectorAll('.holds .el-segmented__item')].find((one) => one.textContent.trim().startsWith(key))
  const page = document.querySelector('.page')
  const shown = new Promise((done) => {
    const watcher = new MutationObserver(() => {
      if (page.getAttribute('aria-busy') === 'true') return
      requestAnimationFrame(() => { watcher.disconnect(); done(performance.now()) })
    })
    watcher.observe(page, { attributes: true, characterData: true, subtree: true, childList: true })
  })
  holds.click()
  return (await shown) - began
}
"""


def document(rounds: int) -> dict[str, Any]:
    steps = [{"movement": key} for key in ("air-squat", "push-up", "swing", "burpee", "sit-up")]
    clock = {"kind": "intervals", "work_s": 20, "rest_s": 10}
    return {
        "fine_tally": 1,
        "title": f"{rounds * 5} windows",
        "blocks": [{"clock": clock, "rounds": rounds, "steps": steps}],
    }


def measure(page: Page, rounds: int) -> float:
    made = call(page, "POST", "/sessions", {"document": document(rounds)})
    page.goto(f"/bench/{made['id']}")
    page.locator("dl.big").wait_for()
    page.wait_for_timeout(1500)
    taken = []
    for number in range(TIMES):
        taken.append(page.evaluate(WATCH, ["work", str(21 + number)]))
        page.wait_for_timeout(400)
    return statistics.median(taken)


SHOWN = """
document.addEventListener('DOMContentLoaded', () => {
  const watcher = new MutationObserver(() => {
    if (!document.querySelector('dl.big')) return
    watcher.disconnect()
    requestAnimationFrame(() => { window.shownAt = performance.now() })
  })
  watcher.observe(document.body, { childList: true, subtree: true })
})
"""


def opening(page: Page) -> float:
    """From the address of a session to its figures on the Bench, nothing of the page kept from before."""
    made = call(page, "POST", "/sessions", {"document": document(17)})
    taken = []
    for _ in range(TIMES):
        context = page.context.browser.new_context(  # type: ignore[union-attr]
            viewport={"width": 1280, "height": 800}, storage_state=page.context.storage_state()
        )
        fresh = context.new_page()
        fresh.add_init_script(SHOWN)
        fresh.goto(f"{page.url.split('/bench')[0]}/bench/{made['id']}", wait_until="commit")
        fresh.locator("dl.big").wait_for()
        fresh.wait_for_timeout(300)
        taken.append(fresh.evaluate("window.shownAt"))
        context.close()
    return statistics.median(taken)


def compare(page: Page) -> float:
    """From choosing what is held still to the table of eight columns."""
    page.goto("/side-by-side?movements=push-up,goblet-squat,bent-row,swing")
    page.locator(".page table").first.wait_for()
    for name in ("Rising windows", "Rounds until done"):
        choose(page, "Add a format", re.compile(f"^{name}"))
        page.wait_for_timeout(800)
    taken = []
    for number in range(TIMES):
        taken.append(page.evaluate(CHOOSE, ("work time", "total time")[number % 2]))
        page.wait_for_timeout(300)
    return statistics.median(taken)


def main() -> None:
    server = Server(Path(tempfile.mkdtemp()))
    server.start()
    try:
        with sync_playwright() as playwright:
            chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
            page = chromium.new_context(viewport={"width": 1280, "height": 800}, base_url=server.url).new_page()
            sign_in(page, server.url)
            for rounds in (17, 200):
                print(f"{rounds * 5} windows: {measure(page, rounds):.0f} ms at the median of {TIMES}")
            print(f"the Bench from its address: {opening(page):.0f} ms at the median of {TIMES}")
            print(f"eight columns side by side: {compare(page):.0f} ms at the median of {TIMES}")
            chromium.close()
    finally:
        server.stop()


if __name__ == "__main__":
    main()
