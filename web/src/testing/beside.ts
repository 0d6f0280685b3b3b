import type { Plan, Rehearsal } from "../domain/types";

/** What a plan says to the hands, of one that says nothing. */
export const NOTHING_SAID: Pick<
  Plan,
  "swaps" | "card_swaps" | "plugs" | "full_by" | "copies" | "links" | "gear"
> = { swaps: [], card_swaps: [], plugs: [], full_by: [], copies: [], links: [], gear: [] };

/** What a rehearsal tells beside minutes, of a trip with nothing of it. */
export const BESIDE: Pick<Rehearsal, "home" | "lapses" | "rates" | "reaches"> = {
  home: {
    searched_ms: 3_000_000,
    looking_ms: 3_750_000,
    clips: 2,
    clips_ms: 0,
    cameras: 1,
    cameras_ms: 0,
    own: false,
  },
  lapses: [],
  rates: [],
  reaches: [],
};
