import { Button } from "@mui/material";
import { Link } from "react-router";
import { useTripHere } from "../../app/TripContext";
import { rolledEverywhere } from "../../domain/edits";

/** Before anything is asked: what a cell is for, and one press that lets everything roll. */
export function NothingAsked() {
  const { kept, kit } = useTripHere();
  const { state, edit } = kept;
  const carried = kit.state?.kit;
  if (state === undefined || carried === undefined || state.plan.assignments.length > 0)
    return null;
  const legs = state.trip.items.filter((one) => one.kind === "leg").length;
  return (
    <div className="trying nothing-asked" role="status">
      {legs === 0 ? (
        <span>
          No leg yet. <Link to="../route">Add the first one on the route.</Link>
        </span>
      ) : (
        <>
          <span>
            <b>Nothing is asked yet.</b> Each cell is one camera on one leg: click one to say how it
            records there. Or begin with all of them, and take away what you do not want.
          </span>
          <Button
            variant="contained"
            size="small"
            onClick={() =>
              edit((doc) => ({ ...doc, plan: rolledEverywhere(carried, doc.trip, doc.plan) }))
            }
          >
            Let all cameras roll on every leg
          </Button>
        </>
      )}
    </div>
  );
}
