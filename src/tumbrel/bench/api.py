"""The bench's addresses."""

from __future__ import annotations

from datetime import UTC, datetime

from django.http import HttpRequest, HttpResponse
from ninja import Router

from tumbrel.core.bench.answer import BenchTold, LearnQuestion, tell_bench
from tumbrel.core.bench.beside import AirThere, MeasuredBeside
from tumbrel.core.bench.clips import ClipsQuestion, ClipsTold, tell_clips
from tumbrel.core.bench.effects import Effects
from tumbrel.core.bench.predict import Look, LookQuestion, predict
from tumbrel.core.formats.meter_log import MeterRead, read_meter
from tumbrel.core.formats.runs_table import RunsRead, read_runs, write_runs
from tumbrel.history.api import REFUSALS, owner_of
from tumbrel.history.refusals import NotThere
from tumbrel.kit.queries import kit_row, kit_state
from tumbrel.kit.to_core import kit_of
from tumbrel.working.desks import gone_from

from .actions import put_back_figures, save_notebook, step_notebook, take_figures
from .beside import beside_of
from .devices import reading_of, simulated
from .effects import effects_of
from .learning import learned_of
from .queries import notebook_seen, notebook_state
from .schemas import (
    MeterText,
    NotebookSave,
    NotebookState,
    NotebookStepAsked,
    OfCamera,
    Reading,
    RunsText,
    TakeAsked,
    TakenState,
)
from .to_core import notebook_of

router = Router(tags=["bench"])
KEPT = {200: NotebookState, **REFUSALS}
TAKEN = {200: TakenState, **REFUSALS}


@router.get("/kits/{kit_id}/bench", response=KEPT, operation_id="getBench")
def get(request: HttpRequest, kit_id: int) -> NotebookState:
    """The notebook of a kit."""
    return notebook_state(notebook_seen(owner_of(request), kit_id))


@router.put("/kits/{kit_id}/bench", response=KEPT, operation_id="saveBench")
def save(request: HttpRequest, kit_id: int, asked: NotebookSave) -> NotebookState:
    """Keep a notebook in its next version."""
    return notebook_state(save_notebook(owner_of(request), kit_id, asked.version, asked.notebook))


@router.post("/kits/{kit_id}/bench/undo", response=KEPT, operation_id="undoBench")
def undo(request: HttpRequest, kit_id: int, asked: NotebookStepAsked) -> NotebookState:
    """One step back."""
    return notebook_state(step_notebook(owner_of(request), kit_id, asked.version, -1))


@router.post("/kits/{kit_id}/bench/redo", response=KEPT, operation_id="redoBench")
def redo(request: HttpRequest, kit_id: int, asked: NotebookStepAsked) -> NotebookState:
    """One step forward."""
    return notebook_state(step_notebook(owner_of(request), kit_id, asked.version, 1))


