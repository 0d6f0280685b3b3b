import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { tellRoute } from "../../api/queries";
import { usePumped } from "../../api/usePumped";
import { useTellGone } from "../../app/gone";
import { useCommands } from "../../app/commands";
import { NextThing } from "../../app/NextThing";
import { useTripHere } from "../../app/TripContext";
import { type Clock, clockOf } from "../../domain/clock";
import { moved, withInserted, withItem, withoutItem } from "../../domain/edits";
import { hereAt } from "../../domain/route";
import { rowsGone, rowsText } from "../../domain/gone";
import { freshItem, withAir } from "../../domain/routeEdits";
import { legAfter, withoutWay, withTrack, withTrackBehind } from "../../domain/track";
import type { Item, RouteTold, Trip } from "../../domain/types";
import { minutesText } from "../../domain/units";
import { useLedTo } from "../../ui/useLedTo";
import { useWidth } from "../../ui/useWidth";
import { AirIn } from "./AirIn";
import { EdgeGrip } from "./EdgeGrip";
import { RouteHead } from "./RouteHead";
import { RouteSide } from "./RouteSide";
import { Row } from "./Row";
import { RowFields } from "./RowFields";
import { rowPictures, scalesOf, stripLanes } from "./rowPictures";
import { TrackIn } from "./TrackIn";
import { TripFields } from "./TripFields";
import { TypeIn } from "./TypeIn";
import { type Corrections, useCorrections } from "../../app/useCorrections";
import "./route.css";

/** Legs and stops down the day: in what air, in which light, and where hands are free. */
export function RoutePlace() {
  const { id, kept, rehearsing } = useTripHere();
  const trip = kept.state?.trip;
  const plan = kept.state?.plan;
  const told = usePumped(tellRoute, trip ?? null);
  const corrections = useCorrections();
  const [fresh, setFresh] = useState<string | null>(null);
  const { edit } = kept;
  const addFresh = useCallback(
    (kind: Item["kind"]) => {
      if (trip === undefined) return;
      const made = freshItem(trip, kind, trip.items.at(-1));
      edit((doc) => ({ ...doc, trip: withInserted(doc.trip, doc.trip.items.length, [made]) }));
      setFresh(made.id);
    },
    [trip, edit],
  );
  const commands = useMemo(
    () => [
      { name: "Add a leg", keys: "Ctrl+Enter", allowed: true, run: () => addFresh("leg") },
      {
        name: "Add a stop",
        keys: "Ctrl+Shift+Enter",
        allowed: true,
        run: () => addFresh("stop"),
      },
    ],
    [addFresh],
  );
  useCommands("route", commands);
  if (trip === undefined || plan === undefined) return null;
  const total = trip.items.reduce((sum, one) => sum + one.duration_s, 0);
  const legs = trip.items.filter((one) => one.kind === "leg").length;
  const stops = trip.items.length - legs;
  const problem = corrections.error ?? told.error ?? rehearsing.error?.message;
  return (
    <main className="page route-page">
      <NextThing />
      <h1>
        {legs} {legs === 1 ? "leg" : "legs"} and {stops} {stops === 1 ? "stop" : "stops"},{" "}
        {minutesText(total / 60)}.
      </h1>
      {problem == null ? null : <p role="alert">{problem}</p>}
      <TripFields
        trip={trip}
        put={(part) => edit((doc) => ({ ...doc, trip: { ...doc.trip, ...part } }))}
      />
      {told.result === null && told.error === null ? (
        <p>Drawing the route…</p>
      ) : (
        <Sheet trip={trip} told={told.result} corrections={corrections} fresh={fresh} />
      )}
      <TrackIn
        id={id}
        trip={trip}
        asked={plan.assignments.length}
        settled={kept.settled}
        onBehind={(read) => edit((doc) => withTrackBehind(doc, read))}
        onInstead={(laid) => edit((doc) => withTrack(doc, laid))}
        onStart={(start) => edit((doc) => ({ ...doc, trip: { ...doc.trip, start } }))}
        onAgain={(again) => edit((doc) => ({ ...doc, trip: again }))}
      />
      <AirIn
        trip={trip}
        onAir={(air, source) => edit((doc) => ({ ...doc, trip: withAir(doc.trip, air, source) }))}
      />
      <TypeIn
        id={id}
        trip={trip}
        onItems={(items) =>
          edit((doc) => ({ ...doc, trip: withInserted(doc.trip, doc.trip.items.length, items) }))
        }
        onFresh={addFresh}
      />
    </main>
  );
}

