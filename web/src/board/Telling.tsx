import type { Clock } from "../domain/clock";
import type { Camera, Move } from "../domain/types";
import { fitted } from "../scale/labels";
import type { Band, Elastic } from "../scale/elastic";
import type { Lanes } from "../scale/lanes";
import { lineTop, type StopWork, stopWork, worded, type WorkLine } from "./workLines";

interface TellingProps {
  moves: readonly Move[];
  cameras: readonly Camera[];
  scale: Elastic;
  lanes: Lanes;
  clock: Clock;
}

const NUMBER_PX = 14;
const TIME_X = 20;
const WORDS_X = 58;
const LONGEST_NAMES = 20;

/** The hands' work in the stop bands: numbered, timed, on arrival and before leaving. */
export function Telling({ moves, cameras, scale, lanes, clock }: TellingProps) {
  const stops = scale.bands.map((band) => ({ band, work: stopWork(moves, band) }));
  return (
    <g className="label" fontSize={13}>
      {stops.map(({ band, work }) => (
        <g key={`${band.id}-${String(band.startMs)}`}>
          {work.lines.map((line, row) =>
            lanes.telling === null ? (
              <Numbers key={line.number} {...{ band, work, line, row, cameras, lanes }} />
            ) : (
              <Line
                key={line.number}
                {...{ band, work, line, row, cameras, clock }}
                x={lanes.telling.x}
                width={lanes.telling.w}
              />
            ),
          )}
          {lanes.telling !== null && work.leaving < work.lines.length ? (
            <Leaving band={band} work={work} x={lanes.telling.x} />
          ) : null}
        </g>
      ))}
    </g>
  );
}

interface LineProps {
  band: Band;
  work: StopWork;
  line: WorkLine;
  row: number;
  cameras: readonly Camera[];
}

/** One thing to do: its number in the order of doing, its clock time, to which camera, what. */
function Line(props: LineProps & { clock: Clock; x: number; width: number }) {
  const { band, work, line, row, cameras, clock, x, width } = props;
  const y = band.y0 + lineTop(work, row);
  const { who, what } = worded(line, cameras);
  const names = who.length > LONGEST_NAMES ? `${String(line.cameras.length)} cameras` : who;
  const text = fitted(what, width - WORDS_X - 12 - names.length * 7);
  return (
    <g>
      <Square x={x} y={y} number={line.number} />
      <text x={x + TIME_X} y={y + 11.5} fill="var(--ink-2)">
        {clock.time(line.atMs)}
      </text>
      <text x={x + WORDS_X} y={y + 11.5} fill="var(--ink)">
        <title>{`${who} ${what}`.trim()}</title>
        <tspan fontWeight={740}>{names}</tspan> {text}
      </text>
    </g>
  );
}

/** On a phone the number alone, on the ropes that it is about; the words stand in the cells. */
function Numbers(props: LineProps & { lanes: Lanes }) {
  const { band, work, line, row, cameras, lanes } = props;
  const y = band.y0 + lineTop(work, row);
  return line.cameras.map((id) => {
    const lane = lanes.at[cameras.findIndex((one) => one.id === id)];
    return lane === undefined ? null : (
      <Square key={id} x={lane.x + lane.spine + 3} y={y} number={line.number} />
    );
  });
}

function Square({ x, y, number }: { x: number; y: number; number: number }) {
  return (
    <>
      <rect x={x} y={y} width={NUMBER_PX} height={NUMBER_PX} fill="var(--ink)" />
      <text
        x={x + NUMBER_PX / 2}
        y={y + 11.2}
        textAnchor="middle"
        fontSize={12}
        fontWeight={740}
        fill="var(--paper)"
      >
        {number}
      </text>
    </>
  );
}

function Leaving({ band, work, x }: { band: Band; work: StopWork; x: number }) {
  return (
    <text x={x} y={band.y0 + lineTop(work, work.leaving) - 3} fontSize={12} fill="var(--ink-2)">
      before leaving
    </text>
  );
}
