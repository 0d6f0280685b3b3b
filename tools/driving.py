"""A server of its own and a Chromium to drive it: for tests in the page, pictures, benchmarks."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Browser, BrowserContext, Page, expect, sync_playwright

from tumbrel.compiled import PURE
from tumbrel.compiling import is_built

ROOT = Path(__file__).resolve().parents[1]
FLAGS = (
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
)


class Server:
    """Tumbrel served from a data folder; may be killed and started again on the same port."""

    def __init__(
        self, data: Path, *, demo: bool, port: int | None = None, logged: Path | None = None
    ) -> None:
        self.data = data
        self.logged = logged
        self.demo = demo
        self.port = port or _free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.printed = ""
        self._process: subprocess.Popen[str] | None = None

    def start(self) -> None:
        """Start and wait until it answers."""
        words = [sys.executable, "-m", "tumbrel.site.serve", "--port", str(self.port)]
        paths = os.pathsep.join([str(ROOT / "src"), os.environ.get("PYTHONPATH", "")])
        settings = {"DJANGO_SETTINGS_MODULE": "tumbrel.site.settings", "PYTHONPATH": paths}
        env = {**os.environ, **settings, "TUMBREL_DATA": str(self.data)}
        if not is_built():
            env[PURE] = "1"  # a server that is driven builds nothing behind
        words += ["--demo"] if self.demo else []
        with (self.logged or Path(os.devnull)).open("a") as log:
            self._process = subprocess.Popen(
                words,
                env=env,
                stdout=subprocess.PIPE,
                stderr=log if self.logged else None,
                text=True,
            )
        assert self._process.stdout is not None
        for line in self._process.stdout:
            if line.startswith("Tumbrel is at "):
                self.printed = line.split()[3]
                return
        raise RuntimeError(f"the server ended with {self._process.wait()} before it served")

    def enter(self, context: BrowserContext) -> None:
        """Open the printed address, once for all tabs of a window."""
        answer = context.request.get(self.printed)
        assert answer.ok, answer.text()

    def kill(self) -> None:
        """Kill it as a flat battery would."""
        self.end(signal.SIGKILL)

    def stop(self) -> None:
        """Stop it politely."""
        self.end(signal.SIGTERM)

    @property
    def pid(self) -> int:
        """The number of its process."""
        assert self._process is not None
        return self._process.pid

    def end(self, how: signal.Signals) -> None:
        """End it by a signal."""
        if self._process is not None:
            self._process.send_signal(how)
            self._process.wait()
            assert self._process.stdout is not None
            self._process.stdout.close()
            self._process = None


def _free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


@contextmanager
def served(
    data: Path, *, demo: bool = True, port: int | None = None, logged: Path | None = None
) -> Iterator[Server]:
    """A running server, stopped afterwards."""
    server = Server(data, demo=demo, port=port, logged=logged)
    server.start()
    try:
        yield server
    finally:
        server.stop()


@contextmanager
def chromium() -> Iterator[Browser]:
    """The Chromium that run.py found."""
    path = os.environ.get("TUMBREL_CHROMIUM", "/usr/bin/chromium")
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=path, args=list(FLAGS))
        yield browser
        browser.close()


def arrived(page: Page, place: str) -> None:
    """Wait until a place that was gone to is drawn: the address changes a moment before."""
    link = page.get_by_role("navigation", name="Places").get_by_role("link", name=place, exact=True)
    expect(link).to_have_attribute("aria-current", "page")
