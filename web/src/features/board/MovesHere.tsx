import type { Cell } from "../../board/Drawing";
import type { Clock } from "../../domain/clock";
import { barredAt, movable, withMoved } from "../../domain/handEdits";
import type { Move, Plan, PlanDocument, Rehearsal } from "../../domain/types";
import { ChoiceIn } from "../../ui/fields";

interface Props {
  document: PlanDocument;
  rehearsal: Rehearsal;
  clock: Clock;
  cell: Cell;
  editPlan: (edit: (old: Plan) => Plan) => void;
}

const WORDS = { swap: "Swap", plug: "Plug in", copy: "Copy" } as const;

/** The hands' work of this camera here, each to be done at another stop where that is possible. */
export function MovesHere({ document, rehearsal, clock, cell, editPlan }: Props) {
  const moves = rehearsal.moves.filter(
    (one) => one.item === cell.item && one.camera === cell.camera && movable(one) !== null,
  );
  if (moves.length === 0) return null;
  return (
    <div className="strip-fields">
      {moves.map((move) => (
        <MoveTo
          key={`${String(move.at_ms)}-${move.kind}-${move.unit}`}
          document={document}
          rehearsal={rehearsal}
          clock={clock}
          move={move}
          onTo={(item) => editPlan((old) => withMoved(old, move, item))}
        />
      ))}
    </div>
  );
}

interface MoveToProps extends Pick<Props, "document" | "rehearsal" | "clock"> {
  move: Move;
  onTo: (item: string) => void;
}

function MoveTo({ document, rehearsal, clock, move, onTo }: MoveToProps) {
  const kind = movable(move);
  if (kind === null) return null;
  const unit =
    kind === "swap"
      ? `${move.takes_out} → ${move.puts_in}`
      : kind === "plug"
        ? move.takes_out
        : move.puts_in;
  const starts = new Map(rehearsal.items.map((one) => [one.id, one.start_ms]));
  const choices = document.trip.items
    .filter((item) => barredAt(kind, item, document.kit) === null)
    .map((item) => ({
      value: item.id,
      name: `${item.name}, ${clock.full(starts.get(item.id) ?? 0)}${item.id === move.item ? " (here)" : ""}`,
    }));
  return (
    <ChoiceIn
      label={`${WORDS[kind]} ${unit}: move to`}
      value={move.item}
      choices={choices}
      onCommit={onTo}
      wide
    />
  );
}
