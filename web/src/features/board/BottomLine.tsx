import type { Cell } from "../../board/Drawing";
import type { Clock } from "../../domain/clock";
import { assignmentAt } from "../../domain/edits";
import type { Pattern, PlanDocument } from "../../domain/types";

interface Props {
  document: PlanDocument;
  selected: Cell | null;
  /** How many are chosen at once. */
  many: number;
  drafting: boolean;
  pinned: boolean;
  open: boolean;
  clock: Clock;
  handMs: number;
}

const HOW: Record<Pattern["kind"], string> = {
  roll: "rolled",
  takes: "takes",
  loop: "loop",
  windows: "by the clock",
  interval: "interval",
  armed: "on a trigger",
};

/** What click and keys would do here. */
export function BottomLine(props: Props) {
  const { document, selected, many, drafting, pinned, open, clock, handMs } = props;
  const camera = document.kit.cameras.find((one) => one.id === selected?.camera);
  const item = document.trip.items.find((one) => one.id === selected?.item);
  const asked = selected ? assignmentAt(document.plan, selected.camera, selected.item) : undefined;
  const what =
    many > 1
      ? `${String(many)} stretches.`
      : camera && item
        ? `${camera.name}, ${item.name}, ${asked ? HOW[asked.pattern.kind] : "not asked"}.`
        : "";
  const does = drafting
    ? "Ctrl+Enter or Keep: one step that undo takes back. Esc: as it was. Going elsewhere keeps it."
    : open
      ? "A change is rehearsed and drawn before it is kept. Esc closes."
      : `Enter: change it. N: the next gap. C: its cures. ?: all keys. ${pinned ? `Hand pinned at ${clock.time(handMs)}: click the rails to free it.` : "Click the rails: pin the hand."}`;
  return (
    <p className="bottom-line label">
      <strong>{what}</strong> <span>{does}</span>
    </p>
  );
}
