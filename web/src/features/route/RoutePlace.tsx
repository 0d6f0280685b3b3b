import { useMemo, useState } from "react";
import { useTripHere } from "../../app/TripContext";
import { clockOf } from "../../domain/clock";
import { freshItem, withAir } from "../../domain/routeEdits";
import { moved, type TripAndPlan, withInserted, withItem, withoutItem } from "../../domain/edits";
import { withTrack } from "../../domain/track";
import type { Item } from "../../domain/types";
import { minutesText } from "../../domain/units";
import { useLedTo } from "../../ui/useLedTo";
import { AirIn } from "./AirIn";
import { rowPictures } from "./rowPictures";
import { Row } from "./Row";
import { RowFields } from "./RowFields";
import { TrackIn } from "./TrackIn";
import { TripFields } from "./TripFields";
import { TypeIn } from "./TypeIn";
import "./route.css";

/** Legs and stops down the day: in what air, in which light, and where hands are free. */
export function RoutePlace() {
  const { kept, rehearsing } = useTripHere();
  const trip = kept.state?.trip;
  const rehearsal = rehearsing.shown?.rehearsal;
  const [open, setOpen] = useState<string | null>(null);
  const led = useLedTo(trip !== undefined);
  const [ledDone, setLedDone] = useState<string | null>(null);
  const clock = useMemo(
    () => (trip && rehearsal ? clockOf(trip.time_zone, rehearsal.start_utc) : null),
    [trip, rehearsal],
  );
  const pictures = useMemo(
    () => (trip ? rowPictures(trip.items, rehearsal ?? null) : []),
    [trip, rehearsal],
  );
  if (trip === undefined) return null;

  const ledItem = trip.items[Number(/^trip\.items\[(\d+)\]/.exec(led ?? "")?.[1] ?? -1)];
  if (led !== ledDone && ledItem) {
    setLedDone(led);
    setOpen(ledItem.id);
  }
  const edit = (change: (doc: TripAndPlan) => TripAndPlan) => kept.edit(change);
  const put = (next: Item) => edit((doc) => ({ ...doc, trip: withItem(doc.trip, next) }));
  const insert = (place: number, kind: Item["kind"]) => {
    const fresh = freshItem(trip, kind, trip.items[place - 1]);
    edit((doc) => ({ ...doc, trip: withInserted(doc.trip, place, [fresh]) }));
    setOpen(fresh.id);
  };
  const total = trip.items.reduce((sum, one) => sum + one.duration_s, 0);
  const legs = trip.items.filter((one) => one.kind === "leg").length;
  return (
    <main className="page route-page">
      <h1>
        {legs} {legs === 1 ? "leg" : "legs"} and {trip.items.length - legs}{" "}
        {trip.items.length - legs === 1 ? "stop" : "stops"}, {minutesText(total / 60)}.
      </h1>
      {rehearsing.error ? <p role="alert">{rehearsing.error.message}</p> : null}
      <TripFields
        trip={trip}
        put={(part) => edit((doc) => ({ ...doc, trip: { ...doc.trip, ...part } }))}
      />
      <div className="route-head label" aria-hidden="true">
        <span>light · ground · warmth</span>
      </div>
      <ol className="route-rows">
        {trip.items.map((item, place) => {
          const laid = rehearsal?.items.find((one) => one.id === item.id);
          return (
            <Row
              key={item.id}
              item={item}
              path={`trip.items[${String(place)}]`}
              picture={pictures[place]}
              times={clock && laid ? `${clock.time(laid.start_ms)}–${clock.time(laid.end_ms)}` : ""}
              newDay={
                clock &&
                laid &&
                (place === 0 ||
                  clock.day(laid.start_ms) !==
                    clock.day(rehearsal?.items[rehearsal.items.indexOf(laid) - 1]?.start_ms ?? 0))
                  ? `Day ${String(clock.day(laid.start_ms))}, ${clock.date(laid.start_ms)}`
                  : null
              }
              open={open === item.id}
              onToggle={() => setOpen(open === item.id ? null : item.id)}
            >
              <RowFields
                item={item}
                path={`trip.items[${String(place)}]`}
                first={place === 0}
                last={place === trip.items.length - 1}
                only={trip.items.length === 1}
                put={put}
                onMove={(by) =>
                  edit((doc) => ({
                    ...doc,
                    trip: { ...doc.trip, items: moved(doc.trip.items, place, place + by) },
                  }))
                }
                onInsert={(kind) => insert(place + 1, kind)}
                onDelete={() => edit((doc) => withoutItem(doc, item.id))}
                asked={
                  kept.state?.plan.assignments.filter((one) => one.item === item.id).length ?? 0
                }
              />
            </Row>
          );
        })}
      </ol>
      <TrackIn
        trip={trip}
        asked={kept.state?.plan.assignments.length ?? 0}
        onLaid={(laid, instead) => edit((doc) => withTrack(doc, laid, instead))}
      />
      <AirIn
        trip={trip}
        onAir={(told, source) => edit((doc) => ({ ...doc, trip: withAir(doc.trip, told, source) }))}
      />
      <TypeIn
        trip={trip}
        onItems={(items) =>
          edit((doc) => ({ ...doc, trip: withInserted(doc.trip, doc.trip.items.length, items) }))
        }
        onLeg={() => insert(trip.items.length, "leg")}
        onStop={() => insert(trip.items.length, "stop")}
      />
    </main>
  );
}
