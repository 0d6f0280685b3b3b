import type { Rehearsal } from "../domain/types";

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
