"""What the bench tells of one camera: each run against what is expected, figures, what is next."""

from __future__ import annotations

import math

from pydantic import Field

from ..document import Camera, Mode, Plan, Trip
from ..document.base import Part
from ..parameters import DEFAULTS, Defaults
from ..wording.units import hours
from .advice import NextRun, next_run
from .believed import LearnedFigure
from .contrasts import contrasts
from .fit import Learned, usable
from .outlook import Outlook, run_outlook
from .predict import BenchQuestion
from .runs import BenchRun, RunEnd
from .words import contrast_words, figure_words, next_words, run_words, unknown_words, value_text

TOLD = (
    "lasts_min",
    "rise_k",
    "rise_k_per_w",
    "tau_s",
    "air_a",
    "case",
    "charge_heat",
    "stop_c",
    "warn_below_k",
    "energy",
    "store_gives",
    "rate_per_h",
    "taper",
    "cold_hold",
    "fan",
    "pause_c",
    "resume_c",
)
TOLD_REVERSED = frozenset({"rate_per_h", "taper"})  # the more, the fewer minutes or per cent
LIKE_ITS_BOX = 0.08
WIDE = 2.0
ROOM_C = (15.0, 28.0)
STILL_BELOW_MPS = 0.3


class LearnQuestion(BenchQuestion):
    """All runs of a camera, and the trip that it is for."""

    trip: Trip | None = None
    plan: Plan | None = None


class RunTold(Part):
    """A run beside what all runs together expect of it."""

    run: str
    counts: bool
    low_min: float
    likely_min: float
    high_min: float
    end: RunEnd
    box_min: float | None = Field(description="What the box claims for its mode.")
    outlier: bool
    wide: bool = Field(description="Near its limit: the time to hot can hardly be told.")
    words: str


class FigureTold(Part):
    """A figure: measured with its range, or assumed with what would measure it."""

    kind: str
    of: str
    name: str
    known: bool
    value: str
    low: str
    high: str
    assumed: str
    unknown: str = Field(description="What is missing; empty when known.")


class BenchTold(Part):
    """Everything the bench has to say of a camera."""

    headline: str
    detail: str
    contrasts: tuple[str, ...] = Field(description="What one change did, the largest first.")
    runs: tuple[RunTold, ...]
    figures: tuple[FigureTold, ...]
    next: NextRun | None
    next_words: str
    taken_stands: bool = Field(description="Figures from here still stand in the kit.")
    counted: int
    converged: bool
    agreeing: int
    starts: int


def tell_bench(
    question: LearnQuestion, learned: Learned, defaults: Defaults = DEFAULTS
) -> BenchTold:
    """Tell what `learn` found of the question's camera and runs."""
    camera = question.camera
    counted = usable(camera, question.runs)
    runs = _runs_told(question, learned, defaults)
    found = next_run(learned, counted, question.trip, question.plan, defaults)
    on_trip = found is None and question.trip is not None
    tapers = [one.value for one in learned.learned if one.figure.kind == "taper"]
    kink = 1.0 - tapers[0] if tapers else defaults.kink.value
    return BenchTold(
        headline=_headline(camera, counted),
        detail=_detail(learned, runs, question.runs, counted),
        contrasts=tuple(
            contrast_words(one, camera) for one in contrasts(counted, camera.set_ups[0].id)
        ),
        runs=runs,
        figures=tuple(
            _figure(one, camera, kink)
            for kind in TOLD
            for one in learned.learned
            if one.figure.kind == kind
        ),
        next=found,
        next_words=next_words(found, camera, on_trip),
        taken_stands=question.stands(),
        counted=len(counted),
        converged=learned.converged,
        agreeing=learned.agreeing,
        starts=learned.starts,
    )


def _runs_told(
    question: LearnQuestion, learned: Learned, defaults: Defaults
) -> tuple[RunTold, ...]:
    """Runs of the camera in modes and set-ups that it still has, in the order given."""
    residuals = {one.run: one for one in learned.residuals}
    known = {run.id: run for run in question.runs}
    counting = usable(
        question.camera,
        [run.model_copy(update={"excluded": None}) for run in question.runs],
    )
    told = []
    for run in (known[one.id] for one in counting):
        seen = run_outlook(learned, run, defaults)
        residual = residuals.get(run.id)
        outlier = residual is not None and residual.outlier
        mode = _mode(question.camera, run)
        told.append(
            RunTold(
                run=run.id,
                counts=run.excluded is None,
                low_min=seen.low_min,
                likely_min=seen.likely_min,
                high_min=seen.high_min,
                end=seen.end,
                box_min=mode.box_minutes,
                outlier=outlier,
                wide=_is_wide(seen),
                words=run_words(
                    run, seen.likely_min, seen.end, residual.errors if residual else 0.0, outlier
                ),
            )
        )
    return tuple(told)


