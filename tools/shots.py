"""Take the pictures of docs/screenshots from the demo data, in a database of their own."""

from __future__ import annotations

import re
import sys
import tempfile
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from playwright.sync_api import Browser, Page

from tools.driving import ROOT, Server, chromium, served

OUT = ROOT / "docs" / "screenshots"
LAPTOP = (1280, 800)
PHONE = (390, 844)


@dataclass(frozen=True)
class Shot:
    """One picture: where, how large, in which theme, and what is opened first."""

    name: str
    place: str
    size: tuple[int, int] = LAPTOP
    theme: str = "light"
    cell: str | None = None
    folded: bool = False
    trip: str | None = None
    camera: str | None = None
    to: str | None = None


SHOTS = (
    Shot("board", "board"),
    Shot("board-cure", "board"),
    Shot("board-dim", "board", theme="dim"),
    Shot("board-phone", "board", size=PHONE),
    Shot("board-cold", "board", trip="Skarre fell run"),
    Shot("kit", "kit"),
    Shot("bench", "bench"),
    Shot("bench-test", "bench", camera="Wheel", trip="Halde flat regatta"),
    Shot("route", "route"),
    Shot("board-edit", "board", cell="d2-flight/chin"),
    Shot("variants", "variants", size=(1280, 1180)),
    Shot("card", "card", size=PHONE),
    Shot("sums", "sums", theme="dim"),
    Shot("trips", "trips"),
)


LINKS = {
    "kit": "Kit",
    "bench": "Bench",
    "route": "Route",
    "variants": "Variants",
    "card": "Day card",
}


def open_place(browser: Browser, server: Server, shot: Shot) -> Page:
    """The page of a shot, rehearsed and still."""
    width, height = shot.size
    context = browser.new_context(viewport={"width": width, "height": height})
    server.enter(context)
    page, address = context.new_page(), server.address
    if shot.name == "bench-test":
        page.clock.install()
    page.add_init_script(f"localStorage.setItem('tumbrel.theme', '{shot.theme}')")
    if shot.place == "sums":
        page.goto(f"{address}/sums?sum=lasts&temp_c=-12&air_mps=6&watts=3.2")
        page.locator(".sum-answer").wait_for()
        return page
    elsewhere = shot.place == "trips" or shot.trip is not None
    page.goto(f"{address}/trips" if elsewhere else f"{address}/")
    if shot.trip is not None:
        page.get_by_role("link", name=shot.trip).first.click()
    if shot.place == "trips":
        page.get_by_role("link", name="Ostrel crossing").first.wait_for()
    else:
        page.get_by_test_id("headline").wait_for()
    if shot.place in LINKS:
        page.get_by_role("link", name=LINKS[shot.place], exact=True).click()
        page.locator(f".{shot.place}-page").wait_for()
    _opened(page, shot)
    if shot.to is not None:
        page.wait_for_timeout(1500)
        page.locator(shot.to).first.evaluate("e => e.scrollIntoView({ block: 'start' })")
    page.wait_for_timeout(1500)
    return page


def _opened(page: Page, shot: Shot) -> None:
    """What a shot shows of its place, opened."""
    if shot.camera is not None:
        page.get_by_role("group", name="Camera").get_by_role("button", name=shot.camera).click()
    if shot.folded:
        page.get_by_role("group", name="Day").get_by_role("button", name="All").click()
    if shot.cell is not None:
        page.locator(f'[data-cell="{shot.cell}"]').click()
    special = SPECIAL.get(shot.name)
    if special is not None:
        special(page)
    elif shot.place == "route":
        _hand_at_nine(page)


def _running_test(page: Page) -> None:
    page.get_by_role("button", name="Start a test").click()
    page.get_by_label("Set-up").first.select_option("wired")
    page.get_by_label("Room, °C").fill("23")
    page.get_by_role("button", name="Start the clock").click()
    page.clock.fast_forward("14:20")
    page.get_by_role("button", name="It warns of heat").click()
    page.clock.fast_forward("03:10")


def _hand_at_nine(page: Page) -> None:
    page.locator(".route-clock").first.wait_for(state="attached")
    page.get_by_role("slider", name="Along the trip").focus()
    for _ in range(3):
        page.keyboard.press("PageUp")
    page.evaluate("document.activeElement.blur()")


