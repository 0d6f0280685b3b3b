"""The bench kept: runs, tests by the clock, figures into the kit and back, tables and logs."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.test import Client

from tests.apps.conftest import Api
from tumbrel.bench.devices import reading_of, simulated
from tumbrel.bench.queries import notebook_row
from tumbrel.core.bench.notebook import RunningTest
from tumbrel.core.document import Kit
from tumbrel.history.refusals import NotThere
from tumbrel.simulators.rig import LONGEST_S

Json = dict[str, Any]
START = datetime(2027, 6, 1, 12, 0, tzinfo=UTC)


def run(name: str, minutes: float, end: str, **more: Any) -> Json:
    """A run of the small kit's camera, bare in a still room of 21 degC."""
    told = {"camera": "cam", "set_up": "bare", "mode": "m", "ambient_c": 21.0}
    return {"id": name, "minutes": minutes, "end": end, **told, **more}


RUNS = [run("r1", 80.0, "empty"), run("r2", 79.0, "empty"), run("r3", 81.0, "empty")]


@pytest.fixture
def bench(trip: Json) -> str:
    """The address of the small kit's bench."""
    return f"/kits/{trip['kit_id']}/bench"


def keep(api: Api, bench: str, status: int = 200, version: int | None = None, **parts: Any) -> Json:
    """Keep a notebook with some parts changed."""
    now = api.get(bench)
    body = {"version": now["version"] if version is None else version}
    kept: Json = api.put(bench, body | {"notebook": {**now["notebook"], **parts}}, status)
    return kept


def a_test(**more: Any) -> Json:
    told = {"id": "t1", "camera": "cam", "set_up": "bare", "mode": "m", "ambient_c": 21.0}
    return {**told, "started_at": START.isoformat(), **more}


# -- kept ------------------------------------------------------------------------------------------


def test_a_kit_has_an_empty_notebook_until_something_is_kept(api: Api, bench: str) -> None:
    first = api.get(bench)
    assert first["notebook"] == {"runs": [], "running": [], "taken": []}
    assert (first["version"], first["can_undo"]) == (1, False)
    kept = keep(api, bench, runs=RUNS)
    assert (kept["version"], kept["can_undo"]) == (2, True)
    assert [one["id"] for one in api.get(bench)["notebook"]["runs"]] == ["r1", "r2", "r3"]


def test_steps_go_back_and_forward(api: Api, bench: str) -> None:
    keep(api, bench, runs=RUNS[:1])
    keep(api, bench, runs=RUNS)
    back = api.post(f"{bench}/undo", {"version": 3})
    assert len(back["notebook"]["runs"]) == 1
    assert len(api.post(f"{bench}/redo", {"version": 4})["notebook"]["runs"]) == 3
    assert api.post(f"{bench}/redo", {"version": 5}, 409)["type"] == "/problems/nothing_to_undo"


def test_the_second_of_two_savers_is_told_and_loses_nothing(api: Api, bench: str) -> None:
    keep(api, bench, runs=RUNS[:1])
    problem = keep(api, bench, 409, version=1, runs=RUNS)
    assert problem["type"] == "/problems/stale"
    assert len(problem["current"]["notebook"]["runs"]) == 1
    assert len(api.get(bench)["notebook"]["runs"]) == 1


@pytest.mark.parametrize(
    ("parts", "path"),
    [
        ({"runs": [run("r", 0.0, "hot")]}, "notebook.runs[0].minutes"),
        ({"runs": [run("r", 9.0, "hot", warned_min=10.0)]}, "notebook.runs[0]"),
        ({"running": [a_test(), a_test(id="t2")]}, "notebook"),
    ],
)
def test_a_bad_notebook_is_refused_whole(api: Api, bench: str, parts: Json, path: str) -> None:
    problem = keep(api, bench, 422, **parts)
    assert problem["faults"][0]["path"] == path
    assert api.get(bench)["version"] == 1


def test_a_notebook_goes_with_its_kit_and_belongs_to_its_owner(api: Api, trip: Json) -> None:
    bench = f"/kits/{trip['kit_id']}/bench"
    keep(api, bench, runs=RUNS)
    stranger = User.objects.create(username="stranger")
    with pytest.raises(NotThere):
        notebook_row(stranger, trip["kit_id"])
    api.ask("DELETE", f"/trips/{trip['id']}", None, 204)
    api.ask("DELETE", f"/kits/{trip['kit_id']}", None, 204)
    assert api.get(bench, 404)["type"] == "/problems/not_there"


