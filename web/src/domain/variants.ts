import { assignmentAt, withAssignment, withoutAssignment } from "./edits";
import { nameOfCamera } from "./moment";
import {
  IMPORTANCES,
  type Ledger,
  type Plan,
  type PlanDocument,
  type Rehearsal,
  type StretchTold,
  type VariantCompared,
} from "./types";
import { expectedText, gigabytesText, gramsText, minutesText, percentText } from "./units";

const MINUTE_MS = 60_000;
const NONE = "none";

/** One figure of the ledger for each state, and whether it is another than the first state's. */
export interface LedgerRow {
  name: string;
  cells: { text: string; differs: boolean }[];
}

/** The figures side by side, in the order in which people ask for them. */
export function ledgerRows(
  states: readonly VariantCompared[],
  when: (place: number, ms: number) => string,
): LedgerRow[] {
  const ledgers = states.map((one) => one.state.ledger);
  const row = (name: string, text: (ledger: Ledger, place: number) => string): LedgerRow => {
    const texts = ledgers.map(text);
    return { name, cells: texts.map((each) => ({ text: each, differs: each !== texts[0] })) };
  };
  const rows = [
    row("verdict", (one) => one.headline),
    ...IMPORTANCES.map((key) =>
      row(`${key}, filmed of asked`, (one) => {
        const share = one.importance.find((each) => each.key === key);
        if (share === undefined || share.asked_ms === 0) return "none asked";
        return `${minutes(share.filmed_ms)} of ${minutes(share.asked_ms)}`;
      }),
    ),
    ...IMPORTANCES.map((key) =>
      row(`${key} moments whole`, (one) => {
        const moments = one.moments.find((each) => each.importance === key);
        return moments === undefined
          ? NONE
          : `${expectedText(moments.whole)} of ${String(moments.count)}`;
      }),
    ),
    row("first to give out", (one, place) => firstText(states[place], one, when, place)),
    row("least left", (one, place) => {
      const left = one.least_left;
      const state = states[place]?.state;
      if (left == null || state === undefined) return "\u2013";
      return `${left.name}, ${percentText(left.left)} of ${LEFT[left.resource]}`;
    }),
    row("carried", (one) => gramsText(one.grams)),
    row("costs", (one) => (one.money == null ? "not said" : String(one.money))),
    row("energy", (one) => `${String(Math.round(one.wh))} W h`),
    row("swaps", (one) => String(one.swaps)),
    row("written", (one) => gigabytesText(one.bytes)),
    row("to look through", (one) => minutes(one.looking_ms)),
    row("picture, mean", (one) => `${String(Math.round(one.picture))} Mpx/s`),
    row("to know", (one) => findingsText(one)),
  ];
  const money = ledgers.some((one) => one.money != null);
  return rows.filter(
    (one) =>
      (one.name !== "costs" || money) &&
      (!one.name.endsWith(" moments whole") || one.cells.some((cell) => cell.text !== NONE)),
  );
}

/** Filmed of asked, leg by leg, where the states differ by a minute or more. */
export function legRows(states: readonly VariantCompared[]): LedgerRow[] {
  const names = new Map<string, string>();
  for (const { state } of states)
    for (const item of state.document.trip.items)
      if (!names.has(item.id)) names.set(item.id, item.name);
  const rows = [...names].map(([id, name]) => {
    const texts = states.map(({ state }) => {
      const leg = state.ledger.legs.find((one) => one.key === id);
      if (leg === undefined || leg.asked_ms === 0) return "not asked";
      return `${minutes(leg.filmed_ms)} of ${minutes(leg.asked_ms)}`;
    });
    return { name, cells: texts.map((text) => ({ text, differs: text !== texts[0] })) };
  });
  return rows.filter((row) => row.cells.some((cell) => cell.differs));
}

const LEFT = {
  battery: "battery",
  heat: "heat",
  card: "card",
  bank: "bank",
  module: "module",
  port: "port",
} as const;

function minutes(ms: number): string {
  return minutesText(ms / MINUTE_MS);
}

function findingsText(ledger: Ledger): string {
  const warnings = `${String(ledger.warnings)} ${ledger.warnings === 1 ? "warning" : "warnings"}`;
  return ledger.stops > 0 ? `${String(ledger.stops)} stop, ${warnings}` : warnings;
}

function firstText(
  compared: VariantCompared | undefined,
  ledger: Ledger,
  when: (place: number, ms: number) => string,
  place: number,
): string {
  const { first } = ledger;
  if (first == null || compared === undefined) return "nothing";
  const { document, rehearsal } = compared.state;
  const loss = rehearsal.cameras
    .flatMap((one) => one.losses)
    .find((one) => one.camera === first.camera && one.start_ms === first.at_ms);
  return `${nameOfCamera(document, first.camera)}, ${loss?.text ?? first.cause}, ${when(place, first.at_ms)}`;
}

