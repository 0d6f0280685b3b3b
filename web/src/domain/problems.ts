import { lossesInOrder } from "./moment";
import type { Loss, Rehearsal } from "./types";

/** A gap or finding that has a place on the board. */
export interface Problem {
  cell: Pick<Loss, "camera" | "item">;
  ms: number;
  kind: "gap" | "finding";
}

/** Gaps and findings in order of time; a finding where a gap is told already is not told twice. */
export function problemsOf(rehearsal: Rehearsal): Problem[] {
  const gaps = lossesInOrder(rehearsal).map((loss) => ({
    cell: { camera: loss.camera, item: loss.item },
    ms: loss.start_ms,
    kind: "gap" as const,
  }));
  const known = new Set(gaps.map(({ cell }) => `${cell.item}/${cell.camera}`));
  const findings = rehearsal.findings.flatMap(({ camera, item }) => {
    const laid = rehearsal.items.find((one) => one.id === item);
    if (camera == null || laid === undefined || known.has(`${laid.id}/${camera}`)) return [];
    known.add(`${laid.id}/${camera}`);
    return [{ cell: { camera, item: laid.id }, ms: laid.start_ms, kind: "finding" as const }];
  });
  return [...gaps, ...findings].sort((a, b) => a.ms - b.ms);
}
