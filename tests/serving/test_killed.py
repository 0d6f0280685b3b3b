"""Killed, stopped and started again: what was acknowledged is there, and in one file."""

from __future__ import annotations

import random
import shutil
import signal
import sqlite3
import threading
import time
from pathlib import Path

import pytest
import requests

from tests.serving.conftest import Visitor, small
from tools.driving import Server, served


@pytest.mark.alone("kills come within hundredths of a second of a save")
def test_no_acknowledged_save_is_lost_to_kills(own: Server, request: pytest.FixtureRequest) -> None:
    """Ten kills (fifty with --long) in the midst of saves."""
    visitor = Visitor(own)
    trip = visitor.trip(small())
    path, version, said = f"/trips/{trip['id']}", trip["version"], trip["trip"]["name"]
    dice = random.Random(7)
    acknowledged = 0
    for kill in range(50 if request.config.getoption("--long") else 10):
        timer = threading.Timer(dice.uniform(0.02, 0.4), own.kill)
        timer.start()
        for number in range(10_000):
            name = f"Saved {kill}-{number}"
            named = {**trip["trip"], "name": name}
            body = {"version": version, "trip": named, "plan": trip["plan"]}
            try:
                answer = visitor.ask("PUT", path, body, timeout=20)
            except requests.RequestException:
                break
            assert answer.status_code == 200, answer.text
            version, said, acknowledged = answer.json()["version"], name, acknowledged + 1
        timer.join()
        own.start()
        state = visitor.ask("GET", path).json()
        # a save on its way when the kill came may have been kept without an answer
        assert state["version"] in (version, version + 1)
        if state["version"] == version:
            assert state["trip"]["name"] == said
        version, said = state["version"], state["trip"]["name"]
    assert acknowledged > 0
    steps = version - 1
    for _ in range(min(steps, 30)):
        answer = visitor.ask("POST", f"{path}/undo", {"version": version})
        assert answer.status_code == 200
        version = answer.json()["version"]


@pytest.mark.parametrize("how", [signal.SIGTERM, signal.SIGINT])
def test_after_a_stop_the_file_alone_holds_everything(
    own: Server, tmp_path: Path, how: signal.Signals
) -> None:
    visitor = Visitor(own)
    names = [visitor.trip(small(f"Trip {number}"))["trip"]["name"] for number in range(5)]
    own.end(how)
    alone = tmp_path / "alone.sqlite3"
    shutil.copyfile(own.data / "tumbrel.sqlite3", alone)
    with sqlite3.connect(alone) as base:
        assert [row[0] for row in base.execute("SELECT name FROM trips_trip ORDER BY id")] == names


def test_what_was_cut_off_in_the_midst_of_a_start_is_started_again(tmp_path: Path) -> None:
    server = Server(tmp_path, demo=True)
    cut_off = 0
    for pause_s in (0.3, 0.6, 1.0, 2.0):  # a quick machine has started by the last
        timer = threading.Timer(pause_s, server.kill)
        timer.start()
        try:
            server.start()
        except (RuntimeError, ValueError):
            cut_off += 1
        timer.join()
        time.sleep(0.2)
    assert cut_off >= 2
    with served(tmp_path, demo=True) as whole:
        assert len(Visitor(whole).ask("GET", "/trips").json()) == 3


def test_a_session_outlives_the_restart(own: Server) -> None:
    visitor = Visitor(own)
    own.kill()
    own.start()
    assert visitor.ask("GET", "/trips").status_code == 200
