import { useEffect, useState } from "react";
import { rehearseAside } from "../../api/rehearsals";
import type { Cell } from "../../board/Drawing";
import { PATTERNS } from "../../domain/patterns";
import type { Plan, PlanDocument, Rehearsal } from "../../domain/types";
import {
  expectedText,
  minutesText,
  signedMinutesText,
  signedWattHoursText,
} from "../../domain/units";

const AFTER_MS = 350;
const MINUTE_MS = 60_000;
const NONE: ReadonlyMap<string, string> = new Map();

/**
 * What each alternative plan would change, every one rehearsed: filmed minutes and energy used.
 * One request at a time, so that an edit is never kept waiting.
 */
export function useDifferences(
  document: PlanDocument,
  base: Rehearsal,
  alternatives: ReadonlyMap<string, Plan>,
  cells: readonly Cell[],
): ReadonlyMap<string, string> {
  const [known, setKnown] = useState<{ of: PlanDocument; texts: ReadonlyMap<string, string> }>({
    of: document,
    texts: NONE,
  });
  useEffect(() => {
    let stopped = false;
    const all = async () => {
      const texts = new Map<string, string>();
      for (const [name, plan] of alternatives) {
        const told = await rehearseAside({ ...document, plan });
        if (stopped) return;
        const pattern = name === "off" || PATTERNS.some((one) => one === name);
        texts.set(name, pattern ? outcome(told, cells) : difference(base, told));
        setKnown({ of: document, texts: new Map(texts) });
      }
    };
    // saving and the board itself come first; a difference that cannot be had is left out
    const waiting = setTimeout(() => {
      all().catch(() => undefined);
    }, AFTER_MS);
    return () => {
      stopped = true;
      clearTimeout(waiting);
    };
  }, [document, base, alternatives, cells]);
  return known.of === document ? known.texts : NONE;
}

/** What a pattern gives on the chosen stretches: minutes filmed and missing, moments whole. */
function outcome(told: Rehearsal, cells: readonly Cell[]): string {
  let [filmedMs, missing] = [0, 0];
  for (const { camera, item } of cells) {
    const result = told.cameras.find((one) => one.camera === camera);
    for (const span of result?.filmed ?? [])
      if (span.item === item) filmedMs += span.end_ms - span.start_ms;
    for (const loss of result?.losses ?? []) if (loss.item === item) missing += loss.minutes;
  }
  const moments = told.moments.filter((one) => cells.some((cell) => cell.item === one.item));
  const whole = moments.reduce((sum, one) => sum + one.whole, 0);
  const count = moments.reduce((sum, one) => sum + one.count, 0);
  return [
    minutesText(filmedMs / MINUTE_MS),
    missing > 0 ? `${minutesText(missing)} missing` : "",
    count > 0 ? `${expectedText(whole)} of ${String(count)} moments` : "",
  ]
    .filter((part) => part !== "")
    .join(" · ");
}

function difference(base: Rehearsal, told: Rehearsal): string {
  const minutes = told.verdict.minutes.filmed - base.verdict.minutes.filmed;
  const wh = told.ledgers.energy_used_wh - base.ledgers.energy_used_wh;
  return `${signedMinutesText(minutes)} · ${signedWattHoursText(wh)}`;
}
