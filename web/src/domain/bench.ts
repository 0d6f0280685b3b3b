import type {
  BenchRun,
  BodyCurve,
  Camera,
  Kit,
  ModeLook,
  NextRun,
  Notebook,
  OnBench,
  RunEnd,
  RunningTest,
  RunTold,
} from "./types";
import { degreesText, minuteRangeText, minutesText, speedText } from "./units";

export const END_WORDS: Record<RunEnd, string> = {
  empty: "empty",
  hot: "hot",
  card_full: "card full",
  clip_limit: "clip limit",
  stopped: "stopped",
  both_empty: "both empty",
  full: "full",
};

/** Why a run ended, as a person says it. */
export const END_CHOICES: readonly { value: RunEnd; name: string }[] = [
  { value: "empty", name: "empty" },
  { value: "hot", name: "too hot" },
  { value: "card_full", name: "card full" },
  { value: "clip_limit", name: "clip limit" },
  { value: "stopped", name: "I stopped it" },
  { value: "both_empty", name: "module and battery empty" },
  { value: "full", name: "full, it only charged" },
];

/** Of a run on no module, that did not only charge. */
export const NOTHING_SPECIAL = {
  store_kind: "module",
  store_read: [],
  charging: false,
  charge_read: [],
} as const satisfies Partial<BenchRun>;

type Readings = BenchRun["store_read"];

/** "20:80 40:55": minutes, and the per cent that was read then. */
export function readingsText(readings: Readings): string {
  return readings
    .map((one) => `${String(one.at_min)}:${String(Math.round(one.share * 100))}`)
    .join(" ");
}

/** The readings of such a text; null when it is none. */
export function readingsOf(text: string): Readings | null {
  const parts = text.split(/[\s;]+/).filter((part) => part !== "");
  const found = parts.map((part) => /^(\d+(?:\.\d+)?):(\d{1,3})%?$/.exec(part));
  const read = found.map((one) => ({
    at_min: Number(one?.[1] ?? 0),
    share: Number(one?.[2] ?? 101) / 100,
  }));
  return read.every((one) => one.at_min > 0 && one.share <= 1) ? read : null;
}

/** Airs that a person has at home, or knows from the way [m/s]. */
export const AIRS = [
  { value: "0", name: "still" },
  { value: "1.5", name: "light fan" },
  { value: "4", name: speedText(4) },
  { value: "9", name: "riding speed" },
] as const;

const MINUTE_MS = 60_000;
const LONGEST_MIN = 2880;

export function airText(mps: number): string {
  return AIRS.find((one) => Number(one.value) === mps)?.name ?? speedText(mps);
}

/** A camera of the kit with its runs; null when the kit has no such one. */
export function onBench(
  kit: Kit,
  { runs, taken }: Pick<Notebook, "runs" | "taken">,
  id: string,
): OnBench | null {
  const camera = kit.cameras.find((one) => one.id === id);
  const family = kit.families.find((one) => one.id === camera?.battery_family);
  if (camera === undefined || family === undefined) return null;
  return {
    camera,
    family,
    runs: runs.filter((run) => run.camera === id),
    taken: taken.find((one) => one.camera === id) ?? null,
  };
}

/** A free name for the next run of a camera. */
export function nextId(notebook: Notebook, camera: string): string {
  const taken = new Set([...notebook.runs, ...notebook.running].map((one) => one.id));
  for (let number = 1; ; number += 1) {
    const id = `${camera.slice(0, 30)}-${String(number)}`;
    if (!taken.has(id)) return id;
  }
}

export function withRuns(notebook: Notebook, runs: readonly BenchRun[]): Notebook {
  return { ...notebook, runs: [...notebook.runs, ...runs] };
}

export function changedRun(
  notebook: Notebook,
  id: string,
  change: (run: BenchRun) => BenchRun,
): Notebook {
  return { ...notebook, runs: notebook.runs.map((run) => (run.id === id ? change(run) : run)) };
}

export function withoutRun(notebook: Notebook, id: string): Notebook {
  return { ...notebook, runs: notebook.runs.filter((run) => run.id !== id) };
}

