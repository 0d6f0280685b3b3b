"""The trips' addresses."""

from __future__ import annotations

from typing import Annotated

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import Query, Router, Status

from tumbrel.core.document import PlanDocument
from tumbrel.core.formats.card_out import CardForm
from tumbrel.core.formats.table import Pasted, read_table
from tumbrel.core.formats.tracks import MOST_BYTES
from tumbrel.core.formats.tracks_out import TrackForm
from tumbrel.core.picture import PictureTold
from tumbrel.core.rehearsal.result.result import Rehearsal
from tumbrel.core.route.answer import RouteTold, route_told
from tumbrel.core.route.correcting import corrected
from tumbrel.core.route.weather import AirTold
from tumbrel.history.api import REFUSALS, owner_of
from tumbrel.working.desks import edit, gone_from, heavy

from .actions import delete_trip, save_trip, step_trip
from .advice import begun, cure_lines, picture_of, serving_of
from .cards import add_ticks, card_file, card_state
from .files import open_plan_file, plan_file
from .making import make_trip
from .places import zone_at
from .queries import trip_lines, trip_row, trip_state
from .rehearsing import rehearsal_text
from .schemas import (
    AirAsked,
    CardState,
    CorrectionAsked,
    CureLine,
    CuresAsked,
    PictureAsked,
    RouteAsked,
    ServingTold,
    TableAsked,
    Ticks,
    TicksIn,
    TrackAsked,
    TrackRead,
    TripLine,
    TripNew,
    TripSave,
    TripState,
    TripStepAsked,
    ZoneTold,
)
from .to_core import TripAndPlan, sun_azimuths, sun_days, trip_and_plan
from .tracks import lay_file, track_file
from .weather import air_of_days, air_of_file, air_of_service

router = Router(tags=["trips"])


@router.get("/trips", response={200: list[TripLine], **REFUSALS}, operation_id="listTrips")
def list_trips(request: HttpRequest) -> list[TripLine]:
    """All trips."""
    return trip_lines(owner_of(request))


@router.post("/trips", response={200: TripState, **REFUSALS}, operation_id="makeTrip")
def make(request: HttpRequest, asked: TripNew) -> TripState:
    """Make a trip, on a kit or on an empty one of its own."""
    return trip_state(make_trip(owner_of(request), asked.kit_id, asked.name, asked.start))


@router.get("/trips/{trip_id}", response={200: TripState, **REFUSALS}, operation_id="getTrip")
def get(request: HttpRequest, trip_id: int) -> TripState:
    """One trip with its kit and plan."""
    return trip_state(trip_row(owner_of(request), trip_id))


@router.put("/trips/{trip_id}", response={200: TripState, **REFUSALS}, operation_id="saveTrip")
def save(request: HttpRequest, trip_id: int, asked: TripSave) -> TripState:
    """Keep a trip in its next version."""
    owner = owner_of(request)
    return trip_state(save_trip(owner, trip_id, asked.version, asked.trip, asked.plan))


@router.delete("/trips/{trip_id}", response={204: None, **REFUSALS}, operation_id="deleteTrip")
def delete(request: HttpRequest, trip_id: int) -> Status[None]:
    """Put a trip, with its variants, into the bin for 30 days; its kit stays."""
    delete_trip(owner_of(request), trip_id)
    return Status(204, None)


@router.post(
    "/trips/{trip_id}/undo", response={200: TripState, **REFUSALS}, operation_id="undoTrip"
)
def undo(request: HttpRequest, trip_id: int, asked: TripStepAsked) -> TripState:
    """One step back."""
    return trip_state(step_trip(owner_of(request), trip_id, asked.version, -1))


@router.post(
    "/trips/{trip_id}/redo", response={200: TripState, **REFUSALS}, operation_id="redoTrip"
)
def redo(request: HttpRequest, trip_id: int, asked: TripStepAsked) -> TripState:
    """One step forward."""
    return trip_state(step_trip(owner_of(request), trip_id, asked.version, 1))


@router.get(
    "/trips/{trip_id}/file", response={200: PlanDocument, **REFUSALS}, operation_id="getFile"
)
def file(request: HttpRequest, trip_id: int) -> HttpResponse:
    """The trip as a plan file."""
    name, text = plan_file(trip_row(owner_of(request), trip_id))
    return _attached(name, text, "application/json")


@router.get("/trips/{trip_id}/track", response={200: str, **REFUSALS}, operation_id="getTrackFile")
def track_out(request: HttpRequest, trip_id: int, form: TrackForm = "gpx") -> HttpResponse:
    """The trip's ways as GPX or GeoJSON, with the hands' work at each stop."""
    name, text = track_file(trip_row(owner_of(request), trip_id), form)
    return _attached(name, text, "application/gpx+xml" if form == "gpx" else "application/geo+json")


@router.get("/trips/{trip_id}/card", response={200: CardState, **REFUSALS}, operation_id="getCard")
def card(request: HttpRequest, trip_id: int) -> CardState:
    """The card of a trip for the pocket, with what was ticked on it."""
    return card_state(owner_of(request), trip_id, gone_from(request))


@router.post("/trips/{trip_id}/card-file", response={200: str, **REFUSALS}, operation_id="takeCard")
def card_out(request: HttpRequest, trip_id: int, form: CardForm = "html") -> HttpResponse:
    """The card as one page, a calendar or a table, to be taken along."""
    name, data, kind = card_file(owner_of(request), trip_id, form, gone_from(request))
    return _attached(name, data, kind)


