import { useEffect, useState } from "react";
import { AGAIN_MS, whenAnswered } from "./answers";
import { Unreachable } from "./client";
import { Pump } from "./pump";

const NOTHING = { result: null, late: true, error: null };

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
  const [pumped, setPumped] = useState<Pumped<Result>>(NOTHING);
  const [away, setAway] = useState(false);
  const [pump] = useState(
    () =>
      new Pump<Ask, Result>(
        send,
        (result, _, newest) => {
          setAway(false);
          setPumped({ result, late: !newest, error: null });
        },
        (error, newest) => {
          if (!newest) return;
          const words = error instanceof Error ? error.message : String(error);
          setAway(error instanceof Unreachable);
          setPumped((old) => ({ ...old, late: true, error: words }));
        },
      ),
  );
  useEffect(() => {
    if (ask !== null) pump.push(ask);
  }, [pump, ask]);
  useEffect(() => {
    if (!away || ask === null) return;
    const again = () => pump.push(ask);
    const timer = setInterval(again, AGAIN_MS);
    const deaf = whenAnswered(again);
    return () => {
      clearInterval(timer);
      deaf();
    };
  }, [pump, ask, away]);
  return pumped;
}
