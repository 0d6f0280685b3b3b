import { useEffect, useMemo, useState } from "react";
import { streamCures } from "../../api/cures";
import { targetOfLoss } from "../../domain/cures";
import type { Cure, Loss, PlanDocument } from "../../domain/types";
import { useSame } from "./useSame";
import { useSettled } from "./useSettled";

export interface BestCure {
  /** The best one; null when nothing cures it. */
  cure: Cure | null;
  /** How many stand. */
  count: number;
}

const AFTER_MS = 900;
const MOST = 6;

type Gap = Pick<Loss, "camera" | "item">;

export const gapKey = (loss: Gap) => `${loss.camera}/${loss.item}`;

/**
 * The best cure of each gap that is in sight, sought one after the other while nothing is edited.
 * What is known of a document goes with it: another one is sought for anew.
 */
export function useBestCures(
  document: PlanDocument,
  losses: readonly Loss[],
): ReadonlyMap<string, BestCure> {
  const [known, setKnown] = useState<{ of: PlanDocument; found: ReadonlyMap<string, BestCure> }>({
    of: document,
    found: new Map(),
  });
  const settled = useSettled(document, AFTER_MS);
  const wanted = useSame(
    useMemo(() => distinct(losses).slice(0, MOST), [losses]),
    whole,
  );
  useEffect(() => {
    if (settled !== document) return;
    const control = new AbortController();
    const all = async () => {
      for (const gap of wanted) {
        const best = await bestOf(document, gap, control.signal);
        if (control.signal.aborted) return;
        setKnown((old) => ({
          of: document,
          found: new Map([...(old.of === document ? old.found : []), [gapKey(gap), best]]),
        }));
      }
    };
    // what cannot be had now is sought when it is asked for
    all().catch(() => undefined);
    return () => control.abort();
  }, [settled, document, wanted]);
  return useMemo(
    () => (known.of === document ? known.found : new Map<string, BestCure>()),
    [known, document],
  );
}

const whole = (gaps: readonly Gap[]) => gaps;

/** Gaps by camera and leg, each once. */
function distinct(losses: readonly Loss[]): Gap[] {
  const found = new Map(
    losses.map(({ camera, item }) => [gapKey({ camera, item }), { camera, item }]),
  );
  return [...found.values()];
}

async function bestOf(document: PlanDocument, loss: Gap, signal: AbortSignal): Promise<BestCure> {
  const cures: Cure[] = [];
  let order: readonly number[] = [];
  const hear = ({
    cure,
    outcome,
  }: {
    cure?: Cure | null;
    outcome?: { order: number[] } | null;
  }) => {
    if (cure != null) cures.push(cure);
    if (outcome != null) ({ order } = outcome);
  };
  await streamCures({ document, target: targetOfLoss(loss) }, hear, signal);
  return { cure: cures[order[0] ?? -1] ?? null, count: order.length };
}