@router.get(
    "/kits/{kit_id}/bench/runs.csv", response={200: str, **REFUSALS}, operation_id="getRunsFile"
)
def runs_file(request: HttpRequest, kit_id: int) -> HttpResponse:
    """All runs as CSV."""
    row = notebook_seen(owner_of(request), kit_id)
    answer = HttpResponse(write_runs(notebook_of(row).runs), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="bench-runs.csv"'
    return answer


@router.post(
    "/kits/{kit_id}/bench/table", response={200: RunsRead, **REFUSALS}, operation_id="readRuns"
)
def table(request: HttpRequest, kit_id: int, asked: RunsText) -> RunsRead:
    """Runs of a pasted table or CSV file; keeps nothing. A bad line refuses the whole."""
    row = notebook_seen(owner_of(request), kit_id)
    notebook = notebook_of(row)
    taken = {run.id for run in notebook.runs} | {test.id for test in notebook.running}
    return read_runs(asked.text, kit_of(row.kit).cameras, asked.camera, frozenset(taken))


@router.post(
    "/kits/{kit_id}/bench/effects", response={200: Effects, **REFUSALS}, operation_id="effectsOf"
)
def effects(request: HttpRequest, kit_id: int, asked: OfCamera) -> Effects:
    """What taking a camera's fitted figures would change, on every trip of the kit."""
    return effects_of(owner_of(request), kit_id, asked.camera, gone_from(request))


@router.post(
    "/kits/{kit_id}/bench/beside",
    response={200: list[MeasuredBeside], **REFUSALS},
    operation_id="tellBeside",
)
def beside(request: HttpRequest, kit_id: int, asked: AirThere) -> list[MeasuredBeside]:
    """What was measured and not taken, beside the kit's figures, in some air; keeps nothing."""
    return beside_of(owner_of(request), kit_id, asked)


@router.post("/kits/{kit_id}/bench/take", response=TAKEN, operation_id="takeFigures")
def take(request: HttpRequest, kit_id: int, asked: TakeAsked) -> TakenState:
    """Take a camera's fitted figures into the kit."""
    kit, row = take_figures(
        owner_of(request),
        kit_id,
        asked.version,
        asked.kit_version,
        asked.camera,
        datetime.now(UTC),
    )
    return TakenState(kit=kit_state(kit), bench=notebook_state(row))


@router.post("/kits/{kit_id}/bench/put-back", response=TAKEN, operation_id="putBackFigures")
def put_back(request: HttpRequest, kit_id: int, asked: TakeAsked) -> TakenState:
    """Put a camera's figures back as they were."""
    kit, row = put_back_figures(
        owner_of(request), kit_id, asked.version, asked.kit_version, asked.camera
    )
    return TakenState(kit=kit_state(kit), bench=notebook_state(row))


@router.get(
    "/kits/{kit_id}/bench/tests/{test_id}/reading",
    response={200: Reading, **REFUSALS},
    operation_id="readDevice",
)
def reading(request: HttpRequest, kit_id: int, test_id: str) -> Reading:
    """What the simulated camera of a running test shows now."""
    owner = owner_of(request)
    tests = notebook_of(notebook_seen(owner, kit_id)).running
    test = next((t for t in tests if t.id == test_id and t.device == "simulated"), None)
    if test is None:
        raise NotThere("running test of the simulated camera")
    return reading_of(simulated(kit_of(kit_row(owner, kit_id)), test, datetime.now(UTC)))


@router.post("/bench/learned", response={200: BenchTold, **REFUSALS}, operation_id="tellBench")
def learned(request: HttpRequest, asked: LearnQuestion) -> BenchTold:  # noqa: ARG001 - ninja names it
    """What the runs of a camera teach; keeps nothing."""
    return tell_bench(asked, learned_of(asked))


@router.post("/bench/look", response={200: Look, **REFUSALS}, operation_id="lookAt")
def look_at(request: HttpRequest, asked: LookQuestion) -> Look:  # noqa: ARG001 - ninja names it
    """Minutes to empty and to hot, and the body's course, in any air; keeps nothing."""
    camera = asked.camera
    if asked.air.mode not in {m.id for m in camera.modes}:
        raise NotThere("mode of this camera")
    if asked.air.set_up not in {s.id for s in camera.set_ups}:
        raise NotThere("set-up of this camera")
    return predict(learned_of(asked), asked.air)


@router.post("/bench/meter-log", response={200: MeterRead, **REFUSALS}, operation_id="readMeter")
def meter(request: HttpRequest, asked: MeterText) -> MeterRead:  # noqa: ARG001 - ninja names it
    """What a power meter's log tells; keeps nothing."""
    return read_meter(asked.text)


@router.post("/bench/clips", response={200: ClipsTold, **REFUSALS}, operation_id="tellClips")
def clips(request: HttpRequest, asked: ClipsQuestion) -> ClipsTold:  # noqa: ARG001 - ninja names it
    """Recordings, rates and lengths of a card's clips; keeps nothing."""
    return tell_clips(asked)
