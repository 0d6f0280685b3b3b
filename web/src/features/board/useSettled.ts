import { useEffect, useState } from "react";

/** A value once it has stood still for a while, so that a screen reader hears the last one only. */
export function useSettled(value: string, afterMs: number): string {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), afterMs);
    return () => clearTimeout(timer);
  }, [value, afterMs]);
  return settled;
}
