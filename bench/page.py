"""From an edit on the board to its drawing, and how much script the first load brings."""

from __future__ import annotations

import gzip
import re
import tempfile
from pathlib import Path
from statistics import median

from playwright.sync_api import Page

from bench.yardstick import line, yardstick_ms
from tools.driving import ROOT, chromium, served

EDITS = 20
DRAWN_MS = 100.0
SCRIPT_KB = 350.0

# Changes the mode of the open stretch and waits until the board's picture of it has been painted.
EDIT = """value => new Promise(done => {
  const select = [...document.querySelectorAll('.strip select')][0];
  const field = document.querySelector('.board-field svg');
  const start = performance.now();
  new MutationObserver((_, observer) => {
    observer.disconnect();
    requestAnimationFrame(() => setTimeout(() => done(performance.now() - start), 0));
  }).observe(field, { subtree: true, attributes: true, childList: true, characterData: true });
  const set = Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set;
  set.call(select, value);
  select.dispatchEvent(new Event('change', { bubbles: true }));
})"""
PING = """async () => {
  const start = performance.now();
  await (await fetch('/api/trips')).json();
  return performance.now() - start;
}"""


def main() -> bool:
    """Print the page's figures; True when all are met."""
    with tempfile.TemporaryDirectory() as data, served(Path(data)) as server, chromium() as browser:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(server.address)
        page.get_by_test_id("headline").wait_for()
        page.locator('[data-cell="d2-flight/chin"]').click()
        page.get_by_role("dialog").wait_for()
        page.wait_for_timeout(3000)
        now = yardstick_ms()
        pings = [page.evaluate(PING) for _ in range(EDITS)]
        edits = _edits(page)
        now = (now + yardstick_ms()) / 2
    print(f"baseline: a request that lists the trips {median(pings):8.1f} ms")
    met = line(f"edit to drawn, median of {EDITS}", median(edits), "ms", DRAWN_MS, now)
    print(f"  slowest of {EDITS}                          {max(edits):8.1f} ms")
    return line("script on first load, gzip", _script_kb(), "kB", SCRIPT_KB) and met


def _edits(page: Page) -> list[float]:
    modes = ("27k30", "1080p30", "4k30", "27k60")
    taken = []
    for number in range(EDITS + 1):
        taken.append(page.evaluate(EDIT, modes[number % len(modes)]))
        page.wait_for_timeout(900)  # the strip's own rehearsals of alternatives settle
    return taken[1:]


def _script_kb() -> float:
    """Every script that the page names, as gzip sends it [kB]."""
    dist = ROOT / "web" / "dist"
    names = re.findall(
        r'(?:src|href)="/static/([^"]+\.js)"', (dist / "index.html").read_text("utf-8")
    )
    return sum(len(gzip.compress((dist / name).read_bytes())) for name in names) / 1000


if __name__ == "__main__":
    main()
