import type { Pattern } from "../domain/types";

/** A texture for each way to record: each survives black and white. */
export const FILLS: Record<Pattern["kind"], string> = {
  roll: "var(--rope)",
  takes: "url(#t-takes)",
  loop: "url(#t-loop)",
  windows: "var(--rope)",
  interval: "url(#t-interval)",
  armed: "url(#t-armed)",
};
