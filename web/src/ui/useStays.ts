import { useEffect, useMemo, useState } from "react";

/** So long it stays at least once it could go [ms]: a press may be on its way. */
export const STAYS_MS = 3000;

/**
 * What goes by itself stays a moment longer, and while it is pointed at or has the focus: what
 * stands there next must not get a press that was meant for it.
 */
export function useStays(isThere: boolean) {
  const [stays, setStays] = useState(false);
  const [isPointed, setPointed] = useState(false);
  const [isFocused, setFocused] = useState(false);
  if (isThere && !stays) setStays(true);
  const isHeld = isThere || isPointed || isFocused;
  useEffect(() => {
    if (isHeld || !stays) return;
    const timer = setTimeout(() => setStays(false), STAYS_MS);
    return () => clearTimeout(timer);
  }, [isHeld, stays]);
  const hold = useMemo(
    () => ({
      onPointerEnter: () => setPointed(true),
      onPointerLeave: () => setPointed(false),
      onFocus: () => setFocused(true),
      onBlur: () => setFocused(false),
    }),
    [],
  );
  /** It was pressed or closed: no pointer and no focus hold it any longer. */
  const letGo = () => {
    setStays(false);
    setPointed(false);
    setFocused(false);
  };
  return { isShown: isThere || stays, hold, letGo };
}
