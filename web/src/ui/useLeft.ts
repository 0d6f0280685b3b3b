import { useCallback, useMemo, useState } from "react";

const START = "tumbrel.left";

interface Left {
  /** What was left in the field, marked as wrong, when one was here last. */
  first: string | null;
  /** Leave a text for the next time; null: there is none. */
  leave: (text: string | null) => void;
}

/** A text that could not be kept, for when one comes back to its field of the same place. */
export function useLeft(path: string | undefined): Left {
  const [name] = useState(() => `${START}${location.pathname}#${path ?? ""}`);
  const [first] = useState(() => (path === undefined ? null : sessionStorage.getItem(name)));
  const leave = useCallback(
    (text: string | null) => {
      if (path === undefined) return;
      if (text === null) sessionStorage.removeItem(name);
      else sessionStorage.setItem(name, text);
    },
    [name, path],
  );
  return useMemo(() => ({ first, leave }), [first, leave]);
}
