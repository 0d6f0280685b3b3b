"""Who may come in, whose rows are whose, how the database is set, and how errors are told."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest
from django.conf import settings
from django.contrib.auth import get_user_model
from django.db import connection
from django.test import Client

from tests.apps.conftest import Api
from tumbrel.core.document import PlanDocument
from tumbrel.history.owner import local_owner
from tumbrel.kit.actions import make_kit
from tumbrel.site.local import is_loopback
from tumbrel.site.logs import Wordless
from tumbrel.site.openapi import openapi_text

ROOT = Path(__file__).resolve().parents[2]


@pytest.mark.parametrize(
    ("address", "own"),
    [
        ("127.0.0.1", True),
        ("127.8.8.8", True),
        ("::1", True),
        ("192.168.1.7", False),
        ("10.0.0.1", False),
        ("2001:db8::1", False),
        ("", False),
        ("localhost", False),
    ],
)
def test_loopback_is_this_machine(address: str, own: bool) -> None:
    assert is_loopback(address) is own


@pytest.mark.parametrize("path", ["/", "/api/trips", "/trip/1/board"])
def test_anyone_else_is_refused(db: None, path: str) -> None:
    answer = Client().get(path, REMOTE_ADDR="192.0.2.7")
    assert answer.status_code == 403
    assert json.loads(answer.content)["type"] == "/problems/not_local"
    assert get_user_model().objects.count() == 0


def test_another_host_name_is_refused(client: Client, db: None) -> None:
    """A page elsewhere that points its own name at this machine gets nothing."""
    assert client.get("/api/trips", headers={"host": "evil.example"}).status_code == 400


def test_a_change_without_the_pages_token_is_refused(db: None) -> None:
    strict = Client(enforce_csrf_checks=True)
    strict.force_login(local_owner())
    strict.get("/api/trips")
    answer = strict.post("/api/kits", {"name": "K"}, content_type="application/json")
    assert answer.status_code == 403
    assert json.loads(answer.content)["type"] == "/problems/not_from_page"


def test_the_local_owner_has_no_password(api: Api) -> None:
    assert api.get("/trips") == []
    owner = local_owner()
    assert get_user_model().objects.get() == owner
    assert not owner.has_usable_password()


def test_no_one_sees_another_owners_rows(api: Api) -> None:
    other = get_user_model().objects.create(username="other")
    theirs = make_kit(other, "Theirs")
    assert api.get("/kits") == []
    api.get(f"/kits/{theirs.pk}", 404)
    api.ask("DELETE", f"/kits/{theirs.pk}", None, 404)
    body = {"version": 1, "name": "Mine now", "kit": {}}
    api.put(f"/kits/{theirs.pk}", body, 404)
    asked = {"name": "T", "start": "2027-06-12T06:00:00", "kit_id": theirs.pk}
    api.post("/trips", asked, 404)


@pytest.mark.parametrize(("pragma", "value"), [("foreign_keys", 1), ("synchronous", 2)])
def test_the_database_is_set_as_it_should(db: None, pragma: str, value: Any) -> None:
    with connection.cursor() as cursor:
        cursor.execute(f"PRAGMA {pragma}")
        assert cursor.fetchone()[0] == value


def test_transactions_begin_immediate_and_the_file_is_in_wal() -> None:
    options = settings.DATABASES["default"]["OPTIONS"]
    assert options["transaction_mode"] == "IMMEDIATE"
    assert "journal_mode=WAL" in options["init_command"]


def test_an_unknown_address_of_the_api_is_no_page(client: Client, db: None) -> None:
    answer = client.get("/api/nowhere")
    assert answer.status_code == 404
    assert answer["Content-Type"] == "application/problem+json"


def test_a_failure_of_ours_is_a_problem_and_is_logged(
    api: Api, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    def fail(*_: Any) -> None:
        raise RuntimeError("a fault of ours")

    monkeypatch.setattr("tumbrel.trips.api.trip_lines", fail)
    problem = api.get("/trips", 500)
    assert problem["detail"] == "Tumbrel failed at this (RuntimeError). Nothing was changed."
    (record,) = [one for one in caplog.records if one.name == "tumbrel.site.problems"]
    line = Wordless().format(record)
    assert "RuntimeError" in line
    assert "problems.py" in line or "api.py" in line
    assert "a fault of ours" not in line  # the text of an error may quote what was typed


def test_the_page_may_load_nothing_from_elsewhere(
    client: Client, db: None, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    (tmp_path / "index.html").write_text("<p>here</p>")
    monkeypatch.setattr("tumbrel.site.urls.WEB", tmp_path)
    answer = client.get("/trip/1/board")
    assert answer.content == b"<p>here</p>"
    assert "default-src 'self'" in answer["Content-Security-Policy"]
    assert answer["Cache-Control"] == "no-cache"


def test_a_page_that_is_not_built_says_how(
    client: Client, db: None, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("tumbrel.site.urls.WEB", tmp_path)
    answer = client.get("/")
    assert answer.status_code == 503
    assert b"python3 run.py demo" in answer.content


def test_a_body_that_is_no_json_is_told_as_a_problem(api: Api) -> None:
    problem = api.post("/kits", "{", 400)
    assert problem["status"] == 400


def test_the_committed_description_is_the_apis_own() -> None:
    kept = (ROOT / "docs" / "formats" / "openapi.json").read_text("utf-8")
    assert json.loads(kept) == json.loads(openapi_text())


def test_the_api_takes_the_cores_own_document() -> None:
    """One definition from core to browser: the schema's plan document is the core's."""
    described = json.loads(openapi_text())["components"]["schemas"]
    own = PlanDocument.model_json_schema(ref_template="#/components/schemas/{model}")
    assert described["PlanDocument"]["properties"].keys() == own["properties"].keys()
    assert described["Camera"]["required"] == own["$defs"]["Camera"]["required"]