export function withTest(notebook: Notebook, test: RunningTest): Notebook {
  return { ...notebook, running: [...notebook.running, test] };
}

export function changedTest(
  notebook: Notebook,
  id: string,
  change: (test: RunningTest) => RunningTest,
): Notebook {
  return {
    ...notebook,
    running: notebook.running.map((test) => (test.id === id ? change(test) : test)),
  };
}

export function withoutTest(notebook: Notebook, id: string): Notebook {
  return { ...notebook, running: notebook.running.filter((test) => test.id !== id) };
}

/** Minutes of a test at an instant [ms since 1970]: by its start, whatever slept in between. */
export function testMinutes(test: RunningTest, nowMs: number): number {
  return minutesBetween(test, Date.parse(test.started_at), nowMs);
}

function minutesBetween(test: RunningTest, fromMs: number, toMs: number): number {
  return (Math.max(0, toMs - fromMs) * test.speed) / MINUTE_MS;
}

/** "0:41:05" of minutes. */
export function clockText(minutes: number): string {
  const seconds = Math.floor(minutes * 60);
  const two = (value: number) => String(value).padStart(2, "0");
  return `${String(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}`;
}

export function isPaused(test: RunningTest): boolean {
  return test.pauses.some((pause) => pause.until == null);
}

/** Charging pauses, or goes on. */
export function withPause(test: RunningTest, at: string): RunningTest {
  if (isPaused(test))
    return {
      ...test,
      pauses: test.pauses.map((one) => (one.until == null ? { ...one, until: at } : one)),
    };
  return { ...test, pauses: [...test.pauses, { since: at, until: null }] };
}

/** "2026-05-09T14:05:00" on the clock of this machine. */
export function localTime(ms: number): string {
  const date = new Date(ms);
  return new Date(ms - date.getTimezoneOffset() * MINUTE_MS).toISOString().slice(0, 19);
}

/** The run that a test has been, ended at an instant. */
export function endedRun(test: RunningTest, nowMs: number, end: RunEnd): BenchRun {
  const minutes = Math.min(LONGEST_MIN, Math.max(0.1, testMinutes(test, nowMs)));
  const startMs = Date.parse(test.started_at);
  const paused = test.pauses.reduce(
    (sum, one) =>
      sum +
      minutesBetween(
        test,
        Date.parse(one.since),
        one.until == null ? nowMs : Date.parse(one.until),
      ),
    0,
  );
  return {
    id: test.id,
    camera: test.camera,
    set_up: test.set_up,
    mode: test.mode,
    features: test.features,
    ambient_c: test.ambient_c,
    air_mps: test.air_mps,
    plugged: test.plugged,
    charge_start: test.charge_start,
    charge_end: end === "empty" ? 0 : null,
    minutes: tenth(minutes),
    end,
    warned_min:
      test.warned_at == null
        ? null
        : Math.min(
            tenth(minutes),
            Math.max(0.1, tenth(minutesBetween(test, startMs, Date.parse(test.warned_at)))),
          ),
    charge_paused_min: Math.min(tenth(minutes), tenth(paused)),
    ...NOTHING_SPECIAL,
    mean_w: null,
    metered: "battery",
    bytes: null,
    at: localTime(startMs),
    firmware: test.firmware,
    excluded: null,
  };
}

function tenth(minutes: number): number {
  return Math.round(minutes * 10) / 10;
}

/** A test's run is kept, and its clock stops. */
export function withEnded(notebook: Notebook, test: RunningTest, run: BenchRun): Notebook {
  return withRuns(withoutTest(notebook, test.id), [run]);
}

