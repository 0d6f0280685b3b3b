import type { Keeping } from "../api/kept";

const WORDS: Record<Keeping, string> = {
  kept: "Kept",
  going: "Saving…",
  here: "Only here, trying again",
  tab: "Only in this tab: leave it open",
};

/** Where what was edited is: with the server, on its way, or only here. */
export function KeepingMark({ keeping, what }: { keeping: Keeping; what: string }) {
  return (
    <span className={`keeping label ${keeping}`} role="status" aria-label={`${what}: keeping`}>
      {WORDS[keeping]}
    </span>
  );
}
