"""A real server with a data folder of its own, and a visitor who has opened the printed address."""

from __future__ import annotations

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
import requests

from tests.build import asks, battery, camera, leg, mode, raw, stop
from tests.folders import folder_of
from tools.driving import Server, served


class Visitor:
    """The API as a page sees it, over the network."""

    def __init__(self, server: Server) -> None:
        self.server = server
        self.session = requests.Session()
        self.enter()

    def enter(self) -> None:
        """Open the printed address, and a page that gives the token."""
        self.session.get(self.server.printed, timeout=60)
        self.session.get(f"{self.server.address}/trips", timeout=60)
        (token,) = [one.value for one in self.session.cookies if "_csrf_" in one.name]
        origin = {"X-CSRFToken": str(token), "Referer": self.server.address}
        self.session.headers.update(origin)

    def ask(self, method: str, path: str, body: object = None, **more: Any) -> requests.Response:
        """Call an address of the API."""
        data = None if body is None else json.dumps(body)
        head = {"Content-Type": "application/json"}
        address = f"{self.server.address}/api{path}"
        return self.session.request(
            method, address, data=data, headers=head, **{"timeout": 120, **more}
        )

    def trip(self, document: object) -> Any:
        """A document opened as a trip."""
        return self.ask("POST", "/plan-files", document).json()


@pytest.fixture(scope="session")
def server(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    """A server for all tests that leave others be; with nothing on it at first."""
    data = folder_of(tmp_path_factory, tmp_path_factory.mktemp("data"), demo=False)
    with served(data, demo=False) as started:
        yield started


@pytest.fixture
def visitor(server: Server) -> Visitor:
    """Somebody who has opened the printed address."""
    return Visitor(server)


@pytest.fixture
def own(tmp_path: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    """A server for one test alone, that may be killed."""
    data = folder_of(tmp_path_factory, tmp_path / "data", demo=False)
    with served(data, demo=False) as started:
        yield started


def small(name: str = "Trial") -> dict[str, Any]:
    """A small plan file: one camera, two batteries, a stop and a leg."""
    chosen = {"cameras": [{"camera": "cam", "battery": "a1", "card": "k1"}]}
    return raw(
        [stop("camp", 600), leg("way", 3600)],
        [asks("cam", "way")],
        batteries=[battery(), battery("a2")],
        plan=chosen,
        trip={"name": name},
    )


def slow(name: str = "Slow") -> dict[str, Any]:
    """A plan that takes many seconds to play: a thousand legs and stops, sixty batteries."""
    items = []
    for number in range(500):
        items += [leg(f"l{number}", 1800), stop(f"s{number}", 600)]
    cameras = [camera(f"c{number}", modes=[mode(mbps=1.0)]) for number in range(8)]
    asked = [asks(f"c{n}", f"l{place}") for n in range(8) for place in range(500)]
    return raw(
        items,
        asked,
        cameras=cameras,
        batteries=[battery(f"a{number}") for number in range(60)],
        trip={"name": name},
    )
