"""Copies, clocks and file names.

Source: model/memory#copies, model/memory#risk, model/results#findings.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Final

from ..wording.units import counted, gigabytes
from .registry import Found, Seen, Values, check

APART_S: Final = 1.0
DAY_MS: Final = 86_400_000
CUT_BY: Mapping[str, str] = {
    "cut_short": "the hands' time ran out",
    "no_power": "the camera's battery ran out",
    "too_hot": "the camera grew too hot",
}


@check("one_copy_only", "note")
def one_copy_only(seen: Seen) -> Iterator[Found]:
    """Footage that at the trip's end exists in one place only."""
    if not seen.record.written.kit.drives:
        return
    end_ms = seen.record.timeline.duration_ms
    length_ms = sum(s.length_ms for s in seen.singles if s.to_ms > end_ms)
    if length_ms:
        yield Found("plan.copies", {"minutes": round(length_ms / 60_000)})


@check("copy_not_finished", "warn", curable=True)
def copy_not_finished(seen: Seen) -> Iterator[Found]:
    """A drive is full, or the stop too short: some clips were not copied."""
    kit = seen.record.written.kit
    names = {drive.id: drive.name for drive in kit.drives}
    names |= {card.id: card.name for card in kit.cards}
    for copied in seen.record.copied:
        if not copied.why_left:
            continue
        gb = gigabytes(copied.left_bytes)
        lacks = gigabytes(copied.lacks_bytes)
        values: Values = {
            "clips": counted(copied.left_clips, "clip"),
            "do": "does" if copied.left_clips == 1 else "do",
            "drive": names[copied.drive],
            "why": f"{lacks} GB of room are missing on it"
            if copied.why_left == "no_room"
            else f"{CUT_BY[copied.why_left]} with {gb} GB left",
        }
        item = seen.record.written.plan.copies[copied.number].item
        yield Found(f"plan.copies[{copied.number}]", values, None, item)


@check("copy_never_begun", "warn")
def copy_never_begun(seen: Seen) -> Iterator[Found]:
    """A copying that the plan wants, for which no hand was free or the camera was busy."""
    begun = seen.record.copies_begun
    for number, copy in enumerate(seen.record.written.plan.copies):
        if number not in begun:
            where = seen.record.timeline.by_id[copy.item].name
            yield Found(f"plan.copies[{number}]", {"where": where}, copy.camera, copy.item)


@check("wiped_with_one_copy", "warn")
def wiped_with_one_copy(seen: Seen) -> Iterator[Found]:
    """A wipe is asked where fewer than two copies exist elsewhere (model/memory#copies)."""
    for copied in seen.record.copied:
        copy = seen.record.written.plan.copies[copied.number]
        told = []
        if copied.wiped_single:
            told.append(f"{counted(copied.wiped_single, 'clip')} wiped with one copy elsewhere")
        if copied.not_wiped:
            least = "no copy" if copy.wipe == "anyway" else "fewer than two copies"
            told.append(f"{counted(copied.not_wiped, 'clip')} not wiped, with {least} elsewhere")
        if not told:
            continue
        values: Values = {"told": "; ".join(told)}
        yield Found(f"plan.copies[{copied.number}].wipe", values, copy.camera, copy.item)


@check("clock_not_set", "stop", curable=True)
def clock_not_set(seen: Seen) -> Iterator[Found]:
    """A camera without a clock may look as if it records, and its files lie about the time."""
    for number, run in enumerate(seen.record.cameras):
        if run.spans and not run.camera.clock_set:
            values: Values = {"camera": run.camera.name}
            yield Found(f"kit.cameras[{number}].clock_set", values, run.camera.id)


@check("clocks_drift_apart", "note")
def clocks_drift_apart(seen: Seen) -> Iterator[Found]:
    """By the trip's end the clocks of two cameras differ by more than a second."""
    used = [run for run in seen.record.cameras if run.spans]
    if len(used) < 2:
        return
    days = seen.record.timeline.duration_ms / DAY_MS
    slow = min(used, key=lambda run: run.camera.clock_drift_s_per_day)
    fast = max(used, key=lambda run: run.camera.clock_drift_s_per_day)
    drift = fast.camera.clock_drift_s_per_day - slow.camera.clock_drift_s_per_day
    if drift * days > APART_S:
        values: Values = {
            "one": slow.camera.name,
            "other": fast.camera.name,
            "seconds": round(drift * days, 1),
        }
        path = f"kit.cameras[{fast.index}].clock_drift_s_per_day"
        yield Found(path, values, fast.camera.id)


@check("file_names_collide", "warn")
def file_names_collide(seen: Seen) -> Iterator[Found]:
    """Two used cameras begin their files alike: copied to one folder, one overwrites the other."""
    first: dict[str, str] = {}
    for run in seen.record.cameras:
        prefix = run.camera.file_prefix.upper()
        if not prefix or not run.spans:
            continue
        if prefix in first:
            values: Values = {
                "one": first[prefix],
                "other": run.camera.name,
                "prefix": prefix,
            }
            yield Found(f"kit.cameras[{run.index}].file_prefix", values, run.camera.id)
        first.setdefault(prefix, run.camera.name)