# -- figures ---------------------------------------------------------------------------------------


def asked(api: Api, trip: Json, camera: str = "cam") -> Json:
    """A taking from the versions that are there now."""
    kit = api.get(f"/kits/{trip['kit_id']}")
    bench = api.get(f"/kits/{trip['kit_id']}/bench")
    return {"camera": camera, "version": bench["version"], "kit_version": kit["version"]}


def draw_of(state: Json) -> Json:
    found: Json = state["kit"]["cameras"][0]["modes"][0]["draw"]
    return found


def test_figures_are_taken_into_the_kit_and_put_back(api: Api, trip: Json, bench: str) -> None:
    """The box's 4 W are 85.5 min; runs say 80, and nothing of the heat that was typed as none."""
    keep(api, bench, runs=RUNS)
    before = api.get(f"/kits/{trip['kit_id']}")
    taken = api.post(f"{bench}/take", asked(api, trip))
    assert draw_of(taken["kit"])["kind"] == "lasts"
    assert draw_of(taken["kit"])["minutes"] == pytest.approx(80.6, abs=0.6)
    assert taken["bench"]["notebook"]["taken"][0]["camera"] == "cam"
    again = api.post(f"{bench}/take", asked(api, trip))
    assert draw_of(again["kit"]) == draw_of(taken["kit"])
    back = api.post(f"{bench}/put-back", asked(api, trip))
    assert back["kit"]["kit"] == before["kit"]
    assert back["bench"]["notebook"]["taken"] == []
    undone = api.post(f"/kits/{trip['kit_id']}/undo", {"version": back["kit"]["version"]})
    assert draw_of(undone) == draw_of(taken["kit"])


def test_a_rate_that_charging_runs_taught_goes_with_the_family(
    api: Api, trip: Json, bench: str
) -> None:
    """20 to 80 % in 18.75 min are 1.92 an hour."""
    more = {"charging": True, "charge_start": 0.2, "charge_end": 0.8}
    runs = [run(f"c{n}", 18.75, "stopped", **more) for n in range(3)]
    keep(api, bench, runs=runs)
    before = api.get(f"/kits/{trip['kit_id']}")["kit"]["families"][0]
    told = api.post(f"{bench}/effects", {"camera": "cam"})["changes"]
    assert [one["figure"] for one in told] == [f"{before['name']} fills to 80 % in"]
    taken = api.post(f"{bench}/take", asked(api, trip))
    assert taken["kit"]["kit"]["families"][0]["rate_per_h"] == pytest.approx(1.9, abs=0.1)
    on = {"family": taken["kit"]["kit"]["families"][0], "runs": runs}
    on["taken"] = taken["bench"]["notebook"]["taken"][0]
    camera = taken["kit"]["kit"]["cameras"][0]
    answer = api.post("/bench/learned", {**on, "camera": camera})
    assert answer["taken_stands"]
    (rate,) = [one for one in answer["figures"] if one["kind"] == "rate_per_h"]
    low, value, high = (int(rate[key].removesuffix(" min")) for key in ("low", "value", "high"))
    assert low <= value <= high
    assert low < high
    back = api.post(f"{bench}/put-back", asked(api, trip))
    assert back["kit"]["kit"]["families"][0] == before


def test_steps_of_the_bench_leave_what_is_said_of_the_kit(api: Api, trip: Json, bench: str) -> None:
    """Else undone runs would count twice: in the kit's figures, and again once they are redone."""
    keep(api, bench, runs=RUNS)
    taken = api.post(f"{bench}/take", asked(api, trip))["bench"]
    undone = api.post(f"{bench}/undo", {"version": taken["version"]})
    assert undone["notebook"]["runs"] == []
    assert undone["notebook"]["taken"] == taken["notebook"]["taken"]
    redone = api.post(f"{bench}/redo", {"version": undone["version"]})
    assert redone["notebook"] == taken["notebook"]
    back = api.post(f"{bench}/put-back", asked(api, trip))["bench"]
    again = api.post(f"{bench}/undo", {"version": back["version"]})
    assert again["notebook"]["taken"] == []


def test_what_the_kit_took_back_itself_stands_no_more(api: Api, trip: Json, bench: str) -> None:
    keep(api, bench, runs=RUNS)
    taken = api.post(f"{bench}/take", asked(api, trip))
    on = {"family": trip["kit"]["families"][0], "runs": RUNS}
    on["taken"] = taken["bench"]["notebook"]["taken"][0]

    def stands() -> bool:
        camera = api.get(f"/kits/{trip['kit_id']}")["kit"]["cameras"][0]
        return bool(api.post("/bench/learned", {**on, "camera": camera})["taken_stands"])

    assert stands()
    api.post(f"/kits/{trip['kit_id']}/undo", {"version": taken["kit"]["version"]})
    assert not stands()


