import { useMemo, useState } from "react";
import { type Stretch, stretchesOf, withStretch } from "../../domain/stretches";
import type { Camera } from "../../domain/types";
import { Grip } from "../../ui/Grip";
import type { GripsProps } from "./Grips";

type End = "first" | "last";

interface Pulled {
  stretch: Stretch;
  end: End;
  to: number;
}

const HEIGHT_PX = 10;

/** Both ends of every stretch: pulled over further legs and stops, or back. */
export function StretchGrips(props: GripsProps) {
  const { document, drafting } = props;
  const [pulled, setPulled] = useState<Pulled | null>(null);
  const over = () => setPulled(null);
  return (
    <>
      {document.kit.cameras.map((camera, place) => (
        <LaneEnds
          key={camera.id}
          {...props}
          camera={camera}
          place={place}
          pulled={pulled?.stretch.camera === camera.id ? pulled : null}
          onPull={(next) => {
            setPulled(next);
            const { stretch, end, to } = next;
            const [first, last] = end === "first" ? [to, stretch.last] : [stretch.first, to];
            drafting.put((doc) => ({
              ...doc,
              plan: withStretch(doc.trip, doc.plan, stretch, first, last),
            }));
          }}
          onKeep={() => {
            over();
            drafting.keep();
          }}
          onLeave={() => {
            over();
            drafting.leave();
          }}
        />
      ))}
    </>
  );
}

interface LaneProps extends GripsProps {
  camera: Camera;
  place: number;
  pulled: Pulled | null;
  onPull: (pulled: Pulled) => void;
  onKeep: () => void;
  onLeave: () => void;
}

function LaneEnds(props: LaneProps) {
  const { present, scale, lanes, drafting, hand, rehearsal, selected } = props;
  const { camera, place, pulled, onPull, onKeep, onLeave } = props;
  const { trip, plan } = present;
  const stretches = useMemo(() => stretchesOf(trip, plan, camera.id), [trip, plan, camera.id]);
  const bandOf = useMemo(() => new Map(scale.bands.map((one) => [one.id, one])), [scale]);
  const edgeY = (at: number, end: End) => {
    const band = bandOf.get(trip.items[at]?.id ?? "");
    return band === undefined ? null : end === "first" ? band.y0 : band.y1;
  };
  const lane = lanes.at[place];
  const left = (lane?.x ?? 0) + (lane?.spine ?? 0);
  return stretches.flatMap((stretch) =>
    (["first", "last"] as const).flatMap((end) => {
      const up = pulled?.end === end && pulled.stretch.first === stretch.first ? pulled : null;
      const at = up?.to ?? stretch[end];
      const y = edgeY(at, end);
      const home = edgeY(stretch[end], end);
      if (y === null && up === null) return [];
      const [min, max] =
        end === "first" ? [stretch.earliest, stretch.last] : [stretch.first, stretch.latest];
      const name = trip.items[at]?.name ?? "";
      const chosen = trip.items.findIndex((one) => one.id === selected?.item);
      const mine = selected?.camera === camera.id;
      const near = up !== null || (mine && chosen >= stretch.first && chosen <= stretch.last);
      const gain = up !== null && !drafting.late() ? (drafting.difference ?? "") : "";
      return [
        <Grip
          key={`${String(stretch.first)}-${end}`}
          label={`${camera.name}: ${end === "first" ? "starts with" : "goes on through"}`}
          mark={`${end}/${trip.items[stretch[end]]?.id ?? ""}/${camera.id}`}
          value={at}
          min={min}
          max={max}
          step={1}
          page={3}
          words={`${name}${gain === "" ? "" : `: ${gain}`}`}
          dragged={(px) => nearestEdge(trip.items.length, (home ?? 0) + px, (n) => edgeY(n, end))}
          onMove={(to) => {
            const item = trip.items[to]?.id ?? "";
            const laid = rehearsal.items.find((one) => one.id === item);
            if (!bandOf.has(item) && laid) hand.move(laid.start_ms);
            onPull({ stretch, end, to });
          }}
          onKeep={onKeep}
          onLeave={onLeave}
          moving={up !== null}
          className={`grip stretch-grip ${end}${near ? " near" : ""}`}
          style={{
            left,
            top: (y ?? 0) - (end === "first" ? 0 : HEIGHT_PX),
            width: lane?.rope,
            height: HEIGHT_PX,
          }}
        />,
      ];
    }),
  );
}

function nearestEdge(count: number, y: number, edgeY: (place: number) => number | null): number {
  let best = { place: 0, away: Infinity };
  for (let place = 0; place < count; place += 1) {
    const edge = edgeY(place);
    if (edge !== null && Math.abs(edge - y) < best.away) best = { place, away: Math.abs(edge - y) };
  }
  return best.place;
}
