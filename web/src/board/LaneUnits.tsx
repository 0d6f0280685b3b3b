import type { Pooled } from "../domain/types";
import { writtenStays } from "../domain/written";
import { columnPoints, runsOf } from "../scale/rope";
import type { LanePart } from "./Lane";

const LOW_ROOM = 0.2;
const CARD_PX = 3;
const NAME_BESIDE_PX = 3;

/** Room on the card that is written to: a thin line, strong only where a fifth or less is left. */
export function CardLine(part: LanePart) {
  const { result, lane, scale, window, stores, camera, assignments, laid } = part;
  if (lane.idle) return null;
  const x = lane.x + lane.w - CARD_PX - 3;
  return (
    <g data-part="card">
      {stores.flatMap((store) =>
        writtenStays(store, camera, assignments, laid)
          .filter((stay) => stay.endMs > window.startMs && stay.startMs < window.endMs)
          .map((stay) => {
            const from = Math.max(stay.startMs, window.startMs);
            const to = Math.min(stay.endMs, window.endMs);
            const room = (used: number) => Math.max(0, 1 - used / Math.max(1, store.size));
            const points = columnPoints(result.course, from, to, scale.y, (m) => room(m.usedBytes));
            return (
              <g key={`${store.id}-${String(stay.startMs)}`} fill="var(--card)">
                <rect
                  x={x}
                  y={scale.y(from)}
                  width={CARD_PX}
                  height={Math.max(0, scale.y(to) - scale.y(from))}
                  opacity={0.28}
                />
                {runsOf(points, (one) => one.x < LOW_ROOM).map((run) => (
                  <rect
                    key={run[0]?.y ?? 0}
                    x={x}
                    y={run[0]?.y ?? 0}
                    width={CARD_PX}
                    height={(run.at(-1)?.y ?? 0) - (run[0]?.y ?? 0)}
                  />
                ))}
              </g>
            );
          }),
      )}
    </g>
  );
}

/** The fitted battery's name beside the rope, at the top of each battery's first stretch. */
export function BatteryNames(part: LanePart) {
  const { lane, spineX, phone } = part;
  if (lane.idle || phone) return null;
  return (
    <g className="label" fontSize={12} fontWeight={740} fill="var(--ink)">
      {namesOf(part).map((one) => (
        <text
          key={one.id}
          x={spineX + lane.rope + NAME_BESIDE_PX}
          y={one.y + 12}
          stroke="var(--paper)"
          strokeWidth={3}
          paintOrder="stroke"
        >
          {one.name}
        </text>
      ))}
    </g>
  );
}

function namesOf({ camera, assignments, batteries, scale, laid }: LanePart) {
  let shown = "";
  const names: { id: string; name: string; y: number }[] = [];
  for (const band of scale.bands) {
    if (!assignments.some((one) => one.item === band.id)) continue;
    const from = laid.find((one) => one.id === band.id)?.start_ms ?? band.startMs;
    const battery = batteries.find((one) => wasIn(one, camera.id, Math.max(from, band.startMs)));
    if (battery === undefined || battery.id === shown) continue;
    shown = battery.id;
    names.push({ id: band.id, name: battery.name, y: band.y0 });
  }
  return names;
}

function wasIn(unit: Pooled, camera: string, atMs: number): boolean {
  return unit.stays.some(
    (stay) => stay.place === camera && stay.start_ms <= atMs && stay.end_ms > atMs,
  );
}