/** One camera on one leg or stop in which the states are not the same. */
export interface Difference {
  camera: string;
  item: string;
  cameraName: string;
  itemName: string;
  /** What each state asks and films there; null where it does not ask. */
  cells: (StretchTold | null)[];
}

/** Where the states differ in how they record or in what is filmed of it, in order of time. */
export function differencesOf(states: readonly VariantCompared[]): Difference[] {
  const found = new Map<string, Difference>();
  const order = new Map<string, number>();
  for (const { state } of states)
    for (const [place, item] of state.document.trip.items.entries())
      if (!order.has(item.id)) order.set(item.id, place);
  for (const { state } of states)
    for (const { camera, item } of state.ledger.stretches) {
      const key = `${item}/${camera}`;
      if (found.has(key)) continue;
      const cells = states.map(
        (one) =>
          one.state.ledger.stretches.find((each) => each.camera === camera && each.item === item) ??
          null,
      );
      if (same(cells)) continue;
      found.set(key, {
        camera,
        item,
        cameraName: nameOfCamera(state.document, camera),
        itemName: state.document.trip.items.find((one) => one.id === item)?.name ?? item,
        cells,
      });
    }
  return [...found.values()].sort((a, b) => (order.get(a.item) ?? 0) - (order.get(b.item) ?? 0));
}

function same(cells: readonly (StretchTold | null)[]): boolean {
  const text = (one: StretchTold | null) =>
    one === null ? "" : `${one.how} ${minutes(one.filmed_ms)} ${minutes(one.lost_ms)}`;
  return cells.every((one) => text(one) === text(cells[0] ?? null));
}

/** "takes 4K30, 21 min" and what of it is missing. */
export function stretchText(told: StretchTold | null): string {
  if (told === null) return "not asked";
  const lost = told.lost_ms >= MINUTE_MS ? `, ${minutes(told.lost_ms)} missing` : "";
  return `${told.how}, ${minutes(told.filmed_ms)}${lost}`;
}

/**
 * The plan with one stretch as another state has it; null where it is so already, or the kit or
 * the trip is not made for it.
 */
export function withTaken(
  now: PlanDocument,
  plan: Plan,
  from: Plan,
  camera: string,
  item: string,
): Plan | null {
  const known = now.kit.cameras.find((one) => one.id === camera);
  if (known === undefined || !now.trip.items.some((one) => one.id === item)) return null;
  const taken = assignmentAt(from, camera, item);
  const asked = assignmentAt(plan, camera, item);
  if (JSON.stringify(taken) === JSON.stringify(asked)) return null;
  if (taken === undefined) return withoutAssignment(plan, camera, item);
  const fits =
    known.modes.some((one) => one.id === taken.mode) &&
    known.set_ups.some((one) => one.id === taken.set_up) &&
    (taken.preset == null || known.presets.some((one) => one.id === taken.preset));
  return fits ? withAssignment(plan, taken) : null;
}

/** The plain sentence: what the last of two states gives and costs against the first. */
export function comparisonSentence(states: readonly VariantCompared[], names: readonly string[]) {
  const [base, ...others] = states;
  if (base === undefined) return "Choose one or more states to look at.";
  if (others.length === 0) return `${names[0] ?? ""}: ${base.state.ledger.headline}`;
  const parts = others.map(({ state }, place) => {
    const filmed = asked(state.rehearsal) - asked(base.state.rehearsal);
    const looking = state.ledger.looking_ms - base.state.ledger.looking_ms;
    const grams = Math.round(state.ledger.grams - base.state.ledger.grams);
    const more = (ms: number, what: string) =>
      Math.abs(ms) < MINUTE_MS
        ? ""
        : `${minutes(Math.abs(ms))} ${ms > 0 ? "more" : "less"} ${what}`;
    const said = [
      more(filmed, "filmed"),
      more(looking, "to look through"),
      grams === 0 ? "" : `${gramsText(Math.abs(grams))} ${grams > 0 ? "more" : "less"}`,
    ].filter((one) => one !== "");
    return `${names[place + 1] ?? ""}: ${said.length === 0 ? "nothing of it changes" : said.join(", ")}.`;
  });
  return `Against ${names[0] ?? ""}. ${parts.join(" ")}`;
}

function asked(rehearsal: Rehearsal): number {
  return rehearsal.verdict.filmed_ms;
}
