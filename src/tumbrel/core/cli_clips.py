"""`tumbrel clips`: a folder of clips read and told on the command line."""

from __future__ import annotations

import sys
from pathlib import Path

from .bench.clips import ClipsQuestion, ClipsTold, tell_clips
from .document import BadDocument, Camera, FieldFault, read_document
from .formats.media import read_folder
from .wording.units import hours

WHOLE, SOME_SKIPPED, BAD_INPUT = 0, 1, 2


def say_bad(error: OSError | BadDocument, path: Path) -> int:
    """Say what is wrong with an input and where; the exit code of bad input."""
    if isinstance(error, OSError):
        print(f"{error.filename or path}: {error.strerror}", file=sys.stderr)
    else:
        for fault in error.faults:
            print(f"{path}: {fault.path}: {fault.why}", file=sys.stderr)
    return BAD_INPUT


def tell_folder(folder: Path, plan: Path, camera: str, out: Path | None) -> int:
    """Read a folder's clips for a camera of a plan file's kit, print them, return the exit code."""
    try:
        cameras = read_document(plan.read_bytes()).kit.cameras
        chosen = next((c for c in cameras if camera in (c.id, c.name)), None)
        if chosen is None:
            names = ", ".join(c.id for c in cameras) or "none"
            why = f"camera '{camera}' is not in the kit; it has {names}"
            raise BadDocument((FieldFault("kit.cameras", why),))
        if not folder.is_dir():
            raise BadDocument((FieldFault(str(folder), "is no folder"),))
        clips, skipped = read_folder(folder)
        told = tell_clips(ClipsQuestion(camera=chosen, clips=tuple(clips), skipped=tuple(skipped)))
        if out is not None:
            out.write_text(told.model_dump_json(indent=1) + "\n", encoding="utf-8")
    except (OSError, BadDocument) as error:
        return say_bad(error, plan)
    _print(told, chosen)
    return SOME_SKIPPED if told.skipped else WHOLE


def _print(told: ClipsTold, camera: Camera) -> None:
    names = {mode.id: mode.name for mode in camera.modes}
    print(f"{len(told.recordings)} recordings of {camera.name}.")
    for one in told.recordings:
        mode = names.get(one.mode or "", "a mode that the kit does not know")
        chapters = f", {len(one.names)} chapters" if len(one.names) > 1 else ""
        print(f"  {one.names[0]}: {one.minutes:.1f} min of {mode}, {one.mbps:.1f} Mbit/s{chapters}")
    for rate in told.rates:
        longest = hours(round(rate.longest_min))
        print(
            f"{names[rate.mode]}: {rate.mbps:.1f} Mbit/s measured, {rate.assumed_mbps:.1f} in the "
            f"kit; longest {longest}."
        )
    for file in told.skipped:
        print(f"skipped: {file.name} {file.why}")
