import type { Cell } from "../../board/Drawing";
import type { Clock } from "../../domain/clock";
import { assignmentAt } from "../../domain/edits";
import type { Pattern, PlanDocument } from "../../domain/types";

interface Props {
  document: PlanDocument;
  selected: Cell | null;
  pinned: boolean;
  open: boolean;
  clock: Clock;
  handMs: number;
}

const HOW: Record<Pattern["kind"], string> = {
  roll: "rolled",
  takes: "takes",
  loop: "loop",
  windows: "windows",
  interval: "interval",
  armed: "armed",
};

/** What click and keys would do here. */
export function BottomLine({ document, selected, pinned, open, clock, handMs }: Props) {
  const camera = document.kit.cameras.find((one) => one.id === selected?.camera);
  const item = document.trip.items.find((one) => one.id === selected?.item);
  const asked = selected ? assignmentAt(document.plan, selected.camera, selected.item) : undefined;
  const what =
    camera && item
      ? `${camera.name}, ${item.name}, ${asked ? HOW[asked.pattern.kind] : "not asked"}.`
      : "";
  const does = open
    ? "Each change is kept at once and is one step that undo takes back. Esc closes."
    : `Enter or click: change how it records. N: next gap. C: its cures. F: fold. ${pinned ? `Hand pinned at ${clock.time(handMs)}: click the rails to free it.` : "Click the rails: pin the hand."} ?: every command.`;
  return (
    <p className="bottom-line label">
      <strong>{what}</strong> <span>{does}</span>
    </p>
  );
}