/** What is wrong with a run before it is kept; null when nothing is. */
export function faultOf(run: BenchRun): string | null {
  if (run.plugged && run.end === "empty")
    return "On outside power the battery cannot end it: choose another end, or not plugged in.";
  if (run.warned_min != null && run.warned_min > run.minutes)
    return "The warning comes after the end of the run.";
  if (run.charge_paused_min > run.minutes) return "Charging paused for longer than the run.";
  if (run.end === "both_empty" && run.store_wh == null)
    return "Both were empty: say first how much the module or bank holds.";
  if (run.end === "full" && !run.charging) return "Only a run that charges ends full.";
  if (run.charging && run.end !== "full" && run.end !== "stopped")
    return "A run that only charges ends full, or you stop it.";
  if (run.charging && run.end === "stopped" && run.charge_end == null)
    return "Say first the charge at which you stopped charging.";
  if (run.resumed_min != null && run.resumed_min < (run.paused_from_min ?? 0))
    return "Charging went on before it paused.";
  const fed = run.plugged || run.charging;
  if (run.charge_end != null && !fed && run.charge_end > run.charge_start)
    return "The charge at the end is above the charge at the start.";
  return null;
}

interface Tried {
  mode: string;
  set_up: string;
  ambient_c: number;
  air_mps: number;
  plugged: boolean;
  charge_start: number;
}

/** Two short lines under a lane's mode: the air, and how the camera was built. */
export function conditionLines(tried: Tried, camera: Camera): [string, string] {
  const setUp = camera.set_ups.find((one) => one.id === tried.set_up);
  const built = [
    setUp !== undefined && setUp !== camera.set_ups[0] ? setUp.name : "",
    tried.plugged && setUp?.power === "battery" ? "plugged in" : "",
    tried.charge_start < 0.95 ? `from ${String(Math.round(tried.charge_start * 100))} %` : "",
  ];
  return [
    `${degreesText(tried.ambient_c)} ${airText(tried.air_mps)}`,
    built.filter(Boolean).join(", "),
  ];
}

export function modeName(camera: Camera, mode: string): string {
  return camera.modes.find((one) => one.id === mode)?.name ?? `${mode} (gone)`;
}

/** A run in one sentence, for those who do not see the picture. */
export function runSentence(run: BenchRun, told: RunTold | undefined, camera: Camera): string {
  const [air, built] = conditionLines(run, camera);
  const head = `${modeName(camera, run.mode)}, ${[air, built].filter(Boolean).join(", ")}`;
  const end =
    run.end === "stopped"
      ? `not hot by ${minutesText(run.minutes)}`
      : `${END_WORDS[run.end]} after ${minutesText(run.minutes)}`;
  if (told === undefined) return `${head}: ${end}.`;
  const range = minuteRangeText(told.low_min, told.high_min);
  return `${head}: ${end}; expected ${range}. ${told.words}`;
}

export function nextSentence(next: NextRun, camera: Camera): string {
  const [air, built] = conditionLines(next, camera);
  const how = [air, built].filter(Boolean).join(", ");
  return `Start this run, it would teach most: ${modeName(camera, next.mode)}, ${how}`;
}

/** What is expected of a mode, in words. */
export function expectedWords(look: ModeLook): string {
  if (look.low_min >= LONGEST_MIN) return "Nothing is expected to end it.";
  if (look.likely_min >= LONGEST_MIN)
    return `Likely nothing ends it; hot after ${minutesText(look.low_min)} at the earliest.`;
  const range =
    look.high_min >= LONGEST_MIN
      ? `${minutesText(look.low_min)} or more`
      : minuteRangeText(look.low_min, look.high_min);
  return `Expected: ${END_WORDS[look.end]} after ${range}.`;
}

/** "hot 28 min", "empty 1 h 02", "on and on" of a body's curve. */
export function curveEnd(curve: BodyCurve): string {
  if (curve.hot_min != null) return `hot ${minutesText(curve.hot_min)}`;
  if (curve.empty_min != null) return `empty ${minutesText(curve.empty_min)}`;
  return "on and on";
}

/** Minutes over which the pictures of the bench reach: the longest of what is shown, to four hours. */
export function longestShown(minutes: readonly (number | null | undefined)[]): number {
  const known = minutes.filter((one): one is number => one != null && Number.isFinite(one));
  return Math.min(240, Math.max(45, ...known) * 1.04);
}
