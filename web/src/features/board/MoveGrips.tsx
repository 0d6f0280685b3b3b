import { useMemo, useState } from "react";
import { movePlaces, nearestBand } from "../../board/gripPlaces";
import { barredAt, movable, permitted, withMoved } from "../../domain/handEdits";
import type { Camera, Item, Move } from "../../domain/types";
import { Grip } from "../../ui/Grip";
import type { GripsProps } from "./Grips";

interface Lifted {
  move: Move;
  to: Item;
}

const SQUARE_PX = 14;
const can = (move: Move) => movable(move) !== null;

/** The hands' work, each piece lifted and put down at another stop where a hand can do it. */
export function MoveGrips(props: GripsProps) {
  const { document, drafting } = props;
  const [lifted, setLifted] = useState<Lifted | null>(null);
  return (
    <>
      {document.kit.cameras.map((camera, place) => (
        <LaneMoves
          key={camera.id}
          {...props}
          camera={camera}
          place={place}
          lifted={lifted?.move.camera === camera.id ? lifted : null}
          onLift={(next) => {
            setLifted(next);
            drafting.put((doc) => ({ ...doc, plan: withMoved(doc.plan, next.move, next.to.id) }));
          }}
          onKeep={() => {
            setLifted(null);
            drafting.keep();
          }}
          onLeave={() => {
            setLifted(null);
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
  lifted: Lifted | null;
  onLift: (lifted: Lifted) => void;
  onKeep: () => void;
  onLeave: () => void;
}

function LaneMoves(props: LaneProps) {
  const { document, rehearsal, scale, lanes, clock, drafting, hand, selected } = props;
  const { camera, place, lifted, onLift, onKeep, onLeave } = props;
  const places = useMemo(() => {
    const seen = movePlaces(rehearsal.moves, camera.id, scale, can);
    const known = lifted === null || seen.some((one) => one.move === lifted.move);
    return known ? seen : [...seen, { move: lifted.move, number: 0, y: 0 }];
  }, [rehearsal.moves, camera.id, scale, lifted]);
  const startOf = (id: string) => rehearsal.items.find((one) => one.id === id)?.start_ms ?? 0;
  const lane = lanes.at[place];
  const x = lanes.telling?.x ?? (lane?.x ?? 0) + (lane?.spine ?? 0) + 3;
  return (
    <>
      {lifted === null ? null : <Barred {...props} lifted={lifted} />}
      {places.map(({ move, y }) => {
        const kind = movable(move);
        if (kind === null) return null;
        const stops = permitted(kind, document.trip, document.kit);
        const up = lifted?.move === move;
        const at = up ? lifted.to.id : move.item;
        const value = stops.findIndex((one) => one.id === at);
        const name = stops[value]?.name ?? "";
        const band = scale.bands.find((one) => one.id === at);
        const top = up && at !== move.item ? (band?.y0 ?? y) + 4 : y;
        const near = up || (selected?.item === move.item && selected.camera === camera.id);
        const gain = up && !drafting.late() ? (drafting.difference ?? "") : "";
        const words = `${name} ${clock.time(startOf(at))}${gain === "" ? "" : `: ${gain}`}`;
        return (
          <Grip
            key={`${String(move.at_ms)}-${move.kind}-${move.unit}-${move.camera}`}
            label={`${move.text}, ${camera.name}: moved to`}
            mark={`move/${move.item}/${camera.id}`}
            value={Math.max(0, value)}
            min={0}
            max={stops.length - 1}
            step={1}
            page={3}
            words={words}
            dragged={(px) => {
              const to = nearestBand(stops, scale, y + px);
              return to === undefined ? value : stops.indexOf(to);
            }}
            onMove={(next) => {
              const to = stops[next];
              if (to === undefined) return;
              if (!scale.bands.some((one) => one.id === to.id)) hand.move(startOf(to.id));
              onLift({ move, to });
            }}
            onKeep={onKeep}
            onLeave={onLeave}
            moving={up}
            className={near ? "grip move-grip near" : "grip move-grip"}
            style={{ left: x, top, width: SQUARE_PX, height: SQUARE_PX }}
          />
        );
      })}
    </>
  );
}

/** Legs and stops where the lifted work cannot be done. */
function Barred({ document, scale, lanes, place, lifted }: LaneProps & { lifted: Lifted }) {
  const kind = movable(lifted.move);
  const lane = lanes.at[place];
  const items = new Map(document.trip.items.map((one) => [one.id, one]));
  return (
    <>
      {scale.bands.map((band) => {
        const item = items.get(band.id);
        const why = kind && item ? barredAt(kind, item, document.kit) : null;
        if (why === null) return null;
        return (
          <div
            key={band.id}
            className="barred"
            title={why}
            style={{
              left: (lane?.x ?? 0) + (lane?.spine ?? 0),
              top: band.y0,
              width: lane?.rope,
              height: band.y1 - band.y0,
            }}
          />
        );
      })}
    </>
  );
}
