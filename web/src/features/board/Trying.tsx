import { Button } from "@mui/material";
import { cureFigures } from "../../domain/cures";
import type { Curing } from "./Cures";

/** The board shows a cure that is not kept yet; or why one could not be. */
export function Trying({ curing, problem }: { curing: Curing; problem: string | null }) {
  const { tried, headline, error, onKeep, onTry } = curing;
  const said = error ?? problem;
  return (
    <>
      {said === null ? null : (
        <p role="alert" className="said-here">
          {said}
        </p>
      )}
      {tried === null ? null : (
        <div className="trying" role="status">
          <span>
            <b>Tried, not kept:</b> {tried.text}{" "}
            <span className="label cure-figures">{cureFigures(tried)}</span> With it: {headline}
          </span>
          <span className="row">
            <Button size="small" variant="contained" onClick={() => onKeep(tried)}>
              Keep it
            </Button>
            <Button size="small" onClick={() => onTry(null)}>
              Leave it
            </Button>
          </span>
        </div>
      )}
    </>
  );
}
