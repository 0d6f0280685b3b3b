"""Faults of ours: a ledger that does not balance, a plan at which the engine failed.

Source: model/results#ledgers.
"""

from __future__ import annotations

from collections.abc import Iterator

from .registry import Found, Seen, check


@check("engine_failed", "stop")
def engine_failed(seen: Seen) -> Iterator[Found]:
    """A plan that could not be played through."""
    if seen.record.failed:
        yield Found("plan", {"kind": seen.record.failed})


@check("does_not_balance", "stop", harm=True)
def does_not_balance(seen: Seen) -> Iterator[Found]:
    """Energy, bytes or time of a camera, or of the whole trip, of which something is missing."""
    numbers = {camera.camera.id: n for n, camera in enumerate(seen.record.cameras)}
    told: set[str | None] = set()
    named = [one for one in seen.record.breaches if one.camera is not None]
    for breach in named or seen.record.breaches:
        if breach.camera in told:
            continue
        told.add(breach.camera)
        ledger = breach.why.partition(":")[0]
        if breach.camera is None:
            yield Found("plan", {"what": "this trip", "ledger": ledger})
        else:
            values = {"what": seen.camera(breach.camera).name, "ledger": ledger}
            yield Found(f"kit.cameras[{numbers[breach.camera]}]", values, breach.camera)
