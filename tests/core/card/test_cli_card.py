"""`tumbrel card` on the command line."""

from __future__ import annotations

from pathlib import Path

import pytest

from tests.core.card.test_card import DEMOS
from tumbrel.core.cli import main
from tumbrel.core.cli_card import write_card

PLAN = next(file for file in DEMOS if "ostrel" in file.name)


@pytest.mark.parametrize(
    ("ending", "begins"),
    [(".csv", b"day,clock,"), (".ics", b"BEGIN:VCALENDAR"), (".gpx", b"<?xml")],
)
def test_it_writes_the_form_that_the_ending_names(
    tmp_path: Path, ending: str, begins: bytes, capsys: pytest.CaptureFixture[str]
) -> None:
    out = tmp_path / f"day{ending}"
    assert main(["card", str(PLAN), "--out", str(out)]) == 0
    assert out.read_bytes().startswith(begins)
    assert "moves" in capsys.readouterr().out


def test_one_file_holds_script_style_and_font(tmp_path: Path) -> None:
    built = tmp_path / "dist"
    (built / "pocket").mkdir(parents=True)
    (built / "assets").mkdir()
    (built / "pocket" / "card.js").write_text("let mark = 1;")
    (built / "pocket" / "card.css").write_text(".mark{}")
    (built / "assets" / "archivo-latin-wdth-normal-x.woff2").write_bytes(b"font")
    out = tmp_path / "day.html"
    assert write_card(PLAN, out, built) == 0
    text = out.read_text("utf-8")
    assert all(
        one in text for one in ("let mark = 1;", ".mark{}", "data:font/woff2;base64,Zm9udA==")
    )


@pytest.mark.parametrize(
    ("plan", "out", "why"),
    [
        (PLAN, "day.docx", "a card is written as .html, .ics, .gpx, .csv"),
        (Path("nowhere.json"), "day.csv", "No such file"),
        (PLAN, "day.html", "the page is not built here"),
    ],
)
def test_bad_input_is_told_and_nothing_is_written(
    tmp_path: Path, plan: Path, out: str, why: str, capsys: pytest.CaptureFixture[str]
) -> None:
    assert write_card(plan, tmp_path / out, tmp_path) == 2
    assert why in capsys.readouterr().err
    assert not (tmp_path / out).exists()
