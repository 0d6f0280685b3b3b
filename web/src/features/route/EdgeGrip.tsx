import { useMemo, useState } from "react";
import { usePumped } from "../../api/usePumped";
import { correctRoute } from "../../api/queries";
import type { TripAndPlan } from "../../domain/edits";
import { between } from "../../domain/route";
import type { Correction, ItemTold, Leg } from "../../domain/types";
import { kilometresText, minutesText } from "../../domain/units";
import { Grip } from "../../ui/Grip";
import type { StripLanes } from "./rowPictures";

interface Props {
  doc: TripAndPlan;
  leg: Leg;
  follower: Leg;
  told: ItemTold;
  toldAfter: ItemTold;
  /** px of the two rows. */
  heights: readonly [number, number];
  lanes: StripLanes;
  onMove: (correction: Correction) => void;
}

const LEAST_M = 20;
const STEP_M = 50;

/** The edge between two legs of a way: dragged down or up the picture, or moved by keys. */
export function EdgeGrip({ doc, leg, follower, told, toldAfter, heights, lanes, onMove }: Props) {
  const [to, setTo] = useState<number | null>(null);
  const [low, edge, high] = [
    (leg.on_way?.from_m ?? 0) + LEAST_M,
    leg.on_way?.to_m ?? 0,
    (follower.on_way?.to_m ?? 0) - LEAST_M,
  ];
  const at = to ?? edge;
  const ask = useMemo(
    () => (to === null ? null : { ...doc, correction: moved(leg.id, to) }),
    [doc, leg.id, to],
  );
  const preview = usePumped(correctRoute, ask);
  const along = (px: number) => {
    const [mine, after] = px < 0 ? [told, heights[0]] : [toldAfter, heights[1]];
    const share = px < 0 ? 1 + px / after : px / after;
    return between(mine.along_m, Math.min(1, Math.max(0, share))) ?? edge;
  };
  const down = to === null ? 0 : pxOf(at, edge, told, toldAfter, heights);
  return (
    <Grip
      tabStop
      label={`End of ${leg.name}, start of ${follower.name}`}
      value={Math.round(at)}
      min={Math.round(low)}
      max={Math.round(high)}
      step={STEP_M}
      words={`${kilometresText(at)}${to === null ? "" : `: ${lengthsText(preview.result, leg, follower)}`}`}
      dragged={along}
      onMove={setTo}
      onKeep={() => {
        if (to !== null && Math.abs(to - edge) > 1) onMove(moved(leg.id, to));
        setTo(null);
      }}
      onLeave={() => setTo(null)}
      moving={to !== null}
      className="grip edge-grip"
      style={{
        left: lanes.ground[0],
        width: lanes.ground[1] - lanes.ground[0],
        transform: `translateY(${String(down)}px)`,
      }}
    />
  );
}

function moved(item: string, to_m: number): Correction {
  return { kind: "edge", item, to_m: Math.round(to_m) };
}

function lengthsText(preview: TripAndPlan | null, leg: Leg, follower: Leg): string {
  return [leg, follower]
    .map((one) => {
      const now = preview?.trip.items.find((each) => each.id === one.id) ?? one;
      return `${one.name} ${minutesText(now.duration_s / 60)}`;
    })
    .join(", ");
}

/** How far down from the edge a place along the way is drawn. */
function pxOf(
  along: number,
  edge: number,
  told: ItemTold,
  after: ItemTold,
  heights: readonly [number, number],
): number {
  const mine = along < edge ? told : after;
  const last = Math.max(1, mine.along_m.length - 1);
  const place = mine.along_m.findIndex((each) => each >= along);
  const share = (place < 0 ? last : place) / last;
  return along < edge ? (share - 1) * heights[0] : share * heights[1];
}
