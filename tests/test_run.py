"""The one script: what it says when something is missing, ports, and what it does only once."""

from __future__ import annotations

import ast
import socket
import subprocess
import sys
from pathlib import Path

import pytest

import run

ROOT = Path(run.__file__).parent


def test_it_needs_nothing_but_the_standard_library() -> None:
    tree = ast.parse((ROOT / "run.py").read_text("utf-8"))
    names = {
        alias.name.split(".")[0]
        for node in ast.walk(tree)
        if isinstance(node, ast.Import)
        for alias in node.names
    } | {
        (node.module or "").split(".")[0]
        for node in ast.walk(tree)
        if isinstance(node, ast.ImportFrom)
    }
    assert names <= set(sys.stdlib_module_names) | {"__future__"}


def test_an_old_python_is_said_in_one_line(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setattr(run.sys, "version_info", (3, 9, 1))
    assert run.main(["check"]) == 2
    said = capsys.readouterr().err
    assert said.count("\n") == 1
    assert "it needs Python 3.11 or newer and this is 3.9.1" in said


@pytest.mark.parametrize(
    ("node", "words"),
    [(None, "it needs Node 20 or newer with npm"), ("v18.2.0", "Node 20 or newer and this is v18")],
)
def test_a_missing_or_old_node_is_said_in_one_line(
    node: str | None, words: str, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    monkeypatch.setattr(run, "DIST", tmp_path / "none")
    monkeypatch.setattr(run.shutil, "which", lambda _: node and "node")
    told = subprocess.CompletedProcess([], 0, stdout=f"{node}\n")
    monkeypatch.setattr(run.subprocess, "run", lambda *_, **__: told)
    with pytest.raises(run.CannotGoOn, match=words):
        run.check_versions()


def test_what_is_built_is_served_without_node(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    monkeypatch.setattr(run, "DIST", tmp_path)
    monkeypatch.setattr(run, "sources_changed", lambda: False)
    monkeypatch.setattr(run.shutil, "which", lambda _: None)
    run.check_versions()


def test_an_unknown_command_lists_those_there_are(capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(SystemExit):
        run.main(["fly"])
    assert "reset-demo" in capsys.readouterr().err


def test_another_port_is_found_when_the_default_is_taken(monkeypatch: pytest.MonkeyPatch) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        monkeypatch.setattr(run, "DEFAULT_PORT", taken.getsockname()[1])
        assert run.free_port(None) != run.DEFAULT_PORT


def test_a_port_asked_for_by_name_is_not_changed_in_silence() -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        with pytest.raises(run.CannotGoOn, match=f"port {port} is taken"):
            run.free_port(port)


def test_a_step_is_done_once_for_the_same_input(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    monkeypatch.setattr(run, "ROOT", tmp_path)
    source = tmp_path / "source.txt"
    stamp = tmp_path / "stamp"
    source.write_text("one")
    before = run.digest([source])
    stamp.write_text(before)
    assert run.is_stamped(stamp, run.digest([source]))
    source.write_text("two")
    assert not run.is_stamped(stamp, run.digest([source]))


def test_the_page_is_built_from_its_sources_and_the_apis_description() -> None:
    names = {path.relative_to(ROOT).as_posix() for path in run.web_sources()}
    assert {"web/src/main.tsx", "web/package-lock.json", "docs/formats/openapi.json"} <= names
    assert "web/src/api/schema.d.ts" not in names


def test_a_failing_step_is_named(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    def fail(*_: object) -> int:
        raise subprocess.CalledProcessError(3, ["some", "step"])

    monkeypatch.setattr(run, "check_versions", lambda: None)
    monkeypatch.setitem(run.COMMANDS, "check", fail)
    assert run.main(["check"]) == 3
    assert "This step failed: some step" in capsys.readouterr().err


def test_without_chromium_it_says_how_to_get_one(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.delenv("TUMBREL_CHROMIUM", raising=False)
    monkeypatch.setattr(run.shutil, "which", lambda _: None)
    with pytest.raises(run.CannotGoOn, match="TUMBREL_CHROMIUM"):
        run.find_chromium()
