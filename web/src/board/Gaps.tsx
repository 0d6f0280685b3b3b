import type { Loss } from "../domain/types";
import { minutesText } from "../domain/units";
import type { LanePart } from "./Lane";

const GAP_MIN_PX = 14;
const WORDS_FROM_PX = 14;
const WORDS_ROPE_PX = 40;

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
