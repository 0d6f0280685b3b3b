import { Button } from "@mui/material";
import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { layTrack, tellRoute } from "../../api/queries";
import { localOf } from "../../domain/clock";
import { localField } from "../../domain/routeEdits";
import { type Going, GOINGS } from "../../domain/track";
import type { RouteTold, TrackLaid, TrackRead, Trip } from "../../domain/types";
import { Said } from "../../ui/Said";
import { countText, kilometresText, metresText, minutesText } from "../../domain/units";
import { DropHere } from "../../ui/DropHere";
import { FileIn } from "../../ui/FileIn";
import { ChoiceIn, PercentIn } from "../../ui/fields";
import { useWidth } from "../../ui/useWidth";
import { PlanView } from "./PlanView";
import { ProfileView } from "./ProfileView";

interface Props {
  id: number;
  trip: Trip;
  /** Stretches that the plan asks for, and that go when the legs are replaced. */
  asked: number;
  settled: () => Promise<void>;
  onBehind: (read: TrackRead) => void;
  onInstead: (laid: TrackLaid) => void;
  onStart: (start: string) => void;
  onAgain: (again: Trip) => void;
}

interface Seen extends TrackRead {
  told: RouteTold;
}

/** Legs and stops from a track file, seen before they are taken. */
export function TrackIn({ id, trip, asked, settled, ...on }: Props) {
  const [file, setFile] = useState<File | null>(null);
  const [way, setWay] = useState<Going>("foot");
  const [factor, setFactor] = useState(1);
  const laying = useMutation({
    mutationFn: async (from: { file: File; way: Going; factor: number }): Promise<Seen> => {
      await settled();
      const read = await layTrack({ ...from, start: trip.start, trip: id });
      const { items, way: only } = read.laid;
      return { ...read, told: await tellRoute({ ...trip, items, ways: [only] }) };
    },
  });
  const lay = (from: File, how: Going, pace: number) =>
    laying.mutate({ file: from, way: how, factor: pace });
  const open = (chosen: File) => {
    setFile(chosen);
    lay(chosen, way, factor);
  };
  const drop = (dropped: DataTransfer) => {
    const [first] = dropped.files;
    if (first !== undefined) open(first);
  };
  const done = (take: () => void) => {
    take();
    globalThis.scrollTo({ top: 0 }); // to what has become of it
    laying.reset();
    setFile(null);
  };
  return (
    <section aria-label="Open a track" className="track-in">
      <h2>Open a track</h2>
      <DropHere onDrop={drop}>
        <p>
          Drop a GPX file or a GeoJSON line: legs are cut by slope, halts and named huts, camps,
          water and sockets become stops. Without times, your pace lays out days and nights.
        </p>
        <div className="row fields">
          <FileIn label="Open a track file" accept=".gpx,.geojson,.json" onFile={open} />
          <ChoiceIn
            label="You go"
            value={way}
            choices={GOINGS}
            onCommit={(chosen) => {
              setWay(chosen);
              if (file !== null) lay(file, chosen, factor);
            }}
          />
          <PercentIn
            label="Your pace"
            value={factor}
            min={20}
            max={500}
            onCommit={(pace) => {
              setFactor(pace);
              if (file !== null) lay(file, way, pace);
            }}
          />
        </div>
      </DropHere>
      {laying.isPending ? <p role="status">Reading {file?.name ?? "the track"}…</p> : null}
      {laying.error ? (
        <Said kind="wrong">
          {file?.name}: {laying.error.message}
        </Said>
      ) : null}
      {laying.data === undefined ? null : (
        <>
          <Preview {...laying.data} />
          <Begun trip={trip} laid={laying.data.laid} onStart={on.onStart} />
          {laying.data.again == null ? null : (
            <Again again={laying.data.again} onTake={(again) => done(() => on.onAgain(again))} />
          )}
          <div className="row start-row">
            <Button
              variant={laying.data.again == null ? "contained" : "text"}
              onClick={() => done(() => on.onBehind(laying.data))}
            >
              Add them behind the others
            </Button>
            <Button onClick={() => done(() => on.onInstead(laying.data.laid))}>
              {asked === 0
                ? "Put them in place of the others"
                : `Put them in place of the others, and of what is asked on ${countText(asked, "stretch", "stretches")}`}
            </Button>
          </div>
        </>
      )}
    </section>
  );
}

/** When the track itself began, if it says so and the trip does not begin then. */
function Begun({
  trip,
  laid,
  onStart,
}: {
  trip: Trip;
  laid: TrackLaid;
  onStart: (start: string) => void;
}) {
  if (laid.started_at == null) return null;
  const local = localOf(trip.time_zone, laid.started_at);
  if (local === trip.start) return null;
  return (
    <Button size="small" onClick={() => onStart(local)}>
      Begin the trip when the track began, {localField(local).replace("T", " ")}
    </Button>
  );
}

/** The trip goes this way already: times and heights anew, everything done by hand as it is. */
function Again({ again, onTake }: { again: Trip; onTake: (again: Trip) => void }) {
  const total = again.items.reduce((sum, one) => sum + one.duration_s, 0);
  return (
    <div className="again">
      <p>
        The trip goes this way already. Laid out again it lasts {minutesText(total / 60)}: edges,
        halts, activities and names made by hand stay, and so does all that is asked of cameras.
      </p>
      <Button variant="contained" onClick={() => onTake(again)}>
        Lay it out again, corrections kept
      </Button>
    </div>
  );
}

function Preview({ laid, told }: Pick<Seen, "laid" | "told">) {
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 1100);
  const { way, items } = laid;
  const side = width >= SIDE_BY_SIDE_PX;
  const total = items.reduce((sum, one) => sum + one.duration_s, 0);
  return (
    <>
      <p>
        <strong>{laid.name}</strong>: {kilometresText(way.length_m)}, {metresText(way.ascent_m)} up,{" "}
        {metresText(way.descent_m)} down,{" "}
        {way.clock === "track" ? "with its own times" : "at your pace"}.{" "}
        {laid.notes.length === 0 ? "" : `Mended: ${laid.notes.join("; ")}.`}
      </p>
      <div ref={frame} className={side ? "look-pictures side track-picture" : "track-picture"}>
        <PlanView
          lines={told.plans}
          cuts={[]}
          here={null}
          width={side ? PLAN_PX : width}
          label={`The way from above, ${kilometresText(way.length_m)} long, north up`}
        />
        <ProfileView way={way} items={items} width={side ? width - PLAN_PX - 30 : width} />
      </div>
      <details>
        <summary>
          {items.length} legs and stops, {minutesText(total / 60)}
        </summary>
        <ol className="plain-list">
          {items.map((one) => (
            <li key={one.id}>
              <strong>{one.name}</strong>, {one.kind === "leg" ? one.activity : "stop"},{" "}
              {minutesText(one.duration_s / 60)}
            </li>
          ))}
        </ol>
      </details>
    </>
  );
}

const PLAN_PX = 380;
const SIDE_BY_SIDE_PX = 760;
