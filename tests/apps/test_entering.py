"""Nobody else: the printed address, other sites' pages, what static files and logs give away."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from django.conf import settings
from django.test import Client

from tumbrel.site.entering import ENTRY_KEY

PAGES = ("/", "/trips", "/trip/1/board", "/sums?sum=lasts&watts=3", "/static/icon.svg", "/nowhere")
VISIT = {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "navigate", "Sec-Fetch-Dest": "document"}


@pytest.mark.parametrize("path", PAGES)
def test_without_a_session_every_address_gives_the_one_page(db: None, path: str) -> None:
    answer = Client().get(path)
    assert answer.status_code == 401
    assert b"Open the address that Tumbrel printed" in answer.content
    assert ENTRY_KEY.encode() not in answer.content


@pytest.mark.parametrize("method", ["GET", "POST", "PUT", "DELETE"])
@pytest.mark.parametrize("path", ["/api/trips", "/api/kits/1", "/api/everything", "/api/nowhere"])
def test_without_a_session_the_api_says_what_to_do(db: None, path: str, method: str) -> None:
    answer = Client().generic(method, path)
    assert answer.status_code == 401
    problem = json.loads(answer.content)
    assert problem["type"] == "/problems/not_entered"
    assert "Open the address" in problem["detail"]


def test_the_printed_address_goes_on_to_where_it_was_asked(db: None) -> None:
    visitor = Client()
    visitor.get("/trip/7/board?at=3")
    answer = visitor.get("/enter", {"key": ENTRY_KEY})
    assert (answer.status_code, answer["Location"]) == (302, "/trip/7/board?at=3")
    assert visitor.get("/api/trips").status_code == 200


def test_the_whole_printed_address_may_be_pasted(db: None) -> None:
    visitor = Client()
    pasted = f" http://127.0.0.1:8737/enter?key={ENTRY_KEY} "
    assert visitor.get("/enter", {"key": pasted})["Location"] == "/"
    assert visitor.get("/api/trips").status_code == 200


@pytest.mark.parametrize("key", ["", "x", "{:.31}", "{}x", "key=", "\ud7ff"])
def test_another_key_opens_nothing(db: None, key: str) -> None:
    visitor = Client()
    assert visitor.get("/enter", {"key": key.format(ENTRY_KEY)}).status_code == 401
    assert visitor.get("/api/trips").status_code == 401


@pytest.mark.parametrize("went", ["//evil.example/", "https://evil.example/", "/\\evil", "x"])
def test_the_way_on_never_leads_elsewhere(db: None, went: str) -> None:
    visitor = Client()
    visitor.cookies[f"tumbrel_went_{settings.INSTALLATION}"] = went
    assert visitor.get("/enter", {"key": ENTRY_KEY})["Location"] == "/"


def test_a_session_outlives_a_restart_and_belongs_to_its_installation(client: Client) -> None:
    """It is signed by the installation's own secret, and nothing of it is kept by the server."""
    assert settings.SESSION_ENGINE.endswith("signed_cookies")
    (name,) = [one for one in client.cookies if "session" in one]
    assert name == f"tumbrel_session_{settings.INSTALLATION}"
    stranger = Client()
    stranger.cookies[name] = client.cookies[name].value[:-2] + "xx"
    assert stranger.get("/api/trips").status_code == 401


ASKED = [
    ({"Sec-Fetch-Site": "same-origin"}, "/api/trips", 200),
    ({"Sec-Fetch-Site": "none"}, "/api/trips", 200),
    ({}, "/api/trips", 200),
    ({"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "cors"}, "/api/trips", 403),
    ({"Sec-Fetch-Site": "same-site", "Sec-Fetch-Mode": "cors"}, "/api/trips", 403),
    ({"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "no-cors"}, "/static/icon.svg", 403),
    ({**VISIT, "Sec-Fetch-Dest": "iframe"}, "/trips", 403),
    (VISIT, "/api/everything", 403),
]


@pytest.mark.parametrize(("headers", "path", "status"), ASKED)
def test_what_pages_of_other_sites_ask_for_is_refused(
    client: Client, headers: dict[str, str], path: str, status: int
) -> None:
    assert client.get(path, headers=headers).status_code == status


def test_a_plain_visit_from_another_site_passes(
    client: Client, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    (tmp_path / "index.html").write_text("<head></head><p>here</p>")
    monkeypatch.setattr("tumbrel.site.urls.WEB", tmp_path)
    answer = client.get("/sums?sum=lasts", headers=VISIT)
    assert answer.status_code == 200
    assert settings.INSTALLATION.encode() in answer.content
    posted = client.post("/sums", headers=VISIT)
    assert posted.status_code == 403


def test_cookies_have_names_of_their_own_and_go_to_no_other_site(db: None) -> None:
    visitor = Client()
    visitor.get("/enter", {"key": ENTRY_KEY})
    answer = visitor.get("/trips")
    kept = {name: one for name, one in visitor.cookies.items() if one.value}
    assert set(kept) == {f"tumbrel_{kind}_{settings.INSTALLATION}" for kind in ("session", "csrf")}
    assert all(one["samesite"] in ("Lax", "Strict") for one in kept.values())
    assert answer["X-Content-Type-Options"] == "nosniff"
    assert "Access-Control-Allow-Origin" not in answer