def test_nothing_is_taken_that_no_run_taught(api: Api, trip: Json, bench: str) -> None:
    problem = api.post(f"{bench}/take", asked(api, trip), 422)
    assert "no run has taught a figure" in problem["detail"]
    assert api.post(f"{bench}/take", asked(api, trip, "gone"), 404)["status"] == 404
    assert api.post(f"{bench}/put-back", asked(api, trip), 404)["status"] == 404


def test_a_kit_that_was_saved_in_between_is_not_written_over(
    api: Api, trip: Json, bench: str
) -> None:
    keep(api, bench, runs=RUNS)
    old = asked(api, trip)
    kit = api.get(f"/kits/{trip['kit_id']}")
    api.put(f"/kits/{trip['kit_id']}", {"version": 1, "name": "Mine", "kit": kit["kit"]})
    problem = api.post(f"{bench}/take", old, 409)
    assert problem["current"]["name"] == "Mine"
    assert api.get(bench)["notebook"]["taken"] == []


def test_each_trip_of_the_kit_says_what_would_change(api: Api, trip: Json, bench: str) -> None:
    """The hour on a battery of 85 min is filmed; on one of 50 min, ten minutes are missing."""
    keep(api, bench, runs=[run(f"r{n}", 50.0 + n / 10, "empty") for n in range(4)])
    effects = api.post(f"{bench}/effects", {"camera": "cam"})
    (effect,) = effects["trips"]
    assert effect["trip"] == trip["trip"]["name"]
    assert (effect["missing_before"], effect["missing_after"]) == (0, pytest.approx(10, abs=2))
    assert "more are missing" in effect["words"]
    assert "First to give out is then Cam" in effect["words"]
    assert effects["changes"][0]["figure"] == "M lasts"
    assert draw_of(api.get(f"/kits/{trip['kit_id']}"))["kind"] == "watts"


def test_learning_and_looking_keep_nothing(api: Api, trip: Json, bench: str) -> None:
    kit = trip["kit"]
    on = {"camera": kit["cameras"][0], "family": kit["families"][0], "runs": RUNS}
    told = api.post("/bench/learned", {**on, "trip": trip["trip"], "plan": trip["plan"]})
    assert told["counted"] == 3
    assert [one["run"] for one in told["runs"]] == ["r1", "r2", "r3"]
    air = {"mode": "m", "set_up": "bare", "ambient_c": 21.0}
    seen = api.post("/bench/look", {**on, "air": air})
    assert seen["modes"][0]["likely_min"] == pytest.approx(80.0, rel=0.03)
    assert seen == api.post("/bench/look", {**on, "air": air})
    assert api.post("/bench/look", {**on, "air": {**air, "mode": "gone"}}, 404)["status"] == 404
    assert api.post("/bench/look", {**on, "air": {**air, "set_up": "x"}}, 404)["status"] == 404
    assert api.get(bench)["version"] == 1


# -- tables, logs, clips ---------------------------------------------------------------------------


def test_runs_go_out_as_csv_and_come_in_again(api: Api, client: Client, bench: str) -> None:
    keep(api, bench, runs=RUNS)
    answer = client.get(f"/api{bench}/runs.csv")
    assert answer["Content-Type"].startswith("text/csv")
    assert 'filename="bench-runs.csv"' in answer["Content-Disposition"]
    keep(api, bench, runs=[])
    found = api.post(f"{bench}/table", {"text": answer.content.decode()})
    kept = keep(api, bench, runs=found["runs"])
    assert [one["minutes"] for one in kept["notebook"]["runs"]] == [80.0, 79.0, 81.0]


def test_a_pasted_table_keeps_nothing_and_avoids_names_that_run(api: Api, bench: str) -> None:
    keep(api, bench, running=[a_test(id="run")])
    found = api.post(f"{bench}/table", {"text": "m;80;empty;21", "camera": "cam"})
    assert found["runs"][0]["id"] == "run-2"
    problem = api.post(f"{bench}/table", {"text": "m;80;empty;21\nm;x;hot;9", "camera": "cam"}, 422)
    assert "line 2: minutes 'x' is no number" in problem["detail"]
    assert api.get(bench)["notebook"]["runs"] == []


