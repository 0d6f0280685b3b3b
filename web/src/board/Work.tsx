import type { Camera, Move } from "../domain/types";
import { type Band, type Elastic, WORK_LINE_PX } from "../scale/elastic";
import type { Lanes } from "../scale/lanes";
import { fitted } from "../scale/labels";
import { movesIn, type WorkLine, workLines } from "./workLines";

interface WorkProps {
  moves: readonly Move[];
  cameras: readonly Camera[];
  scale: Elastic;
  lanes: Lanes;
}

/** Numbered work in the stop bands: lane by lane, or in order of doing in a column of its own. */
export function Work({ moves, cameras, scale, lanes }: WorkProps) {
  const { hands } = lanes;
  const nameOf = (id: string) => cameras.find((one) => one.id === id)?.name ?? id;
  return (
    <g className="label" fontSize={13}>
      {scale.bands.flatMap((band) => {
        const lines = workLines(movesIn(moves, band));
        if (hands)
          return lines.map((line, row) => (
            <Line
              key={`${band.id}-${String(band.startMs)}-${String(line.number)}`}
              line={line}
              text={fitted(`${nameOf(line.camera)}: ${line.text}`, hands.w - 18)}
              x={hands.x}
              band={band}
              row={row}
            />
          ));
        return cameras.flatMap((camera, place) =>
          lines
            .filter((line) => line.camera === camera.id)
            .map((line, row) => (
              <Line
                key={`${band.id}-${String(band.startMs)}-${String(line.number)}`}
                line={line}
                text={lanes.phone ? null : fitted(line.text, lanes.gutterW)}
                x={lanes.firstX + place * lanes.lane + lanes.work}
                band={band}
                row={row}
              />
            )),
        );
      })}
    </g>
  );
}

interface LineProps {
  line: WorkLine;
  text: string | null;
  x: number;
  band: Band;
  row: number;
}

/** One thing to do: its number in the order of doing, and in few words what. */
function Line({ line, text, x, band, row }: LineProps) {
  const y = band.y0 + 4 + row * WORK_LINE_PX;
  if (y + 13 > band.y1 + 1) return null;
  return (
    <g>
      <rect x={x} y={y} width={14} height={14} fill="var(--ink)" />
      <text
        x={x + 7}
        y={y + 11.2}
        textAnchor="middle"
        fontSize={11}
        fontWeight={740}
        fill="var(--paper)"
      >
        {line.number}
      </text>
      {text === null ? null : (
        <text
          x={x + 18}
          y={y + 11.5}
          fontWeight={560}
          fill="var(--ink)"
          stroke="var(--band)"
          strokeWidth={3}
          paintOrder="stroke"
        >
          <title>{line.charger ? `${line.text} into ${line.charger}` : line.text}</title>
          {text}
        </text>
      )}
    </g>
  );
}