@router.post("/trips/{trip_id}/ticks", response={200: Ticks, **REFUSALS}, operation_id="addTicks")
def ticks_in(request: HttpRequest, trip_id: int, asked: TicksIn) -> Ticks:
    """Add ticks; those that are there already are there once. Gives all of the trip's."""
    return Ticks(ticks=add_ticks(owner_of(request), trip_id, asked.ticks))


def _attached(name: str, text: str | bytes, kind: str) -> HttpResponse:
    answer = HttpResponse(text, content_type=f"{kind}; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{name}"'
    return answer


@router.post("/plan-files", response={200: TripState, **REFUSALS}, operation_id="openFile")
def open_file(request: HttpRequest) -> TripState:
    """Open a plan file: the request's body is the file. A bad one changes nothing."""
    return trip_state(open_plan_file(owner_of(request), request.body))


@router.post("/trip-table", response={200: Pasted, **REFUSALS}, operation_id="readTable")
def table(request: HttpRequest, asked: TableAsked) -> Pasted:  # noqa: ARG001 - ninja names it
    """Legs and stops from a pasted table; keeps nothing."""
    return read_table(asked.text, frozenset(asked.taken))


@router.post("/tracks", response={200: TrackRead, **REFUSALS}, operation_id="layTrack")
def track(request: HttpRequest, asked: Query[TrackAsked]) -> TrackRead:
    """Legs and stops of a track: the request's body is the GPX or GeoJSON file. Keeps nothing."""
    data = request.read(MOST_BYTES + 1)  # not request.body, whose bound is that of plan files
    row = None if asked.trip is None else trip_row(owner_of(request), asked.trip)
    return lay_file(data, asked, None if row is None else trip_and_plan(row).trip)


@router.post("/corrections", response={200: TripAndPlan, **REFUSALS}, operation_id="correctRoute")
def correct(request: HttpRequest, asked: CorrectionAsked) -> TripAndPlan:  # noqa: ARG001 - ninja names it
    """A trip and its plan after a correction of its route by hand; keeps nothing."""
    done = corrected(asked.trip, asked.plan, asked.correction)
    return TripAndPlan(trip=done.trip, plan=done.plan)


@router.post("/route", response={200: RouteTold, **REFUSALS}, operation_id="tellRoute")
def route(request: HttpRequest, asked: RouteAsked) -> RouteTold:  # noqa: ARG001 - ninja names it
    """Plan, ground, air and sun of a trip for its picture; keeps nothing."""
    return route_told(asked.trip, sun_days, sun_azimuths)


@router.get("/time-zone", response={200: ZoneTold, **REFUSALS}, operation_id="zoneAt")
def time_zone(
    request: HttpRequest,  # noqa: ARG001 - ninja names it
    latitude: Annotated[float, Query(ge=-90, le=90)],
    longitude: Annotated[float, Query(ge=-180, le=180)],
) -> ZoneTold:
    """The time zone of a place."""
    return ZoneTold(time_zone=zone_at(latitude, longitude))


@router.post("/air", response={200: list[AirTold], **REFUSALS}, operation_id="airOf")
def air(request: HttpRequest, asked: AirAsked) -> list[AirTold]:  # noqa: ARG001 - ninja names it
    """The air of every leg and stop, by hourly weather of a file or made up; keeps nothing."""
    if asked.days is not None:
        return list(air_of_days(asked.trip, asked.days))
    if asked.text is not None:
        return list(air_of_file(asked.trip, asked.text, asked.name))
    return list(air_of_service(asked.trip))


@router.post("/serving", response={200: ServingTold, **REFUSALS}, operation_id="tellServing")
def serving(request: HttpRequest, asked: PlanDocument) -> ServingTold:  # noqa: ARG001 - ninja names it
    """Which cameras serve on each leg and stop, and why; keeps nothing."""
    return serving_of(asked)


@router.post("/picture", response={200: PictureTold, **REFUSALS}, operation_id="tellPicture")
def picture(request: HttpRequest, asked: PictureAsked) -> PictureTold:  # noqa: ARG001 - ninja names it
    """Light, shutter, filter and slowing of a camera on a leg, with their arithmetic."""
    return picture_of(asked.document, asked.camera, asked.item)


@router.post("/cures", response={200: CureLine, **REFUSALS}, operation_id="findCures")
def cures(request: HttpRequest, asked: CuresAsked) -> StreamingHttpResponse:
    """Cures of a gap or finding, each rehearsed: lines of JSON as they are found; keeps nothing."""
    lines = begun(heavy(cure_lines, asked.model_dump_json(), gone=gone_from(request)))
    return StreamingHttpResponse(lines, content_type="application/x-ndjson")


@router.post("/rehearsals", response={200: Rehearsal, **REFUSALS}, operation_id="rehearse")
def rehearsal(request: HttpRequest, aside: bool = False) -> HttpResponse:
    """Rehearse a document; keeps nothing. What is asked aside lets edits go first.

    The body is read where it is played, once.
    """
    text, gone = bytes(request.body), gone_from(request)
    if aside:
        told = b"".join(heavy(rehearsal_text, text, gone=gone))
    else:
        told = edit(rehearsal_text, text, gone=gone)
    return HttpResponse(told, content_type="application/json")
