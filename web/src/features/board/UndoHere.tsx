import { useTripHere } from "../../app/TripContext";
import { changedSince } from "../../domain/ours";

/** After a fault of Tumbrel: the change was kept, and can be taken back here. */
export function UndoHere() {
  const { kept, kit, rehearsing } = useTripHere();
  const steps = { trip: kept, kit };
  const parts = changedSince(rehearsing.good, rehearsing.asked);
  const can = parts.filter((part) => steps[part].state?.can_undo === true);
  return (
    <p className="row" data-testid="undo-here">
      <span className="label">
        Your change of the {parts.join(" or the ")} was kept
        {can.length === 0 ? "; there is nothing before it to go back to." : "."}
      </span>
      {can.map((part) => (
        <button key={part} type="button" className="plain tool" onClick={steps[part].undo}>
          Undo it in the {part}
        </button>
      ))}
    </p>
  );
}
