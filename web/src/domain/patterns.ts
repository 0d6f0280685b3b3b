import { type Clock, MINUTE_MS } from "./clock";
import * as limits from "./limits";
import type { Assignment, Camera, Pattern } from "./types";

export const PATTERNS: readonly Pattern["kind"][] = [
  "roll",
  "takes",
  "loop",
  "windows",
  "interval",
  "armed",
];

/** What people call them. */
export const PATTERN_NAMES: Record<Pattern["kind"], string> = {
  roll: "roll",
  takes: "takes",
  loop: "loop",
  windows: "by the clock",
  interval: "interval",
  armed: "on a trigger",
};

export type Windows = Extract<Pattern, { kind: "windows" }>;
export type Edge = Windows["windows"][number]["opens"];

type Offered = Camera["loops"];

/** How many segments a loop has that a camera offers. */
export function segmentsOf(one: Offered[number]): number {
  return Math.ceil(one.length_s / one.segment_s);
}

/** A loop as the camera has it: the next longer one that it offers, else its longest. */
export function asOffered(pattern: Pattern, offered: Offered): Pattern {
  if (pattern.kind !== "loop" || offered.length === 0) return pattern;
  const ordered = [...offered].sort((a, b) => a.length_s - b.length_s);
  const best = ordered.find((one) => one.length_s >= pattern.length_s) ?? ordered.at(-1);
  if (best === undefined) return pattern;
  return { ...pattern, length_s: best.length_s, segments: segmentsOf(best) };
}

/** Each pattern as it is when it is first chosen. */
const FRESH: Record<Pattern["kind"], Pattern> = {
  roll: { kind: "roll" },
  takes: { kind: "takes", seconds: 30, count: null, per_hour: 6 },
  loop: {
    kind: "loop",
    length_s: 120,
    segments: limits.Loop.segments.default,
    saves: null,
    saves_per_hour: null,
  },
  windows: {
    kind: "windows",
    windows: [
      {
        opens: { kind: "clock", at: "07:00:00" },
        closes: { kind: "clock", at: "08:00:00" },
      },
    ],
  },
  interval: {
    kind: "interval",
    every_s: 10,
    frame_mb: null,
    playback_fps: limits.Interval.playback_fps.default,
  },
  armed: {
    kind: "armed",
    count: null,
    per_hour: 4,
    seconds: 20,
    pre_record_s: 5,
    trigger: "motion",
  },
};

/** The pattern of a kind: as it is asked now, else as it is when it is new. */
export function patternOf(kind: Pattern["kind"], asked: Assignment | undefined): Pattern {
  return asked?.pattern.kind === kind ? asked.pattern : FRESH[kind];
}

/** By the clock, from a leg's beginning to its end: as it is when it is first chosen there. */
export function legHours(startMs: number, endMs: number, clock: Pick<Clock, "time">): Pattern {
  const opens = clockEdge(clock.time(startMs));
  const closes = clockEdge(clock.time(endMs + MINUTE_MS - 1)); // the whole of its last minute
  return opens === null || closes === null
    ? FRESH.windows
    : { kind: "windows", windows: [{ opens, closes }] };
}

export const SUN_EVENTS = ["sunrise", "sunset", "dawn", "dusk"] as const;

/** "07:00" of a clock edge, for a field; null for an edge of the sun. */
export function clockText(edge: Edge): string | null {
  return edge.kind === "clock" ? edge.at.slice(0, 5) : null;
}

/** A clock edge from "7:05" or "07:05"; null when it is none. */
export function clockEdge(text: string): Edge | null {
  const found = /^(\d{1,2}):(\d\d)$/.exec(text.trim());
  const hour = Number(found?.[1] ?? 99);
  const minute = Number(found?.[2] ?? 99);
  if (hour > 23 || minute > 59) return null;
  const two = (number: number) => String(number).padStart(2, "0");
  return { kind: "clock", at: `${two(hour)}:${two(minute)}:00` };
}