/** The one picture: rows down the days, and beside them the way from above and the hand. */
function Sheet({
  trip,
  told,
  corrections,
  fresh,
}: Pick<RowsProps, "trip" | "told" | "corrections" | "fresh">) {
  const { id, kept, rehearsing } = useTripHere();
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 1208);
  const [handMs, setHand] = useState(0);
  const lanes = useMemo(() => stripLanes(width), [width]);
  const light = rehearsing.shown?.rehearsal.light;
  const scales = useMemo(() => scalesOf(trip.items, told), [trip.items, told]);
  const pictures = useMemo(
    () => rowPictures(trip.items, told, light ?? []),
    [trip.items, told, light],
  );
  const clock = useMemo(
    () => (told ? clockOf(trip.time_zone, told.start_utc) : null),
    [trip.time_zone, told],
  );
  const here = useMemo(() => (told ? hereAt(told, trip, handMs) : null), [told, trip, handMs]);
  return (
    <div ref={frame} className="route-sheet">
      <div className="route-left">
        <RouteHead scales={scales} lanes={lanes} />
        <Rows
          trip={trip}
          told={told}
          pictures={pictures}
          scales={scales}
          lanes={lanes}
          clock={clock}
          corrections={corrections}
          fresh={fresh}
          hand={here === null ? null : { item: here.item, share: here.share }}
          onHand={setHand}
        />
      </div>
      {told === null ? null : (
        <RouteSide
          id={id}
          trip={trip}
          told={told}
          clock={clock}
          here={here}
          onHand={setHand}
          onForget={(way) => kept.edit((doc) => ({ ...doc, trip: withoutWay(doc.trip, way) }))}
          settled={kept.settled}
        />
      )}
    </div>
  );
}

interface RowsProps {
  trip: Trip;
  told: RouteTold | null;
  pictures: ReturnType<typeof rowPictures>;
  scales: ReturnType<typeof scalesOf>;
  lanes: ReturnType<typeof stripLanes>;
  clock: Clock | null;
  corrections: Corrections;
  /** One just added: it opens, and its name is ready to be typed. */
  fresh: string | null;
  hand: { item: string; share: number } | null;
  onHand: (ms: number) => void;
}