def test_logs_and_clips_are_told(api: Api, trip: Json) -> None:
    log = api.post("/bench/meter-log", {"text": "time (s),watts\n0,4\n60,4\n120,4\n"})
    assert (log["minutes"], log["mean_w"]) == (2.0, 4.0)
    assert (
        api.post("/bench/meter-log", {"text": "a,b\n1,2\n3,4"}, 422)["faults"][0]["path"]
        == "line 1"
    )
    clip = {"name": "a.mp4", "bytes": 4_500_000_000, "duration_s": 600.0}
    clip |= {"width_px": 3840, "height_px": 2160, "fps": 30.0}
    told = api.post("/bench/clips", {"camera": trip["kit"]["cameras"][0], "clips": [clip]})
    assert told["rates"][0]["mbps"] == pytest.approx(60.0)


# -- the simulated camera --------------------------------------------------------------------------


def device(trip: Json, **more: Any) -> tuple[Kit, RunningTest]:
    test = RunningTest.model_validate(a_test(device="simulated", **more))
    return Kit.model_validate(trip["kit"]), test


def test_the_simulated_camera_goes_on_while_nobody_looks(trip: Json) -> None:
    """Played anew from its start at each look: the same as one that was looked at all along."""
    kit, test = device(trip)
    often = [simulated(kit, test, START + timedelta(minutes=m)).battery() for m in range(0, 18, 3)]
    assert often == sorted(often, reverse=True)
    assert often[0] == 1.0
    faster = test.model_copy(update={"speed": 60})
    late = simulated(kit, faster, START + timedelta(seconds=15))
    assert late.elapsed_s == simulated(kit, test, START + timedelta(minutes=15)).elapsed_s == 900.0
    assert late.battery() == often[5]


def test_it_ends_by_itself_and_then_stays_as_it_was(trip: Json) -> None:
    kit, test = device(trip)
    ended = simulated(kit, test, START + timedelta(hours=5))
    reading = reading_of(ended)
    assert reading.recording is False
    assert reading.end in ("empty", "hot")
    assert reading.minutes < LONGEST_S / 60.0
    later = simulated(kit, test, START + timedelta(days=3))
    assert later.elapsed_s == ended.elapsed_s


def test_a_reading_is_asked_for_by_its_test(api: Api, bench: str) -> None:
    now = datetime.now(UTC)
    keep(api, bench, running=[a_test(device="simulated", speed=600, started_at=now.isoformat())])
    reading = api.get(f"{bench}/tests/t1/reading")
    assert 0.0 <= reading["battery"] <= 1.0
    assert api.get(f"{bench}/tests/t2/reading", 404)["status"] == 404


def test_a_test_of_what_the_kit_no_longer_has_is_told_so(trip: Json) -> None:
    for part in ({"camera": "gone"}, {"mode": "gone"}, {"set_up": "gone"}):
        kit, test = device(trip, **part)
        with pytest.raises(NotThere):
            simulated(kit, test, START)


def test_demo_kits_come_with_runs_that_cannot_be_undone_away(api: Api) -> None:
    demo = api.post("/demo")
    state = api.get(f"/kits/{demo['kit_id']}/bench")
    assert {one["camera"] for one in state["notebook"]["runs"]} == {"chin", "boom", "foot"}
    assert state["can_undo"] is False
    assert any(one["excluded"] for one in state["notebook"]["runs"])


def test_what_was_measured_and_not_taken_stands_beside_the_kits_figure(
    api: Api, trip: dict[str, Any]
) -> None:
    """The kit's M lasts 85 min; a run of an hour says otherwise, until it is taken."""
    kit = trip["kit_id"]
    address = f"/kits/{kit}/bench/beside"
    assert api.post(address, {}) == []
    ran = {"id": "r", "camera": "cam", "set_up": "bare", "mode": "m", "ambient_c": 21,
           "minutes": 60, "end": "empty"}  # fmt: skip
    state = api.get(f"/kits/{kit}/bench")
    notebook = state["notebook"] | {"runs": [ran]}
    api.put(f"/kits/{kit}/bench", {"version": state["version"], "notebook": notebook})
    (told,) = api.post(address, {"ambient_c": 21})
    assert (told["camera"], told["mode"], told["end"]) == ("cam", "m", "empty")
    assert told["minutes"] == pytest.approx(60, abs=3)
    assert told["kit_minutes"] == pytest.approx(85, abs=2)
    assert api.post(address, {"set_up": "gone"}) != []  # then the camera's first
    api.post(address, {"ambient_c": 999}, 422)
    api.post("/kits/999/bench/beside", {}, 404)
