"""Starting, moving and restoring: one clear line where it cannot be, and nothing overwritten."""

from __future__ import annotations

import os
import sqlite3
import stat
import subprocess
import sys
from contextlib import closing
from pathlib import Path

import pytest

from tests.folders import folder_of
from tests.serving.conftest import Visitor, small
from tools.driving import ROOT, Server, served


def run(module: str, data: Path, *words: str) -> subprocess.CompletedProcess[str]:
    """Run a module of the site on a data folder, to its end."""
    paths = os.pathsep.join([str(ROOT / "src"), os.environ.get("PYTHONPATH", "")])
    own = {"DJANGO_SETTINGS_MODULE": "tumbrel.site.settings", "PYTHONPATH": paths}
    env = {**os.environ, **own, "TUMBREL_DATA": str(data)}
    command = [sys.executable, "-m", module, *words]
    return subprocess.run(
        command, env=env, capture_output=True, text=True, check=False, timeout=120
    )


def started(data: Path) -> subprocess.CompletedProcess[str]:
    return run("tumbrel.site.serve", data, "--port", "8799")


@pytest.fixture(scope="session")
def kept(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A data folder with a trip in it, stopped."""
    data = folder_of(tmp_path_factory, tmp_path_factory.mktemp("kept") / "data", demo=False)
    with served(data, demo=False) as server:
        Visitor(server).trip(small("Kept"))
    return data


def copied(kept: Path, tmp_path: Path) -> Path:
    subprocess.run(["cp", "-r", str(kept), str(tmp_path / "data")], check=True)
    return tmp_path / "data"


def spoil_head(data: Path) -> None:
    (data / "tumbrel.sqlite3").write_bytes(b"not a database" * 100)


def cut_off(data: Path) -> None:
    whole = (data / "tumbrel.sqlite3").read_bytes()
    (data / "tumbrel.sqlite3").write_bytes(whole[: len(whole) * 2 // 3])


def make_newer(data: Path) -> None:
    with closing(sqlite3.connect(data / "tumbrel.sqlite3", isolation_level=None)) as base:
        base.execute(
            "INSERT INTO django_migrations (app, name, applied) VALUES ('trips', '0999_x', '')"
        )


def empty_secret(data: Path) -> None:
    (data / "secret").write_text("")


def empty_database(data: Path) -> None:
    (data / "copies").mkdir(exist_ok=True)
    (data / "copies" / "daily-2026-11-01.sqlite3").write_bytes(b"x")
    (data / "tumbrel.sqlite3").write_bytes(b"")


SPOILED = [
    (spoil_head, "is not a database of Tumbrel"),
    (cut_off, "damaged or cut off"),
    (make_newer, "was written by a newer Tumbrel (trips 0999_x)"),
    (empty_secret, "is empty or cut off"),
    (empty_database, "is not a database of Tumbrel"),
]


@pytest.mark.parametrize(("spoil", "words"), SPOILED, ids=lambda one: getattr(one, "__name__", ""))
def test_what_is_spoiled_is_told_in_one_line_and_left_as_it_is(
    kept: Path, tmp_path: Path, spoil: object, words: str
) -> None:
    data = copied(kept, tmp_path)
    assert callable(spoil)
    spoil(data)
    before = (data / "tumbrel.sqlite3").read_bytes()
    told = started(data)
    assert told.returncode == 2
    assert words in told.stderr
    assert len(told.stderr.strip().splitlines()) == 1
    assert "Traceback" not in told.stderr
    assert (data / "tumbrel.sqlite3").read_bytes() == before


def test_a_folder_that_cannot_be_written_to_is_told_in_one_line(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("here already")
    told = started(tmp_path / "file")
    assert told.returncode == 2
    assert "cannot be written to" in told.stderr
    assert len(told.stderr.strip().splitlines()) == 1


def test_a_second_tumbrel_on_the_same_folder_is_refused(tmp_path: Path) -> None:
    with served(tmp_path, demo=False):
        told = started(tmp_path)
    assert told.returncode == 2
    assert "another Tumbrel is running" in told.stderr


def test_folder_and_files_are_the_owners_alone(tmp_path: Path) -> None:
    data = tmp_path / "data"
    data.mkdir(mode=0o755)
    (data / "old").write_text("x")
    (data / "old").chmod(0o644)
    with served(data, demo=True) as server:
        Visitor(server).trip(small())
        for path in (data, *data.rglob("*")):
            mode = stat.S_IMODE(path.stat().st_mode)
            assert mode == (0o700 if path.is_dir() else 0o600), (path, oct(mode))


def test_a_spoiled_cache_is_made_anew(
    tmp_path: Path, tmp_path_factory: pytest.TempPathFactory
) -> None:
    folder_of(tmp_path_factory, tmp_path, demo=True)
    assert list((tmp_path / "cache").glob("*"))
    with served(tmp_path, demo=True) as server:
        visitor = Visitor(server)
        trip = visitor.ask("GET", "/trips").json()[0]
        document = visitor.ask("GET", f"/trips/{trip['id']}/file").json()
    for path in (tmp_path / "cache").glob("*"):
        path.write_bytes(b"spoiled")
    with served(tmp_path, demo=False) as server:
        visitor = Visitor(server)
        assert visitor.ask("POST", "/rehearsals", document).status_code == 200


def test_backup_while_it_runs_and_restore_bring_everything_back(tmp_path: Path) -> None:
    data, file = tmp_path / "data", tmp_path / "all.sqlite3"
    with served(data, demo=False) as server:
        visitor = Visitor(server)
        trip = visitor.trip(small("First"))
        named = {**trip["trip"], "name": "Second"}
        visitor.ask(
            "PUT", f"/trips/{trip['id']}", {"version": 1, "trip": named, "plan": trip["plan"]}
        )
        visitor.ask("POST", f"/trips/{trip['id']}/variants", {"name": "As it was"})
        visitor.ask("GET", f"/kits/{trip['kit_id']}/bench")
        before = _everything(visitor, trip["id"])
        assert run("tumbrel.site.keep", data, "backup", str(file)).returncode == 0
        refused = run("tumbrel.site.keep", data, "restore", str(file))
        assert refused.returncode == 2
        assert "Stop that one first" in refused.stderr
        visitor.ask("DELETE", f"/trips/{trip['id']}")
        visitor.trip(small("Later"))
    told = run("tumbrel.site.keep", data, "restore", str(file))
    assert told.returncode == 0, told.stderr
    assert "is kept in" in told.stdout
    beside = list((data / "copies").glob("before-restore-*.sqlite3"))
    assert len(beside) == 1
    with sqlite3.connect(beside[0]) as base:
        assert ("Later",) in base.execute("SELECT name FROM trips_trip").fetchall()
    with served(data, demo=False) as server:
        visitor = Visitor(server)
        assert _everything(visitor, trip["id"]) == before
        undone = visitor.ask("POST", f"/trips/{trip['id']}/undo", {"version": 2})
        assert undone.json()["trip"]["name"] == "First"


def _everything(visitor: Visitor, trip: int) -> list[object]:
    paths = ("/trips", "/kits", "/bin", f"/trips/{trip}", f"/trips/{trip}/variants")
    return [visitor.ask("GET", path).json() for path in paths]


@pytest.mark.parametrize("text", [b"", b"no database", b"SQLite format 3\0" + b"x" * 5000])
def test_a_restore_from_what_is_no_copy_changes_nothing(
    kept: Path, tmp_path: Path, text: bytes
) -> None:
    data = copied(kept, tmp_path)
    before = (data / "tumbrel.sqlite3").read_bytes()
    (tmp_path / "bad").write_bytes(text)
    told = run("tumbrel.site.keep", data, "restore", str(tmp_path / "bad"))
    assert told.returncode == 2
    assert len(told.stderr.strip().splitlines()) == 1
    assert (data / "tumbrel.sqlite3").read_bytes() == before


def test_a_spoiled_database_is_replaced_by_a_copy_and_kept_beside(
    kept: Path, tmp_path: Path
) -> None:
    data, file = copied(kept, tmp_path), tmp_path / "all.sqlite3"
    assert run("tumbrel.site.keep", data, "backup", str(file)).returncode == 0
    spoil_head(data)
    assert run("tumbrel.site.keep", data, "restore", str(file)).returncode == 0
    spoiled = list((data / "copies").glob("spoiled-*.sqlite3"))
    assert spoiled[0].read_bytes().startswith(b"not a database")
    with served(data, demo=False) as server:
        assert Visitor(server).ask("GET", "/trips").json()[0]["name"] == "Kept"


def test_save_everything_in_the_page_is_a_copy_that_restore_takes(
    own: Server, tmp_path: Path
) -> None:
    visitor = Visitor(own)
    visitor.trip(small("Taken along"))
    answer = visitor.ask("GET", "/everything")
    assert answer.headers["Content-Type"] == "application/vnd.sqlite3"
    file = tmp_path / "along.sqlite3"
    file.write_bytes(answer.content)
    other = tmp_path / "other"
    assert run("tumbrel.site.keep", other, "restore", str(file)).returncode == 0
    with served(other, demo=False) as server:
        assert Visitor(server).ask("GET", "/trips").json()[0]["name"] == "Taken along"


def test_the_log_holds_nothing_that_was_typed(tmp_path: Path) -> None:
    with served(tmp_path, demo=False, logged=tmp_path / "log") as server:
        visitor = Visitor(server)
        visitor.ask("POST", "/kits", {"name": "SECRETWORD", "kit": {"cameras": "SECRETWORD"}})
        visitor.ask("POST", "/trip-table", {"text": "SECRETWORD; SECRETWORD"})
        visitor.ask("GET", "/trips/SECRETWORD")
        with sqlite3.connect(tmp_path / "tumbrel.sqlite3") as base:
            base.execute('UPDATE trips_trip SET document = \'{"trip": "SECRETWORD"}\'')
        visitor.trip(small("SECRETWORD"))
        with sqlite3.connect(tmp_path / "tumbrel.sqlite3") as base:
            base.execute('UPDATE trips_trip SET document = \'{"trip": "SECRETWORD"}\'')
        assert visitor.ask("GET", "/trips/1").status_code in (422, 500)
    assert "SECRETWORD" not in (tmp_path / "log").read_text("utf-8")
