"""Take the pictures of docs/screenshots from the demo data, in a database of their own."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

ROOT = Path(__file__).resolve().parents[1]
OUT = ROOT / "docs" / "screenshots"
FLAGS = (
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
)
LAPTOP = (1280, 800)
PHONE = (390, 844)


@dataclass(frozen=True)
class Shot:
    """One picture: where, how large, in which theme."""

    name: str
    place: str
    size: tuple[int, int] = LAPTOP
    theme: str = "light"
    press: tuple[str, ...] = ()


SHOTS = (
    Shot("board", "board"),
    Shot("board-edit", "board", press=("cell:d2-flight/chin",)),
    Shot("board-stops", "board", press=("fold",)),
    Shot("board-dim", "board", theme="dim"),
    Shot("board-phone", "board", size=PHONE),
    Shot("kit", "kit"),
    Shot("route", "route"),
    Shot("trips", "trips"),
)


@contextmanager
def served() -> Iterator[str]:
    """A server of its own with the demo trips, gone afterwards; yields its address."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    with tempfile.TemporaryDirectory() as data:
        words = [sys.executable, "-m", "tumbrel.site.serve", "--port", str(port), "--demo"]
        env = {**os.environ, "TUMBREL_DATA": data}
        process = subprocess.Popen(words, env=env, stdout=subprocess.DEVNULL)
        address = f"http://127.0.0.1:{port}"
        try:
            _wait_for(address)
            yield address
        finally:
            process.terminate()
            process.wait()


def _wait_for(address: str) -> None:
    for _ in range(200):
        try:
            urllib.request.urlopen(address, timeout=1).close()
            return
        except OSError:
            time.sleep(0.1)
    raise RuntimeError("the server did not start within 20 s")


@contextmanager
def browser() -> Iterator[Browser]:
    """The Chromium of the tests."""
    with sync_playwright() as playwright:
        path = os.environ.get("TUMBREL_CHROMIUM", "/usr/bin/chromium")
        chromium = playwright.chromium.launch(executable_path=path, args=list(FLAGS))
        yield chromium
        chromium.close()


def open_place(chromium: Browser, address: str, shot: Shot) -> Page:
    """The page of a shot, rehearsed and still."""
    width, height = shot.size
    context = chromium.new_context(viewport={"width": width, "height": height})
    page = context.new_page()
    page.add_init_script(f"localStorage.setItem('tumbrel.theme', '{shot.theme}')")
    page.goto(f"{address}/trips" if shot.place == "trips" else f"{address}/")
    if shot.place == "trips":
        page.get_by_role("link", name="Ostrel crossing").first.wait_for()
    else:
        page.get_by_test_id("headline").wait_for()
        if shot.place != "board":
            page.get_by_role("link", name=shot.place.capitalize(), exact=True).click()
            page.locator(f".{shot.place}-page").wait_for()
    for press in shot.press:
        if press.startswith("cell:"):
            page.locator(f'[data-cell="{press[5:]}"]').click()
        else:
            page.get_by_role("group", name="Day").get_by_role("button", name="All").click()
    page.wait_for_timeout(1200)
    return page


def main() -> None:
    """Take every shot, or those named."""
    wanted = set(sys.argv[1:])
    OUT.mkdir(parents=True, exist_ok=True)
    with served() as address, browser() as chromium:
        for shot in SHOTS:
            if wanted and shot.name not in wanted:
                continue
            page = open_place(chromium, address, shot)
            page.screenshot(path=OUT / f"{shot.name}.png")
            page.context.close()
            print(f"docs/screenshots/{shot.name}.png")


if __name__ == "__main__":
    main()