function Rows(props: RowsProps) {
  const { trip, told, pictures, scales, lanes, clock, corrections, hand, onHand } = props;
  const { kept } = useTripHere();
  const plan = kept.state?.plan;
  const [open, setOpen] = useState<string | null>(null);
  const [shownFresh, setShownFresh] = useState<string | null>(null);
  if (props.fresh !== shownFresh) {
    setShownFresh(props.fresh);
    setOpen(props.fresh);
  }
  const [typed, setTyped] = useState<string | null>(null);
  const rows = useRef<HTMLOListElement>(null);
  const wanted = typed ?? props.fresh;
  useEffect(() => {
    const name = rows.current?.querySelector<HTMLInputElement>(".route-fields input");
    if (wanted === null || name == null) return;
    name.focus();
    name.select();
  }, [wanted]);
  const led = useLedTo(true);
  const [ledDone, setLedDone] = useState<string | null>(null);
  const ledItem = trip.items[Number(/^trip\.items\[(\d+)\]/.exec(led ?? "")?.[1] ?? -1)];
  if (led !== ledDone && ledItem) {
    setLedDone(led);
    setOpen(ledItem.id);
  }
  const { edit } = kept;
  const tellGone = useTellGone();
  const put = useCallback(
    (next: Item) => edit((doc) => ({ ...doc, trip: withItem(doc.trip, next) })),
    [edit],
  );
  const insert = (place: number, kind: Item["kind"]) => {
    const fresh = freshItem(trip, kind, trip.items[place - 1]);
    edit((doc) => ({ ...doc, trip: withInserted(doc.trip, place, [fresh]) }));
    setOpen(fresh.id);
    setTyped(fresh.id);
  };
  const goneWith = (item: Item) =>
    plan === undefined ? {} : rowsGone(plan, withoutItem({ trip, plan }, item.id).plan);
  const planned = (item: Item) => {
    const rows = goneWith(item);
    return Object.keys(rows).length > 0 ? rowsText([{ rows }]) : "";
  };
  const remove = (item: Item) => {
    const rows = goneWith(item);
    edit((doc) => withoutItem(doc, item.id));
    const went = Object.keys(rows).length > 0 ? [{ trip: trip.name, rows }] : [];
    tellGone(`${item.kind === "leg" ? "Leg" : "Stop"} ${item.name}`, undefined, went);
  };
  const toldOf = (key: string) => told?.items.find((one) => one.item === key) ?? null;
  const dayOf = (place: number) => {
    const [laid, before] = [trip.items[place], trip.items[place - 1]].map((one) =>
      one === undefined ? null : toldOf(one.id),
    );
    if (clock === null || laid == null) return null;
    const day = clock.day(laid.start_ms);
    if (before != null && clock.day(before.start_ms) === day) return null;
    return `Day ${String(day)}, ${clock.date(laid.start_ms)}`;
  };
  const edgeOf = (item: Item, place: number) => {
    const follower = item.kind === "leg" ? legAfter(trip.items, item) : null;
    if (item.kind !== "leg" || follower === null || plan === undefined) return null;
    const [mine, after] = [toldOf(item.id), toldOf(follower.id)];
    if (mine === null || after === null || mine.along_m.length === 0) return null;
    return (
      <EdgeGrip
        doc={{ trip, plan }}
        leg={item}
        follower={follower}
        told={mine}
        toldAfter={after}
        heights={[
          pictures[place]?.height ?? 1,
          pictures[trip.items.indexOf(follower)]?.height ?? 1,
        ]}
        lanes={lanes}
        onMove={corrections.correct}
      />
    );
  };
  return (
    <ol className="route-rows" ref={rows}>
      {trip.items.map((item, place) => {
        const picture = pictures[place];
        const path = `trip.items[${String(place)}]`;
        return picture === undefined ? null : (
          <Row
            key={item.id}
            item={item}
            path={path}
            picture={picture}
            scales={scales}
            lanes={lanes}
            clock={clock}
            newDay={dayOf(place)}
            hand={hand?.item === item.id ? hand.share : null}
            onHand={onHand}
            open={open === item.id}
            onToggle={() => setOpen(open === item.id ? null : item.id)}
            edge={edgeOf(item, place)}
          >
            <RowFields
              item={item}
              path={path}
              first={place === 0}
              last={place === trip.items.length - 1}
              only={trip.items.length === 1}
              put={put}
              way={{
                told: toldOf(item.id),
                next: item.kind === "leg" ? (legAfter(trip.items, item)?.name ?? null) : null,
                corrections,
                onHand,
              }}
              onMove={(by) =>
                edit((doc) => ({
                  ...doc,
                  trip: { ...doc.trip, items: moved(doc.trip.items, place, place + by) },
                }))
              }
              onInsert={(kind) => insert(place + 1, kind)}
              onDelete={() => remove(item)}
              planned={open === item.id ? planned(item) : ""}
            />
          </Row>
        );
      })}
    </ol>
  );
}