def _mode(camera: Camera, run: BenchRun) -> Mode:
    return next(mode for mode in camera.modes if mode.id == run.mode)


def _is_wide(seen: Outlook) -> bool:
    return seen.high_min > WIDE * seen.low_min


def _headline(camera: Camera, counted: list[BenchRun]) -> str:
    """The run that gives its box the lie most; else that it does what it says."""
    if not counted:
        return f"Nothing is measured yet: what stands here of {camera.name} is assumed."
    full = [
        (run, mode.box_minutes)
        for run in counted
        if (mode := _mode(camera, run)).box_minutes is not None
        and run.end in ("empty", "hot")
        and run.charge_start > 0.95
        and not run.plugged
    ]
    if not full:
        return f"{_count(len(counted))} of {camera.name}; its box says nothing to compare with."
    alike = [pair for pair in full if _as_boxes_are_tested(camera, pair[0])]
    full = alike or full
    run, box_min = max(full, key=lambda pair: abs(math.log(pair[0].minutes / (pair[1] or 1.0))))
    mode = _mode(camera, run)
    claimed, minutes = round(box_min or 0.0), round(run.minutes)
    if abs(math.log(minutes / claimed)) < LIKE_ITS_BOX:
        return f"{camera.name} does what its box says."
    why = "heat ends it" if run.end == "hot" else "it is empty"
    return f"{camera.name} filmed {mode.name} for {hours(minutes)}, not {hours(claimed)}: {why}."


def _as_boxes_are_tested(camera: Camera, run: BenchRun) -> bool:
    """Bare, in still air, in a room where people sit."""
    return (
        run.set_up == camera.set_ups[0].id
        and run.air_mps < STILL_BELOW_MPS
        and ROOM_C[0] <= run.ambient_c <= ROOM_C[1]
    )


def _count(runs: int) -> str:
    return "One run" if runs == 1 else f"{runs} runs"


def _detail(
    learned: Learned,
    runs: tuple[RunTold, ...],
    kept: tuple[BenchRun, ...],
    counted: list[BenchRun],
) -> str:
    """How far the figures can be believed."""
    if not counted:
        return "Record a full battery to its end in a known room: the first run tells most."
    fewer = len(counted) < len(kept)
    sentences = [f"{_count(len(counted))} of {len(kept)} count." if fewer else ""]
    firmwares = sorted({run.firmware for run in counted if run.firmware})
    if len(firmwares) > 1:
        sentences.append(f"They are of firmware {' and '.join(firmwares)}: do both still hold?")
    halves = sorted((one.high_min / one.low_min) ** 0.5 - 1.0 for one in runs if one.counts)
    sentences.append(
        f"What was tried is foretold to about ±{100 * halves[len(halves) // 2]:.0f} %."
    )
    odd = sum(one.outlier for one in runs)
    if odd:
        verb = "disagrees" if odd == 1 else "disagree"
        sentences.append(f"{_count(odd)} {verb} strongly with the rest.")
    if any(one.wide for one in runs):
        sentences.append("Where the body settles close to its limit, the time can hardly be told.")
    if not learned.converged or learned.agreeing < 2:
        sentences.append("The search for the figures did not settle: take them with care.")
    return " ".join(filter(None, sentences))


def _figure(one: LearnedFigure, camera: Camera, kink: float) -> FigureTold:
    ends = (one.low, one.high)
    low, high = reversed(ends) if one.figure.kind in TOLD_REVERSED else ends
    return FigureTold(
        kind=one.figure.kind,
        of=one.figure.of,
        name=figure_words(one, camera),
        known=one.known,
        value=value_text(one, one.value, kink),
        low=value_text(one, low, kink),
        high=value_text(one, high, kink),
        assumed=value_text(one, one.figure.value, kink),
        unknown="" if one.known else unknown_words(one, camera),
    )
