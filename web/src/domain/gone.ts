import { REFERS } from "./refers";
import type { KitState, Plan } from "./types";

export type TripRows = KitState["went"][number];

const SAID: Record<string, readonly [one: string, more: string]> = {
  cameras: ["what a camera starts with", "what # cameras start with"],
  assignments: ["1 stretch of filming", "# stretches of filming"],
  swaps: ["1 battery swap", "# battery swaps"],
  card_swaps: ["1 card change", "# card changes"],
  plugs: ["1 charging", "# chargings"],
  gear: ["1 use", "# uses"],
  full_by: ["1 wish to be full", "# wishes to be full"],
  copies: ["1 copy", "# copies"],
  links: ["1 pair of cameras", "# pairs of cameras"],
};

/** How many rows of each list of a plan another one made of it has not, or has otherwise. */
export function rowsGone(before: Plan, after: Plan): Record<string, number> {
  const gone: Record<string, number> = {};
  for (const name of new Set(REFERS.map((one) => one.rows))) {
    const [was, is] = [before, after].map((plan) => plan[name as keyof Plan] as unknown);
    if (!Array.isArray(was) || !Array.isArray(is)) continue;
    const left = new Set<unknown>(is);
    const count = was.filter((row) => !left.has(row)).length;
    if (count > 0) gone[name] = count;
  }
  return gone;
}

type Rows = Pick<TripRows, "rows"> & { trip?: string };

/** "2 battery swaps and 1 copy of Crossing; 1 charging of Regatta" */
export function rowsText(trips: readonly Rows[]): string {
  return trips
    .map(({ trip, rows }) => {
      const words = Object.entries(rows).map(([name, count]) => {
        const [one, more] = SAID[name] ?? ["1 row", "# rows"];
        return count === 1 ? one : more.replace("#", String(count));
      });
      return trip === undefined ? listed(words) : `${listed(words)} of ${trip}`;
    })
    .join("; ");
}

function listed(words: readonly string[]): string {
  const last = words.at(-1) ?? "";
  return words.length < 2 ? last : `${words.slice(0, -1).join(", ")} and ${last}`;
}

/** What becomes of the stretches that ask for a mode, set-up or preset that is deleted. */
export function staysText(what: string, trips: readonly string[]): string | undefined {
  if (trips.length === 0) return undefined;
  const asks = `${listed(trips)} ${trips.length > 1 ? "ask" : "asks"} for it.`;
  return `${asks} Those stretches stay, and the board says that the ${what} is missing.`;
}

export function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}
