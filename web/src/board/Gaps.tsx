import type { Loss } from "../domain/types";
import { minutesText } from "../domain/units";
import type { LanePart } from "./Lane";

const GAP_MIN_PX = 14;
const WORDS_FROM_PX = 14;
const WORDS_ROPE_PX = 40;
const DEAD_PX = 10;

/** What was asked and is not filmed: a box over the full rope in its own leg. */
export function Gaps({ result, lane, scale, window, spineX, bare = false, phone }: LanePart) {
  const losses = result.losses.filter(
    (loss) => loss.end_ms > window.startMs && loss.start_ms < window.endMs,
  );
  return (
    <g data-part="gaps">
      {losses.map((loss) => (
        <Box
          key={`${loss.item}-${loss.cause}`}
          loss={loss}
          x={spineX}
          width={lane.rope}
          {...placed(loss, scale)}
          words={!bare && !phone && lane.rope >= WORDS_ROPE_PX}
        />
      ))}
    </g>
  );
}

/** Where a thing that serves the camera is dead: a barred strip along the rope's far edge. */
export function Dead({ dying = [], lane, scale, window, spineX }: LanePart) {
  const width = Math.min(DEAD_PX, lane.rope / 2);
  const x = spineX + lane.rope - width;
  return (
    <g data-part="dead">
      {dying.flatMap((gear) =>
        gear.gaps
          .filter((gap) => gap.end_ms > window.startMs && gap.start_ms < window.endMs)
          .map((gap) => {
            const top = scale.y(Math.max(gap.start_ms, window.startMs));
            const end = scale.y(Math.min(gap.end_ms, window.endMs));
            return (
              <g key={`${gear.id}-${String(gap.start_ms)}`}>
                <rect
                  x={x - 2}
                  y={top - 1}
                  width={width + 4}
                  height={Math.max(DEAD_PX, end - top) + 2}
                  fill="var(--paper)"
                />
                <rect
                  x={x}
                  y={top}
                  width={width}
                  height={Math.max(DEAD_PX, end - top)}
                  fill="url(#t-dead)"
                  stroke="var(--gap)"
                  strokeWidth={1.4}
                />
              </g>
            );
          }),
      )}
    </g>
  );
}

/** A box that is tall enough to be seen, pushed back into the leg that it is about. */
function placed(loss: Loss, scale: LanePart["scale"]): { top: number; height: number } {
  const from = scale.y(loss.start_ms);
  const height = Math.max(GAP_MIN_PX, scale.y(loss.end_ms) - from);
  const band = scale.bands.find((one) => one.id === loss.item);
  const top = band === undefined ? from : Math.max(band.y0, Math.min(from, band.y1 - height));
  return { top, height };
}

interface BoxProps {
  loss: Loss;
  x: number;
  width: number;
  top: number;
  height: number;
  words: boolean;
}

function Box({ loss, x, width, top, height, words }: BoxProps) {
  return (
    <g>
      <rect x={x + 1} y={top - 1} width={width + 3} height={height + 2} fill="var(--paper)" />
      <rect
        x={x + 3}
        y={top + 1}
        width={width - 2}
        height={height - 2}
        fill="url(#t-gap)"
        stroke="var(--gap)"
        strokeWidth={2}
      />
      {words && height >= WORDS_FROM_PX ? (
        <text
          className="label"
          x={x + 2 + width / 2}
          y={top + height / 2 + 4.5}
          textAnchor="middle"
          fontSize={13}
          fontWeight={740}
          fill="var(--gap)"
          stroke="var(--paper)"
          strokeWidth={5}
          paintOrder="stroke"
        >
          {loss.minutes > 0 ? minutesText(loss.minutes) : "< 1 min"}
        </text>
      ) : null}
    </g>
  );
}
