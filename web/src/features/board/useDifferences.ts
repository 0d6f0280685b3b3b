import { useEffect, useState } from "react";
import { rehearseAside } from "../../api/rehearsals";
import type { Plan, PlanDocument, Rehearsal } from "../../domain/types";
import { signedMinutesText, signedWattHoursText } from "../../domain/units";

const AFTER_MS = 350;
const NONE: ReadonlyMap<string, string> = new Map();

/**
 * What each alternative plan would change, every one rehearsed: filmed minutes and energy used.
 * One request at a time, so that an edit is never kept waiting.
 */
export function useDifferences(
  document: PlanDocument,
  base: Rehearsal,
  alternatives: ReadonlyMap<string, Plan>,
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
        texts.set(name, difference(base, told));
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
  }, [document, base, alternatives]);
  return known.of === document ? known.texts : NONE;
}

function difference(base: Rehearsal, told: Rehearsal): string {
  const minutes = told.verdict.minutes.filmed - base.verdict.minutes.filmed;
  const wh = told.ledgers.energy_used_wh - base.ledgers.energy_used_wh;
  return `${signedMinutesText(minutes)} · ${signedWattHoursText(wh)}`;
}
