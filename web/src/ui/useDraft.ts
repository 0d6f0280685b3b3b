import { useCallback, useMemo, useState } from "react";

const START = "tumbrel.draft";

/**
 * A text that is typed and not taken yet: it survives reload and going elsewhere in this tab.
 * `empty` is what stands there when nothing is typed.
 */
export function useDraft(where: string, empty = ""): [string, (text: string) => void] {
  const name = `${START}.${where}`;
  const [text, setText] = useState(() => sessionStorage.getItem(name) ?? empty);
  const put = useCallback(
    (next: string) => {
      setText(next);
      try {
        if (next === empty) sessionStorage.removeItem(name);
        else sessionStorage.setItem(name, next);
      } catch {
        // no room in the browser's store: the text still stands in its field
      }
    },
    [name, empty],
  );
  return [text, put];
}

/** Fields changed and not taken yet, over what they were first; they survive in the same way. */
export function useDraftOf<Fields extends object>(
  where: string,
  first: Fields,
): [Fields, (changed: Partial<Fields>) => void, () => void] {
  const [typed, put] = useDraft(`${location.pathname}#${where}`);
  const part = useMemo(() => (typed === "" ? {} : (JSON.parse(typed) as Partial<Fields>)), [typed]);
  const value = useMemo(() => ({ ...first, ...part }), [first, part]);
  const change = useCallback(
    (changed: Partial<Fields>) => put(JSON.stringify({ ...part, ...changed })),
    [put, part],
  );
  const clear = useCallback(() => put(""), [put]);
  return [value, change, clear];
}
