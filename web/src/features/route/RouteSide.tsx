import { Slider } from "@mui/material";
import { useRef } from "react";
import { trackAddress } from "../../api/queries";
import type { Clock } from "../../domain/clock";
import { endOf, type Here, hereWords, msNear, pointAt } from "../../domain/route";
import type { RouteTold, Trip } from "../../domain/types";
import { kilometresText, metresText } from "../../domain/units";
import { useWidth } from "../../ui/useWidth";
import { PlanView } from "./PlanView";

interface Props {
  id: number;
  trip: Trip;
  told: RouteTold;
  clock: Clock | null;
  here: Here | null;
  onHand: (ms: number) => void;
  onForget: (way: string) => void;
  settled: () => Promise<void>;
}

const FORMS = [
  { form: "gpx", name: "GPX" },
  { form: "geojson", name: "GeoJSON" },
] as const;
const MINUTE_MS = 60_000;

/** The ways from above, the hand and what is there, and the ways as files. */
export function RouteSide({ id, trip, told, clock, here, onHand, onForget, settled }: Props) {
  const frame = useRef<HTMLElement>(null);
  const width = useWidth(frame, 300);
  const item = trip.items.find((one) => one.id === here?.item);
  const words = here && item && clock ? hereWords(here, item, clock) : "";
  const cuts = trip.items.flatMap((one) => {
    if (one.on_way == null) return [];
    const at = pointAt(told, trip, one.id, one.on_way.from_m);
    return at === null ? [] : [{ x: at[0], y: at[1], stop: one.kind === "stop" }];
  });
  const last = endOf(told);
  return (
    <aside className="route-side" aria-label="The way from above" ref={frame}>
      {told.plans.length > 0 ? (
        <PlanView
          lines={told.plans}
          cuts={cuts}
          here={here?.at ?? null}
          width={width}
          label={`${trip.ways.map((one) => one.name).join(", ")} from above, north up`}
          onPoint={(x, y) => {
            const ms = msNear(told, trip, x, y);
            if (ms !== null) onHand(ms);
          }}
        />
      ) : (
        <p className="hint">Open a track below, and the way is drawn here from above.</p>
      )}
      <Slider
        value={Math.round((here?.ms ?? 0) / MINUTE_MS)}
        min={0}
        max={Math.max(1, Math.floor(last / MINUTE_MS))}
        shiftStep={60}
        step={5}
        onChange={(_, value) => onHand(Math.min(last - 1, (value as number) * MINUTE_MS))}
        aria-label="Along the trip"
        getAriaValueText={() => words}
      />
      <p className="label route-here">{words}</p>
      {trip.ways.map((way) => (
        <div key={way.id} className="way-line">
          <strong className="label">{way.name}</strong>{" "}
          <span className="label">
            {kilometresText(way.length_m)}, {metresText(way.ascent_m)} up,{" "}
            {metresText(way.descent_m)} down, {way.clock === "track" ? "its own times" : "by pace"}
          </span>{" "}
          <button type="button" className="plain link" onClick={() => onForget(way.id)}>
            Forget the way {way.name}
          </button>
        </div>
      ))}
      {trip.ways.length === 0 ? null : (
        <p>
          Save with the hands’ work at each stop:{" "}
          {FORMS.map(({ form, name }) => (
            <a
              key={form}
              href={trackAddress(id, form)}
              onClick={(event) => {
                event.preventDefault();
                void settled().then(() => window.location.assign(trackAddress(id, form)));
              }}
            >
              {name}
            </a>
          ))}
        </p>
      )}
    </aside>
  );
}
