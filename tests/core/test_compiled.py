"""The core in machine code is the same core: the same results to the last digit."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from pathlib import Path

import pytest

import tumbrel
from tests.reference import chains, many
from tests.reference.second import march
from tests.reference.second.world import __file__ as world_file  # noqa: F401 - for a process apart
from tests.reference.test_two_engines import MOVED, ONCE
from tools import second
from tumbrel import compiled, compiling
from tumbrel.core.document import read_document
from tumbrel.core.rehearsal.camera import camera_run
from tumbrel.core.rehearsal.engine.checkpoints import play_from
from tumbrel.core.report import rehearse, tell

ROOT = Path(__file__).resolve().parents[2]
KINDS = {  # every plan that the second engine is held against
    "plan": (many.plan_of, range(60)),
    "chain": (chains.chain_of, range(60)),
    "taken out": (chains.taken_out, range(12)),
    **{made.__name__: (made, range(12)) for made in MOVED},
}
wants_built = pytest.mark.skipif(not tumbrel.BUILT, reason="the core is not built here")


def told() -> dict[str, str]:
    """Rehearsals as they are told, by name: the demos and plans of every kind, edits resumed."""
    found: dict[str, str] = {}
    for path in sorted((ROOT / "src" / "tumbrel" / "demo").glob("*.json")):
        found[path.stem] = rehearse(read_document(path.read_bytes())).model_dump_json()
    for kind, (make, seeds) in KINDS.items():
        for seed in seeds:
            document = read_document(json.dumps(make(seed)))
            played, earlier = play_from(document)
            found[f"{kind} {seed}"] = tell(played).model_dump_json()
            fewer = {"assignments": document.plan.assignments[:-1]}
            edited = document.model_copy(update={"plan": document.plan.model_copy(update=fewer)})
            found[f"{kind} {seed}, edited"] = tell(play_from(edited, earlier)[0]).model_dump_json()
    for make, seed in ONCE:
        document = read_document(json.dumps(make(seed)))
        found[f"{make.__name__} {seed}, once"] = rehearse(document).model_dump_json()
    return found


def on_plain(code: str) -> str:
    """What some code prints in a process of its own, where nothing is in machine code."""
    env = {**os.environ, "TUMBREL_PURE": "1", "PYTHONPATH": f"{ROOT / 'src'}{os.pathsep}{ROOT}"}
    words = [sys.executable, "-c", code]
    return subprocess.run(
        words, env=env, cwd=ROOT, capture_output=True, text=True, check=True
    ).stdout


@wants_built
def test_the_built_core_tells_what_the_plain_one_tells_to_the_last_digit() -> None:
    assert (camera_run.__file__ or "").endswith(compiled.SUFFIX)
    code = "from tests.core.test_compiled import *; print(json.dumps([tumbrel.BUILT, told()]))"
    is_built, expected = json.loads(on_plain(code))
    assert not is_built
    mine = told()
    assert {name for name in mine if mine[name] != expected[name]} == set()
    assert len(expected) == 3 + 2 * (60 + 60 + 12 + 4 * 12) + len(ONCE)


def marched() -> list[object]:
    """What some plans come to in the second engine."""
    worlds = [march(make(3)) for make in (many.plan_of, chains.chain_of, many.movers)]
    return [
        [[cam.filmed_s, cam.used_wh, cam.body_c, cam.written, cam.missing] for cam in world.cams]
        + [[cell.charge, cell.cell_c] for cell in (*world.cells, *world.stores)]
        for world in worlds
    ]


@pytest.mark.skipif(not second.built().exists(), reason="the second engine is not built here")
def test_the_second_engine_in_machine_code_marches_as_its_sources_do() -> None:
    code = "from tests.core.test_compiled import *; print(json.dumps([world_file, marched()]))"
    built = f"from tools import second; assert second.use(); {code}"
    env = {**os.environ, "PYTHONPATH": f"{ROOT / 'src'}{os.pathsep}{ROOT}"}
    env.pop("TUMBREL_PURE", None)
    words = [sys.executable, "-c", built]
    told = subprocess.run(words, env=env, cwd=ROOT, capture_output=True, text=True, check=True)
    (file, mine), (plain_file, expected) = json.loads(told.stdout), json.loads(on_plain(code))
    assert (file.endswith(compiled.SUFFIX), plain_file.endswith(".py")) == (True, True)
    assert mine == expected


def test_the_plain_core_serves_when_it_is_wanted(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("TUMBREL_PURE", "1")
    assert not compiled.use_built()
    assert compiling.build_behind() is None


def test_what_is_built_is_named_by_its_sources(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    monkeypatch.delenv("TUMBREL_PURE", raising=False)
    monkeypatch.setenv("TUMBREL_BUILT", str(tmp_path))
    assert compiled.builds() == tmp_path
    assert not compiling.is_built()
    half = tmp_path / compiled.digest()
    half.mkdir()
    assert not compiled.use_built(), "a build that was cut off is never used"
    source = tmp_path / "charging.py"
    source.write_text("CHANGED = 1\n", encoding="utf-8")
    before = compiled.digest()
    monkeypatch.setattr(compiled, "CORE", tmp_path)
    assert compiled.digest() != before


def test_without_a_compiler_one_line_says_so(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.delenv("TUMBREL_PURE", raising=False)
    monkeypatch.setenv("TUMBREL_BUILT", str(tmp_path / "none"))
    monkeypatch.setenv("CC", "no-such-compiler")
    monkeypatch.setenv("PATH", str(tmp_path))
    assert compiling.build_behind() is None
    assert compiling.main([]) == 1
    lines = capsys.readouterr().out.splitlines()
    assert lines == [f"{compiling.SLOWLY}: no C compiler is there"] * 2


def test_a_build_that_fails_says_why_and_leaves_nothing(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setenv("TUMBREL_BUILT", str(tmp_path / "built"))
    monkeypatch.setattr(compiling, "has_compiler", lambda: True)
    monkeypatch.setattr(compiling, "HERE", tmp_path / "tumbrel")  # no package is there
    assert compiling.main([]) == 1
    told = capsys.readouterr().out
    assert told.startswith(compiling.SLOWLY)
    assert "error" in told
    assert list((tmp_path / "built").iterdir()) == []


def test_every_hot_source_is_there_and_none_is_a_document() -> None:
    names = {compiled.name_of(path) for path in compiled.hot_sources()}
    assert "tumbrel.core.rehearsal.camera.thermal" in names
    assert not any(".document" in name or ".state." in name for name in names)
