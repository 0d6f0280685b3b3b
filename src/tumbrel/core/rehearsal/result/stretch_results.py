"""What is told of stretches beside their minutes, and of the work at home."""

from __future__ import annotations

from ...document.base import Part


class LoopAdvice(Part):
    """The shortest loop, of those that the camera has, that keeps 95 in 100 of a leg's moments."""

    assignment: int
    length_s: int
    shortest_s: int
    segments: int = 5


class LapseTold(Part):
    """Frames on a stretch: asked, kept, and what they come to; bytes and files as they lie."""

    assignment: int
    asked: int
    frames: int
    film_s: float
    bytes: int
    files: int
    times_as_fast: float


class HomeTold(Part):
    """Work at home [ms]: footage searched, looking through it, and so much a clip and a camera."""

    searched_ms: int
    looking_ms: int
    clips: int
    clips_ms: int
    cameras: int
    cameras_ms: int
    own: bool


class RunRate(Part):
    """What a stretch draws and writes on the mean over it [W, bytes/s]."""

    assignment: int
    watts: float
    bytes_s: float


class ReachTold(Part):
    """A camera that a hand could have filming when a moment comes unasked on a leg or stop.

    `after_s` from its beginning: noticing, reaching, booting; `caught_s` of `of_s` are then left.
    """

    item: str
    moment: str
    camera: str
    after_s: float
    caught_s: float
    of_s: float
