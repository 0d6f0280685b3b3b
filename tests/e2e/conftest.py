"""The real page in a real browser, over a real server with a database of its own."""

from __future__ import annotations

import json
import os
import re
from collections.abc import Iterator
from contextlib import suppress
from itertools import count
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit

import pytest
from playwright.sync_api import Browser, BrowserContext, Error, Frame, Page, expect

from tests.folders import folder_of
from tools.driving import ROOT, Server, chromium, served

BUILT = ROOT / "web" / "dist" / "index.html"
RESTED = """() => new Promise((done) => {
  const words = /Opening (the|Tumbrel)|Opening…|Rehearsing (the|it)|Rehearsing…/;
  const rest = () => words.test(document.body.innerText) ? again() : done(true);
  let timer = 0;
  const again = () => { clearTimeout(timer); timer = setTimeout(rest, 300); };
  new MutationObserver(again).observe(document, {
    subtree: true, childList: true, attributes: true, characterData: true });
  again();
})"""
INSTALLATION = re.compile('name="tumbrel-installation" content="([^"]+)"')
_numbers = count(1)
_copies: list[tuple[str, dict[str, str]]] = []

# a busy machine is no fault of the page: what must come may take its time
PATIENCE_MS = 30_000
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    """One Chromium for all."""
    if not BUILT.exists():
        pytest.fail("the page is not built: run python3 run.py test")
    if "TUMBREL_CHROMIUM" not in os.environ:
        pytest.fail("no Chromium: run python3 run.py test, or name one in TUMBREL_CHROMIUM")
    with chromium() as started:
        yield started


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    """A server with the demo trip."""
    data = folder_of(tmp_path_factory, tmp_path_factory.mktemp("data"), demo=True)
    with served(data, demo=True) as started:
        yield started


