import { useEffect, useMemo, useState } from "react";
import { streamCures } from "../../api/cures";
import { targetOfLoss } from "../../domain/cures";
import type { Cure, Loss, PlanDocument } from "../../domain/types";
import { useSettled } from "./useSettled";

export interface BestCure {
  /** The best one; null when nothing cures it. */
  cure: Cure | null;
  /** How many stand. */
  count: number;
}

const AFTER_MS = 900;
const MOST = 6;

export const gapKey = (loss: Pick<Loss, "camera" | "item">) => `${loss.camera}/${loss.item}`;

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
  const wanted = useMemo(() => [...new Set(losses.map(gapKey))].slice(0, MOST).join(" "), [losses]);
  useEffect(() => {
    if (settled !== document || wanted === "") return;
    const control = new AbortController();
    const all = async () => {
      for (const key of wanted.split(" ")) {
        const [camera = "", item = ""] = key.split("/");
        const best = await bestOf(document, { camera, item }, control.signal);
        if (control.signal.aborted) return;
        setKnown((old) => ({
          of: document,
          found: new Map([...(old.of === document ? old.found : []), [key, best]]),
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

async function bestOf(
  document: PlanDocument,
  loss: Pick<Loss, "camera" | "item">,
  signal: AbortSignal,
): Promise<BestCure> {
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