def _edit(page: Page) -> None:
    strip = page.get_by_role("dialog")
    strip.get_by_label("Mode").select_option("1080p30")
    strip.get_by_text("+32 min must").first.wait_for()
    page.wait_for_timeout(2500)  # what each other choice would change


def _variants(page: Page) -> None:
    page.get_by_role("button", name="Make the set").click()
    page.get_by_role("checkbox", name="Sharper picture").wait_for()
    page.get_by_role("button", name="Make the set").wait_for()
    for name in ("Let it roll", "Loop and keep"):
        page.get_by_role("checkbox", name=name).uncheck()
    page.get_by_role("checkbox", name="Lighter kit").check()
    page.get_by_role("button", name="Sun 13").click()
    page.wait_for_timeout(1500)


def _cure(page: Page) -> None:
    page.get_by_role("button", name=re.compile("^Cures of Chin on long flight")).click()
    page.get_by_text("Rehearsing cures…").wait_for(state="hidden")
    page.get_by_role("group", name="Cures").get_by_role("button", name="Try").first.click()
    page.get_by_text("Tried, not kept:").wait_for()


def _told(page: Page) -> None:
    """The board with the best cures told, none of them tried."""
    page.locator(".gap-cure").filter(has_text="min must").first.wait_for()
    page.wait_for_timeout(1000)
    page.keyboard.press("Escape")


def _measured(page: Page) -> None:
    """The shelf with what was measured and not taken beside it."""
    page.locator(".not-taken").wait_for()


def _card(page: Page) -> None:
    page.locator(".pocket-place").wait_for()
    while not page.locator(".pocket-place").inner_text().startswith("Brow launch"):
        page.get_by_role("button", name="Next stop").click()
    page.locator(".pocket-done").click()
    page.evaluate("scrollTo(0, 0)")


SPECIAL: dict[str, Callable[[Page], None]] = {
    "board": _told,
    "board-dim": _told,
    "board-cold": _told,
    "kit": _measured,
    "bench-test": _running_test,
    "board-edit": _edit,
    "variants": _variants,
    "board-cure": _cure,
    "card": _card,
}


STEP = re.compile(r"Type `([^`]+)`, then Enter|[Cc]lick \*\*([^*]+)\*\*|It says \*\*([^*]+)\*\*")
PICTURE = re.compile(r"^!\[[^]]*\]\(screenshots/([a-z0-9-]+)\.png\)")


def first_trip(browser: Browser, wanted: set[str]) -> None:
    """Follow docs/first-trip.md from an empty start, and take its pictures where they stand."""
    with tempfile.TemporaryDirectory() as data, served(Path(data), demo=False) as server:
        context = browser.new_context(viewport={"width": LAPTOP[0], "height": 640})
        server.enter(context)
        page = context.new_page()
        page.goto(server.address)
        page.get_by_label("Name of the trip").wait_for()
        for line in (ROOT / "docs" / "first-trip.md").read_text("utf-8").splitlines():
            picture = PICTURE.match(line)
            if picture and (not wanted or picture[1] in wanted):
                page.wait_for_timeout(2500)
                page.screenshot(path=OUT / f"{picture[1]}.png")
                print(f"docs/screenshots/{picture[1]}.png")
            for typed, clicked, said in STEP.findall(line) if line[:1].isdigit() else ():
                if typed:
                    page.locator("input:focus").wait_for()
                    page.keyboard.type(typed)
                    page.keyboard.press("Enter")
                elif clicked:
                    page.locator("button, a").filter(has_text=clicked).first.click()
                else:
                    page.get_by_text(said).first.wait_for()
        context.close()


def main() -> None:
    """Take every shot, or those named."""
    wanted = set(sys.argv[1:])
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, served(Path(data)) as server, chromium() as browser:
        for shot in SHOTS:
            if wanted and shot.name not in wanted:
                continue
            page = open_place(browser, server, shot)
            page.screenshot(path=OUT / f"{shot.name}.png")
            page.keyboard.press("Escape")  # what is drafted is not kept: the next shot is as before
            page.context.close()
            print(f"docs/screenshots/{shot.name}.png")
        first_trip(browser, wanted)


if __name__ == "__main__":
    main()
