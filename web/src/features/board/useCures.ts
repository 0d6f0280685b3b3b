import { useCallback, useEffect, useRef, useState } from "react";
import { streamCures } from "../../api/cures";
import type { Cure, CureOutcome, CureTarget, PlanDocument } from "../../domain/types";

interface Found {
  /** The document that the search is about. */
  of: PlanDocument;
  /** Found so far, in the order in which they came; the outcome has their order of worth. */
  cures: readonly Cure[];
  outcome: CureOutcome | null;
  error: string | null;
  stopped: boolean;
}

export interface Searched extends Omit<Found, "of"> {
  stop: () => void;
}

const NOTHING = { cures: [], outcome: null, error: null, stopped: false } as const;

/** Looks for cures of one thing, shown as they come; another document begins anew. */
export function useCures(document: PlanDocument, target: CureTarget): Searched {
  const [found, setFound] = useState<Found>({ of: document, ...NOTHING });
  const control = useRef<AbortController | null>(null);
  useEffect(() => {
    const mine = new AbortController();
    control.current = mine;
    const change = (part: (old: Found) => Partial<Found>) => {
      if (mine.signal.aborted) return;
      setFound((old) => {
        const known = old.of === document ? old : { of: document, ...NOTHING };
        return { ...known, ...part(known) };
      });
    };
    streamCures(
      { document, target },
      ({ cure, outcome }) =>
        change(({ cures }) => {
          if (cure != null) return { cures: [...cures, cure] };
          return outcome == null ? {} : { outcome };
        }),
      mine.signal,
    ).catch((problem: unknown) =>
      change(() => ({ error: problem instanceof Error ? problem.message : String(problem) })),
    );
    return () => mine.abort();
  }, [document, target]);
  const stop = useCallback(() => {
    control.current?.abort();
    setFound((old) => ({ ...old, stopped: true }));
  }, []);
  return { ...(found.of === document ? found : { of: document, ...NOTHING }), stop };
}
