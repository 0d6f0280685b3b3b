import type { Rehearsal } from "../../domain/types";
import { minutesText } from "../../domain/units";

interface Props {
  open: boolean;
  rehearsal: Rehearsal;
  onToggle: () => void;
}

/** The side folded to an edge: what is missing at a glance, and the way to the rest. */
export function Edge({ open, rehearsal, onToggle }: Props) {
  const { minutes } = rehearsal.verdict;
  const missing = minutes.missing > 0 ? `${minutesText(minutes.missing)} not filmed` : "all filmed";
  return (
    <button
      type="button"
      className="board-edge label"
      aria-expanded={open}
      onClick={onToggle}
      onKeyDown={(event) => {
        if (event.key === "Escape" && open) onToggle();
      }}
    >
      <span>
        {open ? "Fold the side" : "Unfold the side"}: {missing}, {String(rehearsal.findings.length)}{" "}
        to know, what you carry
      </span>
    </button>
  );
}
