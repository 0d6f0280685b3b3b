"""The three demo trips: each is rehearsed on the command line, and something decides each."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

import pytest

import tumbrel.demo
from tumbrel.core.cli import main
from tumbrel.core.document import read_document
from tumbrel.core.light import haurwitz_w_m2, sun_heights_of_day, tilted_w_m2
from tumbrel.core.rehearsal.result.result import Rehearsal
from tumbrel.core.report import rehearse

DEMO = Path(tumbrel.demo.__path__[0])
NAMES = ["ostrel-crossing", "skarre-fell-run", "halde-flat-regatta"]


def told(name: str) -> Rehearsal:
    """A demo rehearsed."""
    return rehearse(read_document((DEMO / f"{name}.json").read_bytes()))


def causes(rehearsal: Rehearsal) -> set[str]:
    """What gives out in it."""
    return {str(loss.cause) for camera in rehearsal.cameras for loss in camera.losses}


@pytest.mark.parametrize("name", NAMES)
def test_the_command_line_rehearses_each_demo(
    name: str, capsys: pytest.CaptureFixture[str], tmp_path: Path
) -> None:
    out = tmp_path / "out.json"
    assert main(["rehearse", str(DEMO / f"{name}.json"), "--json", str(out)]) == 1
    said = capsys.readouterr().out
    assert "musts are broken." in said
    kept = Rehearsal.model_validate_json(out.read_text("utf-8"))
    assert kept.verdict.headline == said.splitlines()[0]


def test_in_the_main_demo_every_pattern_is_asked_and_the_bank_is_fed_by_the_sun() -> None:
    document = read_document((DEMO / "ostrel-crossing.json").read_bytes())
    kinds = {assignment.pattern.kind for assignment in document.plan.assignments}
    assert kinds == {"roll", "takes", "loop", "windows", "interval", "armed"}
    rehearsal = rehearse(document)
    given = {source.id: source.given_wh for source in rehearsal.sources}
    assert given["sheet"] > 5.0
    assert given["plug"] > 5.0
    assert {"hot", "empty", "card_full"} <= causes(rehearsal)


def test_the_cold_decides_the_dog_sled_run() -> None:
    rehearsal = told("skarre-fell-run")
    assert "cold" in causes(rehearsal)
    codes = {finding.code for finding in rehearsal.findings}
    assert {"cold_holds_charge", "charge_refused_cold", "bank_switched_off"} <= codes


def test_a_warm_pocket_would_have_helped_there() -> None:
    """Batteries out of the anorak instead of the bag: one must less is broken, more is filmed."""
    document = read_document((DEMO / "skarre-fell-run.json").read_bytes())
    pockets = tuple(
        battery.model_copy(update={"pocket": "anorak"}) for battery in document.kit.batteries
    )
    warm = document.model_copy(
        update={"kit": document.kit.model_copy(update={"batteries": pockets})}
    )
    before, after = (rehearse(one).verdict for one in (document, warm))
    assert after.broken_musts < before.broken_musts
    assert after.filmed_ms > before.filmed_ms


def test_heat_decides_the_regatta_and_the_wheels_current_cures_it() -> None:
    rehearsal = told("halde-flat-regatta")
    assert "hot" in causes(rehearsal)
    given = {source.id: source.given_wh for source in rehearsal.sources}
    assert given["hub"] > 3.0
    mast = next(camera for camera in rehearsal.cameras if camera.camera == "mast")
    assert not [gap for gap in mast.gaps if gap.item == "heat-3" and not gap.note]


def test_a_panel_turned_to_the_winter_sun_gets_more() -> None:
    """At 44 N on 21 December; level it gets just what Haurwitz says."""
    day = 21_174  # 2027-12-21, days from 1970
    level = tilted_w_m2(44.0, 0.0, 0.0, day * 144, 144, 0.0, 180.0)
    south = tilted_w_m2(44.0, 0.0, 0.0, day * 144, 144, 50.0, 180.0)
    north = tilted_w_m2(44.0, 0.0, 0.0, day * 144, 144, 50.0, 0.0)
    by_hand = sum(haurwitz_w_m2(h) for h in sun_heights_of_day(44.0, 0.0, 0.0, day))
    assert sum(level) == pytest.approx(by_hand, rel=1e-3)
    assert sum(south) > 1.5 * sum(level) > 2.0 * sum(north)


def test_a_reader_that_has_read_enough_is_no_fault() -> None:
    run = "from tumbrel.core.cli import main; raise SystemExit(main())"
    command = [sys.executable, "-c", run, "rehearse", str(DEMO / f"{NAMES[0]}.json")]
    with subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE) as ran:
        assert ran.stdout is not None
        assert ran.stderr is not None
        ran.stdout.close()
        said = ran.stderr.read()
    assert (ran.returncode, said) == (141, b"")
