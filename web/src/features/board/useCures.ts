import { useEffect, useState } from "react";
import { streamCures } from "../../api/cures";
import type { Cure, CureOutcome, CureTarget, PlanDocument } from "../../domain/types";

export interface Searched {
  /** Found so far; in order of worth when the search is through. */
  cures: readonly Cure[];
  outcome: CureOutcome | null;
  error: string | null;
  stop: () => void;
  stopped: boolean;
}

const NONE: Omit<Searched, "stop"> = { cures: [], outcome: null, error: null, stopped: false };

/** Looks for cures of one thing, shown as they come; another document or target begins anew. */
export function useCures(document: PlanDocument, target: CureTarget): Searched {
  const [found, setFound] = useState(NONE);
  const [abort, setAbort] = useState<AbortController | null>(null);
  useEffect(() => {
    const control = new AbortController();
    const { signal } = control;
    setAbort(control);
    setFound(NONE);
    streamCures(
      { document, target },
      ({ cure, outcome }) => {
        if (signal.aborted) return;
        setFound((old) => {
          if (cure != null) return { ...old, cures: [...old.cures, cure] };
          if (outcome == null) return old;
          const cures = outcome.order.flatMap((place) => old.cures[place] ?? []);
          return { ...old, cures, outcome };
        });
      },
      signal,
    ).catch((problem: unknown) => {
      if (!signal.aborted)
        setFound((old) => ({
          ...old,
          error: problem instanceof Error ? problem.message : String(problem),
        }));
    });
    return () => control.abort();
  }, [document, target]);
  return {
    ...found,
    stop: () => {
      abort?.abort();
      setFound((old) => ({ ...old, stopped: true }));
    },
  };
}