@pytest.fixture
def demo_folder(tmp_path: Path, tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A data folder with the demo trips, for a server of a test's own."""
    return folder_of(tmp_path_factory, tmp_path / "own", demo=True)


@pytest.fixture
def empty_server(
    tmp_path: Path, tmp_path_factory: pytest.TempPathFactory, context: BrowserContext
) -> Iterator[Server]:
    """A server with nothing on it."""
    with served(folder_of(tmp_path_factory, tmp_path, demo=False), demo=False) as started:
        started.enter(context)
        yield started


class Window:
    """A browser's window that serves one test after the other: what is loaded once stays loaded.

    Between two tests its tabs are closed and all that the page kept in it is forgotten.
    """

    def __init__(self, browser: Browser, **how: Any) -> None:
        self.context = browser.new_context(**how)
        self.context.set_default_timeout(PATIENCE_MS)
        self.context.on("page", lambda page: page.on("framenavigated", self._opened))
        self.opened = set[str]()

    def _opened(self, frame: Frame) -> None:
        if frame.url.startswith("http") and frame.parent_frame is None:
            self.opened.add(frame.url)

    def places(self) -> set[str]:
        """The places that were opened."""
        paths = [urlsplit(url).path for url in self.opened]
        found = [(re.match("/trip/[0-9]+/([a-z]+)", path), path.strip("/")) for path in paths]
        return {trip[1] if trip else path or "trips" for trip, path in found}

    def tidy(self) -> None:
        """Delete the copies that a test opened, the list of trips stays short, and forget all."""
        for page in self.context.pages:
            page.close()
        while _copies:
            address, headers = _copies.pop()
            with suppress(Error):  # its server, a test's own, has gone
                self.context.request.delete(address, headers=headers)
        blank = self.context.new_page()
        session = self.context.new_cdp_session(blank)
        for origin in {"://".join(urlsplit(url)[:2]) for url in self.opened}:
            told = {"origin": origin, "storageTypes": "cookies,local_storage,indexeddb"}
            session.send("Storage.clearDataForOrigin", told)
        blank.close()
        self.context.clear_cookies()
        self.context.set_offline(False)
        self.opened.clear()


LAPTOP = {"viewport": {"width": 1280, "height": 800}, "accept_downloads": True}
PHONE = {"viewport": {"width": 390, "height": 844}, "has_touch": True}


@pytest.fixture(scope="session")
def laptop(browser: Browser) -> Window:
    """A laptop's window for all tests of a worker."""
    return Window(browser, **LAPTOP)


@pytest.fixture(scope="session")
def pocket(browser: Browser) -> Window:
    """A phone's window for all tests of a worker."""
    return Window(browser, **PHONE)


def lent(
    window: Window, server: Server, request: pytest.FixtureRequest
) -> Iterator[BrowserContext]:
    """A window for one test. Its file says in PLACES what it opens: changes choose by that."""
    server.enter(window.context)
    yield window.context
    places = window.places()
    window.tidy()
    assert places <= request.module.PLACES, "PLACES of this file must name what it opens"


@pytest.fixture
def context(
    laptop: Window, server: Server, request: pytest.FixtureRequest
) -> Iterator[BrowserContext]:
    """A laptop's window."""
    yield from lent(laptop, server, request)


@pytest.fixture
def page(context: BrowserContext) -> Iterator[Page]:
    """A tab whose script errors fail the test."""
    errors: list[str] = []
    made = context.new_page()
    made.on("pageerror", lambda error: errors.append(str(error)))
    yield made
    assert errors == []


@pytest.fixture
def phone(pocket: Window, server: Server, request: pytest.FixtureRequest) -> Iterator[Page]:
    """A tab of a phone's window."""
    for context in lent(pocket, server, request):
        yield context.new_page()


@pytest.fixture
def trip(page: Page, server: Server, demo_text: bytes) -> str:
    """A copy of the demo under a name of its own; gives its address."""
    return open_copy(page, server, demo_text)


def token_of(page: Page, server: Server) -> dict[str, str]:
    """Headers by which a change passes as the page's own."""
    own = INSTALLATION.search(page.request.get(f"{server.address}/trips").text())
    assert own is not None
    cookies = {one["name"]: one["value"] for one in page.context.cookies()}
    return {"X-CSRFToken": cookies[f"tumbrel_csrf_{own[1]}"], "Referer": server.address}


def open_copy(page: Page, server: Server, demo_text: bytes) -> str:
    """Open a copy of the demo through the API and give its address."""
    document: dict[str, Any] = json.loads(demo_text)
    document["trip"]["name"] = f"Crossing {os.getpid()}-{next(_numbers)}"
    headers = token_of(page, server)
    answer = page.request.post(
        f"{server.address}/api/plan-files",
        data=json.dumps(document),
        headers={**headers, "Content-Type": "application/json"},
    )
    assert answer.ok, answer.text()
    _copies.append((f"{server.address}/api/trips/{answer.json()['id']}", headers))
    return f"{server.address}/trip/{answer.json()['id']}"


def board(page: Page, address: str) -> None:
    """Open the board of a trip and wait until it is rehearsed."""
    page.goto(f"{address}/board")
    page.get_by_test_id("headline").wait_for()


def saved(page: Page, what: str = "The trip") -> None:
    """Wait until the head says that everything is with the server."""
    expect(page.get_by_role("status", name=f"{what}: keeping")).to_have_text("Kept")


def rested(page: Page) -> None:
    """Wait until all that is asked has come, but for what is found aside, and is drawn."""
    page.wait_for_function(RESTED)


def keep(page: Page) -> None:
    """Keep what the open strip has changed."""
    page.get_by_role("group", name="Not kept yet").get_by_role("button", name="Keep").click()


def unfold(page: Page, words: str = "to mind") -> None:
    """Open the findings of a severity at the board's side: "to mind", or "notes"."""
    page.locator("summary").filter(has_text=re.compile(f"^[0-9]+ {words}")).click()


def loss(page: Page, words: str | re.Pattern[str]) -> Any:
    """The row of a loss at the board's side."""
    return page.locator(".side-row:has(.side-row-head)").filter(has_text=words)


def roll(page: Page, cell: str) -> None:
    page.get_by_role("gridcell", name=cell).click()
    page.get_by_role("group", name="How it records").get_by_role("button", name="roll").click()
    keep(page)
    page.keyboard.press("Escape")


def kept(page: Page, trip: str) -> Any:
    """The trip as the server has it."""
    server, _, number = trip.rpartition("/trip/")
    return page.request.get(f"{server}/api/trips/{number}").json()


def press(page: Page, target: Any) -> None:
    """A mouse's button down and, a moment later, up, as a hand does it."""
    target.scroll_into_view_if_needed()
    box = target.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.evaluate("new Promise((done) => requestAnimationFrame(() => setTimeout(done, 80)))")
    page.mouse.up()


def binned(page: Page, server: Server, trip: str) -> str:
    """Delete a trip past the page; its name."""
    address = f"{server.address}/api/trips/{trip.rpartition('/')[2]}"
    name = page.request.get(address).json()["trip"]["name"]
    page.request.delete(address, headers=token_of(page, server))
    return str(name)
