import type { TripAndPlan } from "./edits";
import { withoutWays } from "./track";
import type { Cure, CureTarget, Loss, PlanDocument } from "./types";
import { countText, gramsText, minutesText, signedMomentsText, wattHoursText } from "./units";

const MINUTE_MS = 60_000;
const WORTH_WH = 0.1;
const WORTH_BYTES = 1e9;

/** "+32 min must · −75 % picture · 38 g · −1.2 W h": what a cure gains and what it costs. */
export function cureFigures(cure: Cure): string {
  const parts = [
    signedMomentsText(cure.must_moments, "must"),
    gainText(cure.must_ms, "must"),
    signedMomentsText(cure.want_moments, "want"),
    gainText(cure.want_ms, "want"),
    signedMomentsText(cure.nice_moments, "nice"),
    gainText(cure.nice_ms, "nice"),
    cure.picture >= 0.01 ? `−${String(Math.round(cure.picture * 100))} % picture` : "",
    cure.grams > 0 ? gramsText(cure.grams) : "",
    cure.warnings > 0 ? `brings ${countText(cure.warnings, "warning")}` : "",
    cure.halts > 0 ? `${String(cure.halts)} more ${cure.halts === 1 ? "halt" : "halts"}` : "",
    Math.abs(cure.wh) >= WORTH_WH ? signed(cure.wh, wattHoursText(Math.abs(cure.wh))) : "",
    Math.abs(cure.bytes) >= WORTH_BYTES
      ? signed(cure.bytes, `${String(Math.round(Math.abs(cure.bytes) / 1e9))} GB`)
      : "",
  ].filter((part) => part !== "");
  return parts.join(" · ");
}

/** Those that cure, and those that only ask for less, each in its order. */
export function apart(cures: readonly Cure[]): [Cure[], Cure[]] {
  return [cures.filter((one) => !one.gives_up), cures.filter((one) => one.gives_up)];
}

function gainText(ms: number, importance: string): string {
  const minutes = Math.round(ms / MINUTE_MS);
  if (minutes === 0) return "";
  return `${signed(minutes, minutesText(Math.abs(minutes)))} ${importance}`;
}

function signed(value: number, text: string): string {
  return `${value > 0 ? "+" : "−"}${text}`;
}

/** The document with a cure made, as it is rehearsed. */
export function withCure(document: PlanDocument, cure: Cure): PlanDocument {
  return {
    ...document,
    kit: cure.kit ?? document.kit,
    trip: cure.trip == null ? document.trip : withoutWays(cure.trip),
    plan: cure.plan ?? document.plan,
  };
}

/** Trip and plan with a cure kept. */
export function keptCure(doc: TripAndPlan, cure: Cure): TripAndPlan {
  return { trip: cure.trip ?? doc.trip, plan: cure.plan ?? doc.plan };
}

/** The minutes that a loss is about, as something to cure. */
export function targetOfLoss({ camera, item }: Pick<Loss, "camera" | "item">): CureTarget {
  return { camera, item, code: null, path: "" };
}

export function sameTarget(one: CureTarget | null, other: CureTarget): boolean {
  return (
    one !== null &&
    one.camera === other.camera &&
    one.item === other.item &&
    one.code === other.code &&
    one.path === other.path
  );
}
