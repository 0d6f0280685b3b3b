import { replaceEqualDeep } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import { fellOver } from "../domain/ours";
import type { PlanDocument, Rehearsal } from "../domain/types";
import { Pump } from "./pump";
import { rehearse } from "./rehearsals";

export interface Shown {
  document: PlanDocument;
  rehearsal: Rehearsal;
}

export interface Rehearsing {
  /** The newest result, with the document that it belongs to. */
  shown: Shown | null;
  /** The newest document that was rehearsed without a fault of Tumbrel. */
  good: PlanDocument | null;
  /** The document as it is now. */
  asked: PlanDocument | null;
  /** The picture is older than the plan. */
  late: boolean;
  error: Error | null;
}

export interface Rehearser extends Rehearsing {
  /** Rehearse at once, before the page has drawn the edit. */
  push: (document: PlanDocument) => void;
  /** Resolves when the newest document has been rehearsed. */
  settled: () => Promise<void>;
}

interface Told {
  shown: Shown | null;
  good: PlanDocument | null;
  error: Error | null;
}

/** Rehearses a document whenever it changes; the last good picture stays until the next one is there. */
export function useRehearsal(document: PlanDocument | null): Rehearser {
  const [told, setTold] = useState<Told>({ shown: null, good: null, error: null });
  const [pump] = useState(
    () =>
      new Pump<PlanDocument, Rehearsal>(
        rehearse,
        (rehearsal, asked) => {
          performance.mark("tumbrel-rehearsed");
          // what is the same stays the same object, so that only what changed is drawn anew
          setTold((old) => ({
            shown: {
              document: asked,
              rehearsal: replaceEqualDeep(old.shown?.rehearsal, rehearsal),
            },
            good: fellOver(rehearsal) ? old.good : asked,
            error: null,
          }));
        },
        (error, isNewest) => {
          if (isNewest)
            setTold((old) => ({
              ...old,
              error: error instanceof Error ? error : new Error(String(error)),
            }));
        },
      ),
  );
  const [pushed] = useState(() => new WeakSet<PlanDocument>());
  const push = useCallback(
    (next: PlanDocument) => {
      if (pushed.has(next)) return;
      pushed.add(next);
      pump.push(next);
    },
    [pump, pushed],
  );
  useEffect(() => {
    if (document !== null) push(document);
  }, [document, push]);
  const settled = useCallback(() => pump.settled(), [pump]);
  const late = told.shown?.document !== document;
  return useMemo(
    () => ({ ...told, asked: document, late, push, settled }),
    [told, document, late, push, settled],
  );
}
