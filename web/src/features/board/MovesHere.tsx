import type { Cell } from "../../board/Drawing";
import type { Clock } from "../../domain/clock";
import {
  barredAt,
  movable,
  type Plugged,
  plugPlaces,
  withMoved,
  withPlugged,
} from "../../domain/handEdits";
import { fromLocalField, localField } from "../../domain/routeEdits";
import type { Move, Plan, PlanDocument, Rehearsal } from "../../domain/types";
import { ChoiceIn, TextIn } from "../../ui/fields";

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
          editPlan={editPlan}
          onTo={(item) => editPlan((old) => withMoved(old, move, item))}
        />
      ))}
    </div>
  );
}

interface MoveToProps extends Pick<Props, "document" | "rehearsal" | "clock" | "editPlan"> {
  move: Move;
  onTo: (item: string) => void;
}

function MoveTo({ document, rehearsal, clock, move, editPlan, onTo }: MoveToProps) {
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
    <>
      <ChoiceIn
        label={`${WORDS[kind]} ${unit}: move to`}
        value={move.item}
        choices={choices}
        onCommit={onTo}
        wide
      />
      {kind === "plug" ? (
        <PlugInto document={document} clock={clock} move={move} editPlan={editPlan} />
      ) : null}
    </>
  );
}

/** Where a unit is plugged in, and from when: the person's own word, where there is one. */
function PlugInto({
  document,
  clock,
  move,
  editPlan,
}: Pick<MoveToProps, "document" | "clock" | "move" | "editPlan">) {
  const said = document.plan.plugs.find(
    (one) => one.unit === move.unit && one.item === move.item && one.plug,
  );
  const places = plugPlaces(document.kit);
  const put = (part: Partial<Plugged>) =>
    editPlan((old) => withPlugged(old, move.unit, move.item, part));
  return (
    <>
      <ChoiceIn
        label={`${move.takes_out}: into`}
        value={said?.to == null ? "" : `${said.to}/${String(said.place ?? 1)}`}
        choices={[{ value: "", name: "the best that is free" }, ...places]}
        onCommit={(value) => {
          const place = places.find((one) => one.value === value);
          put({ to: place?.to ?? null, place: place?.place ?? null });
        }}
        wide
      />
      <TextIn
        label={`${move.takes_out}: not before`}
        value={said?.at == null ? "" : localField(said.at).replace("T", " ")}
        placeholder={localOf(document, move.at_ms, clock)}
        check={(text) =>
          text.trim() === "" || fromLocalField(text.trim().replace(" ", "T"))
            ? null
            : "Like 2027-06-13 06:00."
        }
        onCommit={(text) => put({ at: fromLocalField(text.trim().replace(" ", "T")) })}
      />
    </>
  );
}

/** The trip's own day and hour of a moment, as they are typed. */
function localOf(document: PlanDocument, atMs: number, clock: Clock): string {
  const day = new Date(`${localField(document.trip.start).slice(0, 10)}T00:00:00Z`);
  day.setUTCDate(day.getUTCDate() + clock.day(atMs) - 1);
  return `${day.toISOString().slice(0, 10)} ${clock.time(atMs)}`;
}
