"""What is wrong in a document, field by field."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class FieldFault:
    """One thing wrong in a document: the path of the field and why."""

    path: str
    why: str


class BadDocument(Exception):
    """A document that cannot be used; says every fault, by path."""

    def __init__(self, faults: tuple[FieldFault, ...]) -> None:
        super().__init__("; ".join(f"{f.path}: {f.why}" for f in faults))
        self.faults = faults
