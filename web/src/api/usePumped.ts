import { useEffect, useState } from "react";
import { Pump } from "./pump";

export interface Pumped<Result> {
  result: Result | null;
  /** What is shown answers an older question. */
  late: boolean;
  error: string | null;
}

/** The answer to a question that changes as one drags: the last good one until the next is there. */
export function usePumped<Ask, Result>(
  send: (ask: Ask) => Promise<Result>,
  ask: Ask | null,
): Pumped<Result> {
  const [pumped, setPumped] = useState<Pumped<Result>>({ result: null, late: true, error: null });
  const [pump] = useState(
    () =>
      new Pump<Ask, Result>(
        send,
        (result, _, newest) => setPumped({ result, late: !newest, error: null }),
        (error, newest) => {
          if (newest)
            setPumped((old) => ({
              ...old,
              late: true,
              error: error instanceof Error ? error.message : String(error),
            }));
        },
      ),
  );
  useEffect(() => {
    if (ask !== null) pump.push(ask);
  }, [pump, ask]);
  return pumped;
}
