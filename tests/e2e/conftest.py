"""The real page in a real browser, over a real server with a database of its own."""

from __future__ import annotations

import json
import os
import re
import shutil
from collections.abc import Iterator
from itertools import count
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect

from tools.driving import ROOT, Server, chromium, served

BUILT = ROOT / "web" / "dist" / "index.html"
_numbers = count(1)

# a busy machine is no fault of the page: what must come may take its time
PATIENCE_MS = 30_000
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    """One Chromium for all."""
    if not BUILT.exists():
        pytest.fail("the page is not built: run python3 run.py test")
    if "TUMBREL_CHROMIUM" not in os.environ and shutil.which("chromium") is None:
        pytest.fail("no Chromium: run python3 run.py test, or name one in TUMBREL_CHROMIUM")
    with chromium() as started:
        yield started


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    """A server with the demo trip."""
    with served(tmp_path_factory.mktemp("data"), demo=True) as started:
        yield started


@pytest.fixture
def empty_server(tmp_path: Path, context: BrowserContext) -> Iterator[Server]:
    """A server with nothing on it."""
    with served(tmp_path, demo=False) as started:
        started.enter(context)
        yield started


@pytest.fixture
def context(browser: Browser, server: Server) -> Iterator[BrowserContext]:
    """A laptop's window, with errors of the page failing the test."""
    made = browser.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True)
    made.set_default_timeout(PATIENCE_MS)
    server.enter(made)
    yield made
    made.close()


@pytest.fixture
def page(context: BrowserContext) -> Iterator[Page]:
    """A tab whose script errors fail the test."""
    errors: list[str] = []
    made = context.new_page()
    made.on("pageerror", lambda error: errors.append(str(error)))
    yield made
    assert errors == []


@pytest.fixture
def phone(browser: Browser, server: Server) -> Iterator[Page]:
    """A tab of a phone's window."""
    context = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
    context.set_default_timeout(PATIENCE_MS)
    server.enter(context)
    yield context.new_page()
    context.close()


@pytest.fixture
def trip(page: Page, server: Server, demo_text: bytes) -> str:
    """A copy of the demo under a name of its own; gives its address."""
    return open_copy(page, server, demo_text)


def token_of(page: Page, server: Server) -> dict[str, str]:
    """Headers by which a change passes as the page's own."""
    own = page.locator("meta[name=tumbrel-installation]").get_attribute("content")
    cookies = {one["name"]: one["value"] for one in page.context.cookies()}
    return {"X-CSRFToken": cookies[f"tumbrel_csrf_{own}"], "Referer": server.address}


def open_copy(page: Page, server: Server, demo_text: bytes) -> str:
    """Open a copy of the demo through the API and give its address."""
    document: dict[str, Any] = json.loads(demo_text)
    document["trip"]["name"] = f"Crossing {os.getpid()}-{next(_numbers)}"
    page.goto(f"{server.address}/trips")
    answer = page.request.post(
        f"{server.address}/api/plan-files",
        data=json.dumps(document),
        headers={**token_of(page, server), "Content-Type": "application/json"},
    )
    assert answer.ok, answer.text()
    return f"{server.address}/trip/{answer.json()['id']}"


def board(page: Page, address: str) -> None:
    """Open the board of a trip and wait until it is rehearsed."""
    page.goto(f"{address}/board")
    page.get_by_test_id("headline").wait_for()


def keep(page: Page) -> None:
    """Keep what the open strip has changed."""
    page.get_by_role("group", name="Not kept yet").get_by_role("button", name="Keep").click()


def unfold(page: Page, words: str = "to mind") -> None:
    """Open the findings of a severity at the board's side: "to mind", or "notes"."""
    page.locator("summary").filter(has_text=re.compile(f"^[0-9]+ {words}")).click()


def loss(page: Page, words: str) -> Any:
    """The row of a loss at the board's side."""
    return page.locator(".side-row:has(.side-row-head)").filter(has_text=words)


def roll(page: Page, cell: str) -> None:
    page.get_by_role("gridcell", name=cell).click()
    page.get_by_role("group", name="How it records").get_by_role("button", name="roll").click()
    keep(page)
    page.keyboard.press("Escape")
