import type { Camera, Move } from "../domain/types";
import type { Elastic } from "../scale/elastic";
import type { Lanes } from "../scale/lanes";
import { fitted } from "../scale/labels";
import { workLines } from "./workLines";

interface WorkProps {
  moves: readonly Move[];
  cameras: readonly Camera[];
  scale: Elastic;
  lanes: Lanes;
}

/** Numbered work in the stop bands. */
export function Work({ moves, cameras, scale, lanes }: WorkProps) {
  return (
    <g className="label" fontSize={13}>
      {scale.bands.flatMap((band) => {
        const lines = workLines(moves, band.id);
        return cameras.flatMap((camera, place) =>
          lines
            .filter((line) => line.camera === camera.id)
            .map((line, row) => {
              const y = band.y0 + 4 + row * 17;
              if (y + 13 > band.y1 + 1) return null;
              const x = lanes.firstX + place * lanes.lane + lanes.work;
              return (
                <g key={`${band.id}-${String(band.startMs)}-${String(line.number)}`}>
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
                  {lanes.phone ? null : (
                    <text
                      x={x + 18}
                      y={y + 11.5}
                      fontWeight={560}
                      fill="var(--ink)"
                      stroke="var(--band)"
                      strokeWidth={3}
                      paintOrder="stroke"
                    >
                      <title>
                        {line.charger ? `${line.text} into ${line.charger}` : line.text}
                      </title>
                      {fitted(line.text, lanes.gutterW)}
                    </text>
                  )}
                </g>
              );
            }),
        );
      })}
    </g>
  );
}
