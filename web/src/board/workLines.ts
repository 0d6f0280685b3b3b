import type { Camera, Move } from "../domain/types";

/** A leg or stop, or the part of one that a day shows. */
interface Part {
  id: string;
  startMs: number;
  endMs: number;
}

export interface WorkLine {
  number: number;
  camera: string;
  text: string;
  /** What several are plugged into at one stop, and which: they share a line. */
  charger: string;
  units: string[];
  moves: Move[];
}

/** Longer than this between a stop and the next start, they are two things to do. */
const AT_ONCE_MS = 10 * 60_000;

/** What the hands do at a stop, or in the part of it that one day shows. */
export function movesIn(moves: readonly Move[], { id, startMs, endMs }: Part): Move[] {
  return moves.filter((one) => one.item === id && startMs <= one.at_ms && one.at_ms <= endMs);
}

/** The hands' work of one stop: one line a camera and task, numbered across the board. */
export function workLines(moves: readonly Move[]): WorkLine[] {
  const lines: WorkLine[] = [];
  for (const move of moves) {
    const before = lines.findLast((one) => one.camera === move.camera);
    const since = before?.moves.at(-1)?.at_ms ?? 0;
    const joins =
      before !== undefined &&
      before.text === "stop" &&
      move.kind === "start" &&
      move.at_ms - since <= AT_ONCE_MS;
    const plugged = lines.findLast(
      (one) => one.charger === move.puts_in && move.kind === "plug" && move.puts_in !== "",
    );
    if (joins) {
      before.text = `stop · ${short(move)}`;
      before.moves.push(move);
    } else if (plugged !== undefined && plugged.camera === move.camera) {
      plugged.units = [...plugged.units, move.takes_out];
      plugged.text = `plug ${plugged.units.join(", ")}`;
      plugged.moves.push(move);
    } else {
      const plugs = move.kind === "plug";
      lines.push({
        number: 0,
        camera: move.camera,
        text: short(move),
        charger: plugs ? move.puts_in : "",
        units: plugs ? [move.takes_out] : [],
        moves: [move],
      });
    }
  }
  return lines.map((line, place) => ({ ...line, number: place + 1 }));
}

/** A move in as few words as the gutter holds; the cell's own words say all of it. */
function short(move: Move): string {
  switch (move.kind) {
    case "start":
      return move.text.split(" ")[0] ?? "start";
    case "plug":
      return `plug ${move.takes_out}`;
    case "copy":
      return "copy";
    case "copy_end":
      return "cable off";
    case "wake":
      return "bank on";
    default:
      return move.text;
  }
}

/** Lines of work at each stop: of its busiest camera, or of all where they stand in one column. */
export function workHeights(
  moves: readonly Move[],
  cameras: readonly Camera[],
  oneColumn = false,
): Map<string, number> {
  const heights = new Map<string, number>();
  for (const item of new Set(moves.map((one) => one.item))) {
    const lines = workLines(moves.filter((one) => one.item === item));
    const inLanes = cameras.map((one) => lines.filter((line) => line.camera === one.id).length);
    heights.set(item, oneColumn ? lines.length : Math.max(...inLanes));
  }
  return heights;
}
