import { useState } from "react";
import { withItem } from "../../domain/edits";
import { withDuration } from "../../domain/routeEdits";
import { minutesText } from "../../domain/units";
import { Grip } from "../../ui/Grip";
import type { GripsProps } from "./Grips";

const STEP_MIN = 5;
const MOST_MIN = 48 * 60;
const HEIGHT_PX = 9;

/** The lower edge of each leg and stop on the clock rail: how long it takes. */
export function TimeGrips({ present, scale, lanes, drafting, selected }: GripsProps) {
  const [pulled, setPulled] = useState<{ item: string; minutes: number } | null>(null);
  const over = () => setPulled(null);
  return scale.bands.map((band) => {
    const item = present.trip.items.find((one) => one.id === band.id);
    if (item === undefined || band.kind === "wait") return null;
    const typed = item.duration_s / 60;
    const up = pulled?.item === item.id ? pulled : null;
    const value = up?.minutes ?? Math.round(typed);
    const gain = up !== null && !drafting.late() ? (drafting.difference ?? "") : "";
    return (
      <Grip
        key={`${band.id}-${String(band.startMs)}`}
        label={`How long: ${item.name}`}
        mark={`time/${item.id}`}
        value={value}
        min={Math.min(STEP_MIN, value)}
        max={MOST_MIN}
        step={STEP_MIN}
        page={12 * STEP_MIN}
        words={`${minutesText(value)}${gain === "" ? "" : `: ${gain}`}`}
        dragged={(px) => Math.round((typed + px / scale.pxPerMin) / STEP_MIN) * STEP_MIN}
        onMove={(minutes) => {
          setPulled({ item: item.id, minutes });
          drafting.put((doc) => {
            const now = doc.trip.items.find((one) => one.id === item.id);
            if (now === undefined) return doc;
            return { ...doc, trip: withItem(doc.trip, withDuration(now, minutes * 60)) };
          });
        }}
        onKeep={() => {
          over();
          drafting.keep();
        }}
        onLeave={() => {
          over();
          drafting.leave();
        }}
        moving={up !== null}
        className={selected?.item === item.id ? "grip time-grip near" : "grip time-grip"}
        style={{
          left: lanes.clockX,
          top: band.y1 - HEIGHT_PX / 2 - 1,
          width: lanes.wordsX + lanes.wordsW - lanes.clockX - 6,
          height: HEIGHT_PX,
        }}
      />
    );
  });
}
