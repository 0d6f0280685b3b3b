import { replaceEqualDeep } from "@tanstack/react-query";
import { useState } from "react";

/** The value before, as long as what it is made of is the same. */
export function useSame<Value>(next: Value, partOf: (value: Value) => unknown): Value {
  const [kept, setKept] = useState(next);
  if (kept === next) return kept;
  const before = partOf(kept);
  if (replaceEqualDeep(before, partOf(next)) === before) return kept;
  setKept(next);
  return next;
}
