import { useEffect, useState } from "react";
import type { PlanDocument, Rehearsal } from "../domain/types";
import { Pump } from "./pump";
import { rehearse } from "./queries";

export interface Shown {
  document: PlanDocument;
  rehearsal: Rehearsal;
}

export interface Rehearsing {
  /** The newest result, with the document that it belongs to. */
  shown: Shown | null;
  /** The picture is older than the plan. */
  late: boolean;
  error: Error | null;
}

interface Told {
  shown: Shown | null;
  error: Error | null;
}

/** Rehearses a document whenever it changes; the last good picture stays until the next one is there. */
export function useRehearsal(document: PlanDocument | null): Rehearsing {
  const [told, setTold] = useState<Told>({ shown: null, error: null });
  const [pump] = useState(
    () =>
      new Pump<PlanDocument, Rehearsal>(
        rehearse,
        (rehearsal, asked) => {
          performance.mark("tumbrel-rehearsed");
          setTold({ shown: { document: asked, rehearsal }, error: null });
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
  useEffect(() => {
    if (document !== null) pump.push(document);
  }, [document, pump]);
  return { ...told, late: told.shown?.document !== document };
}
