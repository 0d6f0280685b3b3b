"""Nothing hangs: slow work and many callers keep nobody from saving."""

from __future__ import annotations

import socket
import threading
import time
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import psutil
import pytest
import requests

from tests.build import asks, leg, raw, set_up, stop
from tests.build import camera as cam
from tests.serving.conftest import Visitor, slow, small
from tools.driving import Server


@pytest.mark.alone("six slow rehearsals take every processor")
def test_a_save_completes_while_six_slow_rehearsals_run(server: Server, visitor: Visitor) -> None:
    trip = visitor.trip(small())
    answered: list[int] = []

    def rehearse(number: int) -> None:
        answer = Visitor(server).ask("POST", "/rehearsals", slow(f"Slow {number}"))
        answered.append(answer.status_code)

    with ThreadPoolExecutor(6) as threads:
        asked = [threads.submit(rehearse, number) for number in range(6)]
        time.sleep(2.5)
        before = len(answered)
        for version in range(1, 6):
            named = {**trip["trip"], "name": f"Saved {version}"}
            body = {"version": version, "trip": named, "plan": trip["plan"]}
            assert visitor.ask("PUT", f"/trips/{trip['id']}", body).status_code == 200
            assert visitor.ask("GET", "/trips").status_code == 200
        still = len(answered)
        assert before < 6
        assert still < 6  # saves did not wait for all of them
        for one in asked:
            one.result()
    assert set(answered) <= {200, 422, 503}


@pytest.mark.alone("it looks at which processes work")
def test_work_ends_when_whoever_asked_has_gone(server: Server, visitor: Visitor) -> None:
    """Eight reloads of a slow trip: the next question need not wait for any of them."""
    for number in range(8):
        try:
            visitor.ask("POST", "/rehearsals", slow(f"Left {number}"), timeout=(5, 0.4))
        except requests.exceptions.ReadTimeout:
            continue
    until = time.monotonic() + 60
    while _busy(server) and time.monotonic() < until:
        time.sleep(0.2)
    assert not _busy(server)
    assert visitor.ask("POST", "/rehearsals", small()).status_code == 200


def _busy(server: Server) -> bool:
    """Whether a process of the server's is working."""
    family = psutil.Process(server.pid).children(recursive=True)
    return any(one.cpu_percent(interval=0.3) > 40 for one in family)


def test_130_idle_connections_do_not_stop_service(server: Server, visitor: Visitor) -> None:
    idle = [socket.create_connection(("127.0.0.1", server.port)) for _ in range(130)]
    try:
        for _ in range(5):
            assert visitor.ask("GET", "/trips", timeout=20).status_code == 200
    finally:
        for one in idle:
            one.close()


def test_ten_demo_requests_at_once_make_three_trips(own: Server) -> None:
    visitors = [Visitor(own) for _ in range(10)]
    together = threading.Barrier(10)

    def ask(one: Visitor) -> int:
        together.wait()
        return one.ask("POST", "/demo").status_code

    with ThreadPoolExecutor(10) as threads:
        assert list(threads.map(ask, visitors)) == [200] * 10
    assert len(visitors[0].ask("GET", "/trips").json()) == 3
    assert len(visitors[0].ask("GET", "/kits").json()) == 3


def test_twice_the_same_save_is_kept_once(visitor: Visitor) -> None:
    trip = visitor.trip(small("Twice"))
    body = {"version": 1, "trip": {**trip["trip"], "name": "Once"}, "plan": trip["plan"]}
    with ThreadPoolExecutor(2) as threads:
        path = f"/trips/{trip['id']}"
        answers = list(threads.map(lambda _: visitor.ask("PUT", path, body).status_code, range(2)))
    assert sorted(answers) == [200, 409]


def test_one_second_clips_over_a_month_are_refused_before_they_are_played(
    visitor: Visitor,
) -> None:
    items = [leg(f"d{n}", 86_400) for n in range(30)]
    one = cam(modes=[{**cam()["modes"][0], "clip_limit_s": 1}])
    document = raw(items, [asks("cam", f"d{n}") for n in range(30)], cameras=[one])
    answer = visitor.ask("POST", "/rehearsals", document)
    assert answer.status_code == 422
    assert "2592000 takes and clips" in answer.json()["detail"]


def test_figures_that_never_end_open_and_are_not_played(visitor: Visitor) -> None:
    cameras: list[Any] = [
        cam("quick", set_ups=[set_up(tau_s=1e-6)]),
        cam("near", limits={"stop_c": 50.0, "restart_c": 49.999}),
    ]
    document = raw(
        [stop("camp", 600), leg("way", 3600)],
        [asks("quick", "way"), asks("near", "way")],
        cameras=cameras,
        trip={"name": "Never"},
    )
    trip = visitor.trip(document)
    told = visitor.ask("POST", "/rehearsals", document).json()
    assert told["verdict"]["covered"] is False
    assert {one["code"] for one in told["findings"]} == {"figure_mistaken"}
    assert len(told["findings"]) == 2
    body = {"version": 1, "name": "K", "kit": trip["kit"]}
    path = f"/kits/{trip['kit_id']}"
    assert visitor.ask("PUT", path, body).status_code == 200  # other edits of it are kept
    renamed = [{**one, "name": f"My {one['name']}"} for one in trip["kit"]["cameras"]]
    body = {"version": 2, "name": "K", "kit": {**trip["kit"], "cameras": renamed}}
    assert visitor.ask("PUT", path, body).status_code == 200
    worse = {**trip["kit"], "cameras": [*trip["kit"]["cameras"]]}
    worse["cameras"][1] = {**worse["cameras"][1], "limits": {"stop_c": 60, "restart_c": 59.9}}
    refused = visitor.ask("PUT", path, {"version": 3, "name": "K", "kit": worse})
    assert refused.status_code == 422
    assert "at least 2 K apart" in refused.json()["detail"]
