import { Alert, Button } from "@mui/material";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { layTrack } from "../../api/queries";
import { itemKeys } from "../../domain/routeEdits";
import { type Way, WAYS } from "../../domain/track";
import type { TrackLaid, Trip } from "../../domain/types";
import { kilometresText, minutesText } from "../../domain/units";
import { DropHere } from "../../ui/DropHere";
import { FileIn } from "../../ui/FileIn";
import { ChoiceIn, PercentIn } from "../../ui/fields";
import { TrackPicture } from "./TrackPicture";

interface Props {
  trip: Trip;
  /** Stretches that the plan asks for, and that go when the legs are replaced. */
  asked: number;
  onLaid: (laid: TrackLaid, instead: boolean) => void;
}

/** Legs and stops from a track file, seen before they are taken. */
export function TrackIn({ trip, asked, onLaid }: Props) {
  const [file, setFile] = useState<File | null>(null);
  const [way, setWay] = useState<Way>("foot");
  const [factor, setFactor] = useState(1);
  const laying = useMutation({ mutationFn: layTrack });
  const lay = (from: File, how: Way, pace: number) =>
    laying.mutate({ file: from, way: how, factor: pace, start: trip.start, taken: itemKeys(trip) });
  const open = (chosen: File) => {
    setFile(chosen);
    lay(chosen, way, factor);
  };
  const drop = (dropped: DataTransfer) => {
    const [first] = dropped.files;
    if (first !== undefined) open(first);
  };
  const take = (laid: TrackLaid, instead: boolean) => {
    onLaid(laid, instead);
    laying.reset();
    setFile(null);
  };
  const laid = laying.data;
  const count = laid?.items.length ?? 0;
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
            choices={WAYS}
            width={290}
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
            width={120}
            onCommit={(pace) => {
              setFactor(pace);
              if (file !== null) lay(file, way, pace);
            }}
          />
        </div>
      </DropHere>
      {laying.isPending ? <p role="status">Reading {file?.name ?? "the track"}…</p> : null}
      {laying.error ? (
        <Alert severity="error" role="alert">
          {file?.name}: {laying.error.message}
        </Alert>
      ) : null}
      {laid === undefined ? null : (
        <>
          <p>
            <strong>{laid.name}</strong>: {kilometresText(laid.length_m)},{" "}
            {Math.round(laid.ascent_m)} m up, {Math.round(laid.descent_m)} m down,{" "}
            {laid.timed ? "with its own times" : "at your pace"}.{" "}
            {laid.notes.length === 0 ? "" : `Mended: ${laid.notes.join("; ")}.`}
          </p>
          <TrackPicture laid={laid} />
          <details>
            <summary>
              {count} legs and stops,{" "}
              {minutesText(laid.items.reduce((sum, one) => sum + one.duration_s, 0) / 60)}
            </summary>
            <ol className="plain-list">
              {laid.items.map((one) => (
                <li key={one.id}>
                  <strong>{one.name}</strong>, {one.kind === "leg" ? one.activity : "stop"},{" "}
                  {minutesText(one.duration_s / 60)}
                </li>
              ))}
            </ol>
          </details>
          <div className="row start-row">
            <Button variant="contained" onClick={() => take(laid, false)}>
              Add them behind the others
            </Button>
            <Button onClick={() => take(laid, true)}>
              {asked === 0
                ? "Put them in place of the others"
                : `Put them in place of the others, and of what is asked on ${String(asked)} stretches`}
            </Button>
          </div>
        </>
      )}
    </section>
  );
}
