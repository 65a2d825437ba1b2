"""How punctual the floor is: five minutes in Chromium on a slowed processor, then a sleep of ten minutes.

`./tally bench floor [minutes]`. Lateness of tones is that of their time on the audio clock against the run's own
clock; of the picture, that of each second shown. What loudspeakers and screens add is not in it.
"""

from __future__ import annotations

import statistics
import sys
import tempfile
from pathlib import Path
from typing import Any

from playwright.sync_api import CDPSession, Page, sync_playwright

from tests.bench.bench_load import loop
from tests.browser.conftest import FLAGS
from tests.browser.floors import PHONE, on_today, windows
from tests.browser.squads import sign_in
from tests.serving import Server

SLOWED = 4
WORK_S, REST_S = 20, 10
ASLEEP_S = 600
WATCH = """
window.jumped = 0
const told = Date.now
Date.now = () => told() + window.jumped
window.tones = []
const start = OscillatorNode.prototype.start
OscillatorNode.prototype.start = function (when) {
  const due = Date.now() + (when - this.context.currentTime) * 1000
  window.tones.push([Date.now(), due])
  return start.call(this, when)
}
window.shown = []
window.watch = () => {
  const time = document.querySelector('.time')
  new MutationObserver(() => window.shown.push([Date.now(), time.textContent]))
    .observe(time, { characterData: true, childList: true, subtree: true })
}
"""
BEGUN = """
() => new Promise((done) => {
  const asked = indexedDB.open('floor')
  asked.onsuccess = () => {
    const all = asked.result.transaction('runs').objectStore('runs').getAll()
    all.onsuccess = () => done(all.result.at(-1).begun * 1000)
  }
})
"""


def seconds_of(text: str) -> int:
    minutes, seconds = text.split(":")
    return int(minutes) * 60 + int(seconds)


def change_moments(begun: float, minutes: float) -> list[float]:
    """When beats end, in milliseconds since 1970."""
    moments, at = [], begun
    while at < begun + minutes * 60_000:
        at += (WORK_S if len(moments) % 2 == 0 else REST_S) * 1000
        moments.append(at)
    return moments[:-1]


def tone_lateness(tones: list[list[float]], moments: list[float]) -> list[float]:
    """For each change the distance of the tone that was last set for it, in milliseconds."""
    late = []
    for moment in moments:
        near = [due for was_set, due in tones if abs(due - moment) < 900 and was_set < moment]
        late.append(abs(near[-1] - moment) if near else 1000.0)
    return late


def picture_lateness(shown: list[list[Any]], begun: float) -> list[float]:
    """How long after a second was due it was shown, in milliseconds."""
    late = []
    for at, text in shown:
        into = ((at - begun) / 1000) % (WORK_S + REST_S)
        left = WORK_S - into if into < WORK_S else WORK_S + REST_S - into
        off = (seconds_of(text) - left) * 1000
        if -500 < off < 1500:
            late.append(off)
    return late


def busy(devtools: CDPSession) -> float:
    told = {one["name"]: one["value"] for one in devtools.send("Performance.getMetrics")["metrics"]}
    return float(told["TaskDuration"])


def slept(page: Page) -> float:
    """Milliseconds from waking to the right beat on the screen."""
    return float(
        page.evaluate(
            """async (asleep) => {
              const before = document.querySelector('.time').textContent
              window.jumped += asleep * 1000
              const woke = performance.now()
              document.dispatchEvent(new Event('visibilitychange'))
              while (document.querySelector('.time').textContent === before) await new Promise((go) => setTimeout(go, 2))
              return performance.now() - woke
            }""",
            ASLEEP_S + 7,
        )
    )


def measured(page: Page, minutes: float) -> None:
    devtools = page.context.new_cdp_session(page)
    devtools.send("Performance.enable")
    rounds = int((minutes * 60 + ASLEEP_S * 2) // (WORK_S + REST_S))
    page.goto(f"/floor/start/{on_today(page, windows(WORK_S, rounds, rest=REST_S))}")
    devtools.send("Emulation.setCPUThrottlingRate", {"rate": SLOWED})
    page.get_by_role("button", name="Start").click()
    page.locator(".time").wait_for()
    page.evaluate("window.watch()")
    page.mouse.click(200, 400)
    began = busy(devtools)
    page.wait_for_timeout(minutes * 60_000)
    share = (busy(devtools) - began) / (minutes * 60)
    begun = page.evaluate(BEGUN)
    tones = tone_lateness(page.evaluate("window.tones"), change_moments(begun, minutes))
    picture = picture_lateness(page.evaluate("window.shown"), begun)
    print(f"tones, {len(tones)} changes: {statistics.median(tones):.0f} ms late, the worst {max(tones):.0f} ms")
    print(
        f"picture, {len(picture)} seconds: {statistics.median(picture):.0f} ms late, the worst {max(picture):.0f} ms"
    )
    print(f"main thread: {share:.1%} of the time, at a {SLOWED}th of the speed")
    print(f"after a sleep of {ASLEEP_S // 60} minutes: the right beat after {slept(page):.0f} ms")


def main() -> None:
    minutes = float(sys.argv[1]) if len(sys.argv) > 1 else 5.0
    server = Server(Path(tempfile.mkdtemp()))
    server.start()
    try:
        with sync_playwright() as playwright:
            chromium = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
            context = chromium.new_context(viewport=PHONE, base_url=server.url)  # type: ignore[arg-type]
            page = context.new_page()
            sign_in(page, server.url)
            page.add_init_script(WATCH)
            print(f"loop of ten million additions: {loop():.1f} s")
            measured(page, minutes)
            chromium.close()
    finally:
        server.stop()


if __name__ == "__main__":
    main()
