"""The command line: `tumbrel rehearse plan.json` and, after it, `card`, `clips` and `schema`.

Exit 0 when all that was asked is filmed (or every clip is whole), 1 when not, 2 on bad input.
"""

from __future__ import annotations

import argparse
import json
import os
import sys
from collections.abc import Sequence
from pathlib import Path

from .cli_card import write_card
from .cli_clips import say_bad, tell_folder
from .document import BadDocument, PlanDocument, read_document
from .rehearsal.result.result import Rehearsal
from .report import rehearse
from .wording.units import clock, hours

COVERED, NOT_COVERED = 0, 1
READ_ENOUGH = 141  # as a shell tells of what a closed pipe ended


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the command line and return its exit code; a reader that has read enough is no fault."""
    try:
        code = _run(arguments)
        sys.stdout.flush()
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())  # nor for the last flush
        return READ_ENOUGH
    return code


def _run(arguments: Sequence[str] | None) -> int:
    parser = argparse.ArgumentParser(prog="tumbrel", description="Rehearse a filmed trip.")
    commands = parser.add_subparsers(dest="command", required=True)
    command = commands.add_parser("rehearse", help="play a plan file through, print the verdict")
    command.add_argument("plan", type=Path)
    command.add_argument("--json", type=Path, metavar="OUT", help="also write every figure here")
    clips = commands.add_parser("clips", help="read a card's clips: lengths, rates, chapters")
    clips.add_argument("folder", type=Path)
    clips.add_argument("plan", type=Path, help="a plan file with the kit")
    clips.add_argument("camera", help="the camera that wrote them: its name or key in the kit")
    clips.add_argument("--json", type=Path, metavar="OUT", help="also write every figure here")
    card = commands.add_parser("card", help="write the card to take along")
    card.add_argument("plan", type=Path)
    card.add_argument("--out", type=Path, required=True, help="a .html, .ics, .gpx or .csv file")
    commands.add_parser("schema", help="print the plan file's JSON Schema")
    chosen = parser.parse_args(arguments)
    if chosen.command == "clips":
        return tell_folder(chosen.folder, chosen.plan, chosen.camera, chosen.json)
    if chosen.command == "card":
        return write_card(chosen.plan, chosen.out)
    if chosen.command == "schema":
        print(schema_text(), end="")
        return COVERED
    return _rehearse(chosen.plan, chosen.json)


def schema_text() -> str:
    """The plan file's JSON Schema as text."""
    return json.dumps(PlanDocument.model_json_schema(), indent=1, sort_keys=True) + "\n"


def _rehearse(plan: Path, out: Path | None) -> int:
    try:
        document = read_document(plan.read_bytes())
        told = rehearse(document)
        if out is not None:
            out.write_text(told.model_dump_json(indent=1) + "\n", encoding="utf-8")
    except (OSError, BadDocument) as error:
        return say_bad(error, plan)
    _print(document, told)
    return COVERED if told.verdict.covered else NOT_COVERED


def _print(document: PlanDocument, told: Rehearsal) -> None:
    print(told.verdict.headline)
    print(told.verdict.detail)
    names = {camera.id: camera.name for camera in document.kit.cameras}
    for camera in told.cameras:
        for loss in camera.losses:
            when = clock(document.trip, told.start_utc, loss.start_ms)
            lost = hours(loss.minutes) if loss.minutes else "under 1 min"
            what = f"{lost} from {when}, {loss.text} ({loss.importance})"
            print(f"  {names[camera.camera]}: {what}")
    for finding in told.findings:
        print(f"{finding.severity}: {finding.text} [{finding.path}]")


if __name__ == "__main__":
    sys.exit(main())
