import { areaPath, columnPoints } from "../scale/rope";
import type { LaneProps } from "./Lane";

/** Room left, on each card for as long as it is in. */
export function CardColumn({ camera, result, lanes, scale, window, stores, x }: LaneProps) {
  const left = x + lanes.card;
  const width = lanes.phone ? 4 : 8;
  return (
    <g>
      <rect
        x={left}
        y={0}
        width={width}
        height={scale.height}
        fill="none"
        stroke="var(--card)"
        strokeWidth={0.7}
      />
      {stores.flatMap((store) =>
        store.stays
          .filter(
            (stay) =>
              stay.place === camera.id &&
              stay.end_ms > window.startMs &&
              stay.start_ms < window.endMs,
          )
          .map((stay) => {
            const room = (used: number) =>
              left + width * Math.max(0, 1 - used / Math.max(1, store.size));
            const from = Math.max(stay.start_ms, window.startMs);
            const points = columnPoints(
              result.course,
              from,
              Math.min(stay.end_ms, window.endMs),
              scale.y,
              (m) => room(m.usedBytes),
            );
            return (
              <path
                key={`${store.id}-${String(stay.start_ms)}`}
                d={areaPath(points, left)}
                fill="var(--card)"
                fillOpacity={0.85}
              />
            );
          }),
      )}
    </g>
  );
}

/** The fitted battery's name at the top of each battery's first stretch in the window. */
export function BatteryNames({
  camera,
  assignments,
  batteries,
  lanes,
  scale,
  spineX,
  laid,
}: LaneProps & { spineX: number }) {
  let shown = "";
  const names: { id: string; name: string; y: number }[] = [];
  for (const band of scale.bands) {
    if (lanes.phone && band.kind === "stop") continue; // the work stands on the rope there
    if (!assignments.some((one) => one.item === band.id)) continue;
    const from = laid.find((one) => one.id === band.id)?.start_ms ?? band.startMs;
    const battery = batteries.find((one) =>
      one.stays.some(
        (stay) =>
          stay.place === camera.id &&
          stay.start_ms <= Math.max(from, band.startMs) &&
          stay.end_ms > from,
      ),
    );
    if (battery && battery.id !== shown && band.y1 - band.y0 >= 15) {
      shown = battery.id;
      names.push({ id: band.id, name: battery.name, y: band.y0 });
    }
  }
  if (lanes.rope < 30) return null;
  return (
    <g className="label" fontSize={12} fontWeight={640}>
      {names.map((one) => (
        <g key={one.id}>
          <rect
            x={spineX + 5}
            y={one.y + 2}
            width={7 + one.name.length * 7}
            height={14}
            fill="var(--paper)"
            stroke="var(--rope)"
            strokeWidth={0.8}
          />
          <text x={spineX + 8.5} y={one.y + 13} fill="var(--ink)">
            {one.name}
          </text>
        </g>
      ))}
    </g>
  );
}
