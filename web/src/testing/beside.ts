import type { GearTold, Plan, Rehearsal } from "../domain/types";

/** What a plan says to the hands, of one that says nothing. */
export const NOTHING_SAID: Pick<
  Plan,
  "swaps" | "card_swaps" | "plugs" | "full_by" | "copies" | "links" | "gear"
> = { swaps: [], card_swaps: [], plugs: [], full_by: [], copies: [], links: [], gear: [] };

/** What a rehearsal tells beside minutes, of a trip with nothing of it. */
export const BESIDE: Pick<Rehearsal, "gear" | "home" | "lapses" | "rates" | "reaches"> = {
  gear: [],
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

/** A microphone with the chin camera that dies on the way, a quarter of an hour before its end. */
export const LAPEL: GearTold = {
  id: "lapel",
  name: "Lapel",
  kind: "microphone",
  serves: "chin",
  loses: "sound",
  used_ms: 3_600_000,
  gaps: [{ start_ms: 4_500_000, end_ms: 5_400_000, item: "way" }],
  least: 0,
  t_ms: [0, 4_500_000],
  charge: [1, 0],
};
