"""A client on loopback, and shorthands for its answers."""

from __future__ import annotations

import json
from typing import Any

import pytest
from django.test import Client

from tests.build import asks, battery, leg, raw, stop
from tumbrel.history.owner import local_owner


class Api:
    """The API as a page sees it."""

    def __init__(self, client: Client) -> None:
        self.client = client

    def ask(self, method: str, path: str, body: object = None, status: int = 200) -> Any:
        """Call an address, check the status, and give back its JSON."""
        text = body if isinstance(body, bytes | str) else json.dumps(body)
        answer = self.client.generic(
            method, f"/api{path}", text if body is not None else "", "application/json"
        )
        assert answer.status_code == status, answer.content
        if status >= 400:
            assert answer["Content-Type"] == "application/problem+json"
        return json.loads(answer.content) if answer.content else None

    def get(self, path: str, status: int = 200) -> Any:
        return self.ask("GET", path, None, status)

    def post(self, path: str, body: object = None, status: int = 200) -> Any:
        return self.ask("POST", path, body, status)

    def put(self, path: str, body: object, status: int = 200) -> Any:
        return self.ask("PUT", path, body, status)


@pytest.fixture
def client(client: Client, db: None) -> Client:
    """A client that has opened the printed address."""
    client.force_login(local_owner())
    return client


@pytest.fixture
def api(client: Client, db: None) -> Api:
    """The local owner's API."""
    return Api(client)


@pytest.fixture
def small() -> dict[str, Any]:
    """A small plan file: one camera, two batteries, a stop and a leg."""
    return raw(
        [stop("camp", 600), leg("way", 3600)],
        [asks("cam", "way")],
        batteries=[battery(), battery("a2")],
        plan={"cameras": [{"camera": "cam", "battery": "a1", "card": "k1"}]},
    )


@pytest.fixture
def trip(api: Api, small: dict[str, Any]) -> dict[str, Any]:
    """The small plan file, opened."""
    opened: dict[str, Any] = api.post("/plan-files", small)
    return opened
