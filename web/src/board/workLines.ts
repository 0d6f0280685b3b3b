import type { Camera, Move, Rehearsal } from "../domain/types";
import { gapsByItem, gapsIn } from "../domain/gaps";
import { type Needs, WORK_LINE_PX } from "../scale/elastic";

/** A leg or stop, or the part of one that a day shows. */
export interface Part {
  id: string;
  startMs: number;
  endMs: number;
}

export interface WorkLine {
  number: number;
  atMs: number;
  /** Who it is done to, or beside whom it is drawn: several, where the same is done at once. */
  cameras: string[];
  /** Done to things that lie about: no camera is in the hands. */
  alone: boolean;
  text: string;
  /** What several are plugged into at one stop, and which: they share a line. */
  charger: string;
  units: string[];
  moves: Move[];
}

export interface StopWork {
  lines: WorkLine[];
  /** Where what is done before leaving begins; the count of lines where there is no such split. */
  leaving: number;
}

/** Longer than this between a stop and the next start, they are two things to do. */
const AT_ONCE_MS = 10 * 60_000;
const MINUTE_MS = 60_000;
const TOP_PX = 5;
const SPLIT_PX = 15;
const GAP_LINE_PX = 17;
const GAP_LINES = 2;
const GAP_LEG_PX = 46;

/** What the hands do at a stop, or in the part of it that one day shows; each on one day only. */
export function movesIn(moves: readonly Move[], { id, startMs, endMs }: Part): Move[] {
  const here = moves.filter((one) => one.item === id);
  const last = Math.max(...here.map((one) => one.at_ms));
  return here.filter(
    (one) => startMs <= one.at_ms && (one.at_ms < endMs || (one.at_ms === endMs && last === endMs)),
  );
}

/** The hands' work of one stop, numbered in the order of doing. */
export function workLines(moves: readonly Move[]): WorkLine[] {
  const lines: WorkLine[] = [];
  for (const move of moves) {
    const before = lines.findLast((one) => one.cameras[0] === move.camera && !one.alone);
    const since = before?.moves.at(-1)?.at_ms ?? 0;
    const near = move.at_ms - since <= AT_ONCE_MS;
    const charger = move.kind === "plug" ? move.puts_in : "";
    const plugged = lines.findLast((one) => one.charger === charger && charger !== "");
    const sameHands = plugged?.alone === move.alone;
    if (before !== undefined && before.text === "stop" && move.kind === "start" && near) {
      before.text = `stop · ${move.text}`;
      before.moves.push(move);
    } else if (sameHands && (move.alone || plugged.cameras[0] === move.camera)) {
      plugged.units = [...plugged.units, move.takes_out];
      plugged.text = plugText(plugged.units, charger);
      plugged.moves.push(move);
    } else
      lines.push({
        number: 0,
        atMs: move.at_ms,
        cameras: [move.camera],
        alone: move.alone,
        text: move.kind === "plug" ? plugText([move.takes_out], charger) : said(move),
        charger,
        units: charger === "" ? [] : [move.takes_out],
        moves: [move],
      });
  }
  return together(lines).map((line, place) => ({ ...line, number: place + 1 }));
}

/** The same thing done to several cameras in the same minute is one line. */
function together(lines: readonly WorkLine[]): WorkLine[] {
  const joined: WorkLine[] = [];
  for (const line of lines) {
    const before = joined.findLast(
      (one) =>
        one.text === line.text &&
        one.alone === line.alone &&
        Math.floor(one.atMs / MINUTE_MS) === Math.floor(line.atMs / MINUTE_MS),
    );
    if (before === undefined) joined.push({ ...line });
    else {
      before.cameras = [...before.cameras, ...line.cameras];
      before.moves = [...before.moves, ...line.moves];
    }
  }
  return joined;
}

/** Work and the place in it from which on it is done before leaving. */
export function stopWork(moves: readonly Move[], part: Part): StopWork {
  const lines = workLines(movesIn(moves, part));
  const middle = (part.startMs + part.endMs) / 2;
  const found = lines.findIndex((one) => one.atMs >= middle);
  return { lines, leaving: found <= 0 ? lines.length : found };
}

/** Where a line stands below the upper edge of its band [px]. */
export function lineTop(work: StopWork, row: number): number {
  return TOP_PX + row * WORK_LINE_PX + (row >= work.leaving ? SPLIT_PX : 0);
}

/** What the lines of a stop's work take up [px]. */
export function workHeight(work: StopWork): number {
  const lines = work.lines.length;
  return lines === 0 ? 0 : lineTop(work, lines - 1) + WORK_LINE_PX + TOP_PX;
}

function plugText(units: readonly string[], into: string): string {
  return into === "" ? `plug ${units.join(", ")}` : `${units.join(", ")} to ${into}`;
}

/** A move in the fewest words that say it; the camera's name stands before them. */
function said(move: Move): string {
  switch (move.kind) {
    case "copy":
      return `copy to ${move.puts_in}`;
    case "copy_end":
      return move.text.startsWith("take the cable off") ? "cable off" : move.text;
    case "wake":
      return `${move.puts_in} on`;
    default:
      return move.text;
  }
}

/** What words need at each stop and at each leg with something not filmed [px]. */
export function wordHeights(rehearsal: Rehearsal, parts: readonly Part[]): Needs {
  const gaps = gapsByItem(rehearsal);
  return new Map(
    parts.map((part) => {
      const done = workHeight(stopWork(rehearsal.moves, part));
      const lost = gapsIn(gaps, part).length;
      const told = lost * GAP_LINES * GAP_LINE_PX + (lost > 0 ? 2 * TOP_PX : 0);
      return [part.id, lost > 0 ? Math.max(GAP_LEG_PX, done + told) : done];
    }),
  );
}

/** The names of the cameras that a line is about; all of them in one word, none for what lies about. */
function whose(line: WorkLine, cameras: readonly Camera[]): string {
  if (line.alone) return "";
  if (line.cameras.length > 2 && line.cameras.length === cameras.length) return "all";
  return line.cameras.map((id) => cameras.find((one) => one.id === id)?.name ?? id).join(", ");
}

/** A line in words, whom it is about apart: "Thumb" and "to Bank", never its name twice. */
export function worded(line: WorkLine, cameras: readonly Camera[]): { who: string; what: string } {
  const who = whose(line, cameras);
  const twice = who !== "" && line.text.startsWith(`${who} `);
  return { who, what: twice ? line.text.slice(who.length + 1) : line.text };
}
