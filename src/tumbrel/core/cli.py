"""The command line: `tumbrel rehearse plan.json [--json out.json]`.

Exit 0 when all that was asked is filmed, 1 when not, 2 on bad input.
"""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Sequence
from pathlib import Path

from .document import BadDocument, PlanDocument, read_document
from .rehearsal.outcome import rehearse
from .rehearsal.result import Rehearsal
from .wording.units import clock, hours

COVERED, NOT_COVERED, BAD_INPUT = 0, 1, 2


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the command line and return its exit code."""
    parser = argparse.ArgumentParser(prog="tumbrel", description="Rehearse a filmed trip.")
    commands = parser.add_subparsers(dest="command", required=True)
    command = commands.add_parser("rehearse", help="play a plan file through, print the verdict")
    command.add_argument("plan", type=Path)
    command.add_argument("--json", type=Path, metavar="OUT", help="also write every figure here")
    commands.add_parser("schema", help="print the plan file's JSON Schema")
    chosen = parser.parse_args(arguments)
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
    except OSError as error:
        print(f"{plan}: {error.strerror}", file=sys.stderr)
        return BAD_INPUT
    except BadDocument as error:
        for fault in error.faults:
            print(f"{plan}: {fault.path}: {fault.why}", file=sys.stderr)
        return BAD_INPUT
    if out is not None:
        try:
            out.write_text(told.model_dump_json(indent=1) + "\n", encoding="utf-8")
        except OSError as error:
            print(f"{out}: {error.strerror}", file=sys.stderr)
            return BAD_INPUT
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
