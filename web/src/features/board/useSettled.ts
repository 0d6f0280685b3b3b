import { useEffect, useState } from "react";

/** A value once it has stood still for a while, so that only the last one is spoken or asked. */
export function useSettled<Value>(value: Value, afterMs: number): Value {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), afterMs);
    return () => clearTimeout(timer);
  }, [value, afterMs]);
  return settled;
}
