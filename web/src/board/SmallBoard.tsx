import { memo } from "react";
import type { PlanDocument, Rehearsal } from "../domain/types";

const WIDTH = 84;
const HEIGHT = 44;
const EDGE = 5;

interface SmallProps {
  document: PlanDocument;
  rehearsal: Rehearsal;
  startMs: number;
  endMs: number;
}

/** Lanes downward: what is filmed in rope colour, what is not hatched. */
export const SmallBoard = memo(function SmallBoard(props: SmallProps) {
  const { document, rehearsal, startMs, endMs } = props;
  const lane = WIDTH / Math.max(1, document.kit.cameras.length);
  const y = (ms: number) =>
    EDGE + ((HEIGHT - 2 * EDGE) * (ms - startMs)) / Math.max(1, endMs - startMs);
  const inside = (one: { start_ms: number; end_ms: number }) =>
    one.end_ms > startMs && one.start_ms < endMs;
  const bar = (one: { start_ms: number; end_ms: number }, least: number) => {
    const top = y(Math.max(startMs, one.start_ms));
    return { y: top, height: Math.max(least, y(Math.min(endMs, one.end_ms)) - top) };
  };
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden="true">
      {document.kit.cameras.map((camera, place) => {
        const result = rehearsal.cameras.find((one) => one.camera === camera.id);
        const x = place * lane + 4;
        return (
          <g key={camera.id}>
            <line x1={x} x2={x} y1={EDGE} y2={HEIGHT - EDGE} stroke="var(--rule)" />
            {result?.filmed.filter(inside).map((span) => (
              <rect
                key={span.start_ms}
                x={x}
                width={lane - 8}
                {...bar(span, 1)}
                fill="var(--rope)"
              />
            ))}
            {result?.losses.filter(inside).map((loss) => (
              <rect
                key={`${loss.item}-${loss.cause}`}
                x={x - 2}
                width={lane - 4}
                {...bar(loss, 4)}
                fill="var(--gap)"
              />
            ))}
          </g>
        );
      })}
    </svg>
  );
});
