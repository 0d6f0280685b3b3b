import type { Finding, PlanDocument, Rehearsal } from "./types";

const OURS: ReadonlySet<string> = new Set(["engine_failed", "does_not_balance"]);

/** Whether a finding tells of a fault of Tumbrel, not of the plan. */
export function isOurs({ code }: Pick<Finding, "code">): boolean {
  return OURS.has(code);
}

/** Whether a rehearsal fell over a fault of Tumbrel. */
export function fellOver(rehearsal: Rehearsal): boolean {
  return rehearsal.findings.some(isOurs);
}

export type Part = "trip" | "kit";

/** What was changed since a document that could be rehearsed; both where that is not known. */
export function changedSince(good: PlanDocument | null, now: PlanDocument | null): Part[] {
  if (good === null || now === null) return ["trip", "kit"];
  const parts: Part[] = [];
  if (good.trip !== now.trip || good.plan !== now.plan) parts.push("trip");
  if (good.kit !== now.kit) parts.push("kit");
  return parts.length === 0 ? ["trip", "kit"] : parts;
}
