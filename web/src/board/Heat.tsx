import { areaPath, columnPoints, linePath, type Point, runsOf } from "../scale/rope";
import type { LanePart } from "./Lane";

const COOL_C = 15;
const SHOWN_FROM = 2 / 3;
const FROST_FROM = 0.02;

/** Heat grows to its wall at the left; drawn only where it passes two thirds of its limit. */
export function Heat({ camera, result, lane, scale, window, spineX }: LanePart) {
  const wall = lane.spine - 3;
  const span = result.stop_c - COOL_C;
  const share = (bodyC: number) => Math.min(1, Math.max(0, (bodyC - COOL_C) / span));
  const edge = spineX - 2;
  const points = columnPoints(result.course, window.startMs, window.endMs, scale.y, (m) =>
    share(m.bodyC) < SHOWN_FROM ? edge : edge - wall * share(m.bodyC),
  );
  const runs: Point[][] = runsOf(points, (one) => one.x < edge);
  return (
    <g data-part={`heat-${camera.id}`}>
      {runs.map((run) => (
        <g key={run[0]?.y ?? 0}>
          <path d={areaPath(run, edge)} fill="url(#t-heat)" />
          <path d={linePath(run)} fill="none" stroke="var(--ember)" strokeWidth={1} />
        </g>
      ))}
    </g>
  );
}

/** The charge that the cold holds back, as a strip from the spine; where it meets the charge, the rope ends. */
export function Frost({ result, lane, scale, window, spineX, assignments }: LanePart) {
  const asked = new Set(assignments.map((one) => one.item));
  return (
    <g data-part="frost">
      {scale.bands
        .filter((band) => asked.has(band.id))
        .map((band) => {
          const points = columnPoints(
            result.course,
            Math.max(band.startMs, window.startMs),
            Math.min(band.endMs, window.endMs),
            scale.y,
            (m) => spineX + (m.held >= FROST_FROM ? Math.min(m.held, m.charge) : 0) * lane.rope,
          );
          if (points.every((point) => point.x <= spineX)) return null;
          return (
            <g key={`${band.id}-${String(band.startMs)}`}>
              <path d={areaPath(points, spineX)} fill="url(#t-frost)" />
              <path d={linePath(points)} fill="none" stroke="var(--frost)" strokeWidth={1.2} />
            </g>
          );
        })}
    </g>
  );
}
