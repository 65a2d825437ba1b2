"""How tests reach a screen, and what stands on it."""

from __future__ import annotations

import json
from typing import Any

from playwright.sync_api import Locator, Page, expect


def call(page: Page, method: str, path: str, body: Any = None) -> Any:
    """Ask the API as the page would: with its cookies and token."""
    if not any(cookie["name"] == "csrftoken" for cookie in page.context.cookies()):
        page.request.get("/bench")
    token = next(cookie["value"] for cookie in page.context.cookies() if cookie["name"] == "csrftoken")
    data = None if body is None else json.dumps(body)
    headers = {"X-CSRFToken": token, "Content-Type": "application/json"}
    answer = page.request.fetch(f"/api{path}", method=method, data=data, headers=headers)
    assert answer.status < 500, answer.text()
    return answer.json() if answer.status != 204 else None


def open_list(page: Page) -> None:
    page.goto("/bench")
    page.locator("main :is(tbody tr, li)").first.wait_for()


def open_session(page: Page, title: str) -> None:
    """The Bench with the session of that title, without the way over the list."""
    sessions = call(page, "GET", "/sessions")["items"]
    page.goto(next(f"/bench/{one['id']}" for one in sessions if one["title"] == title))
    expect(page.locator("dl.big")).to_be_visible()


def block(page: Page, number: int) -> Locator:
    return page.get_by_role("article", name=f"Block {number}, ")


def figure(page: Page, label: str) -> str:
    return page.get_by_role("button", name=label).locator("b").inner_text()
