import { useMemo } from "react";
import type { MeasuredBeside } from "../domain/types";
import { type BesideAsked, tellBeside } from "./queries";
import { usePumped } from "./usePumped";

const NONE: readonly MeasuredBeside[] = [];

/** What was measured and not taken, in an air that changes as one drags. */
export function useBeside({ kit, version, notebook, there }: BesideAsked) {
  const { ambient_c, air_mps, set_up } = there;
  const asked = useMemo(
    () => ({ kit, version, notebook, there: { ambient_c, air_mps, set_up } }),
    [kit, version, notebook, ambient_c, air_mps, set_up],
  );
  return usePumped(tellBeside, asked).result ?? NONE;
}
