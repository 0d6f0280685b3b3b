"""The registry of checks and what they are given."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field

from ..parameters import Defaults
from ..rehearsal.engine import Played
from ..rehearsal.result import CameraResult, Finding, Severity
from ..wording.findings import finding_words

Value = str | float | int
Values = Mapping[str, Value]


@dataclass(frozen=True)
class Seen:
    """What a check may look at."""

    played: Played
    cameras: tuple[CameraResult, ...]
    defaults: Defaults


@dataclass(frozen=True)
class Found:
    """One thing found: where it stands and the values of its sentence."""

    path: str
    values: Values = field(default_factory=dict)
    camera: str | None = None
    item: str | None = None


@dataclass(frozen=True)
class Check:
    """A class of findings."""

    code: str
    severity: Severity
    look: Callable[[Seen], Iterator[Found]]


CHECKS: dict[str, Check] = {}
SEVERITY_ORDER = {"stop": 0, "warn": 1, "note": 2}


def check(code: str, severity: Severity) -> Callable[..., Callable[[Seen], Iterator[Found]]]:
    """Register a generator function as the check of a code."""

    def register(look: Callable[[Seen], Iterator[Found]]) -> Callable[[Seen], Iterator[Found]]:
        if code in CHECKS:
            raise ValueError(f"two checks are called {code}")
        CHECKS[code] = Check(code, severity, look)
        return look

    return register


def findings_of(
    played: Played, cameras: tuple[CameraResult, ...], defaults: Defaults
) -> tuple[Finding, ...]:
    """Everything that the registered checks find, the gravest first."""
    seen = Seen(played, cameras, defaults)
    found = [
        Finding(
            code=one.code,
            severity=one.severity,
            path=each.path,
            camera=each.camera,
            item=each.item,
            values=dict(each.values),
            text=finding_words(one.code, each.values),
        )
        for one in CHECKS.values()
        for each in one.look(seen)
    ]
    return tuple(sorted(found, key=lambda f: SEVERITY_ORDER[f.severity]))
