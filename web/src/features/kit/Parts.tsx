import { Button } from "@mui/material";
import type { ReactNode } from "react";
import { freshKey } from "../../domain/edits";
import { copyName, withoutUnit, withUnit } from "../../domain/kitEdits";

/** A part of a camera about to go, and what goes with it. */
export interface Going {
  what: string;
  more: string;
  run: () => void;
}

interface Props<Part extends { id: string; name: string }> {
  what: "mode" | "set-up" | "preset";
  camera: string;
  parts: readonly Part[];
  most: number;
  put: (parts: Part[]) => void;
  fresh: (taken: readonly Part[]) => Part;
  /** What of a copy must be its own, besides its name. */
  own?: (taken: readonly Part[]) => Partial<Part>;
  /** Whether the last one may go. */
  optional?: boolean;
  usedIn: (id: string) => readonly string[];
  ask: (going: Going) => void;
  fields: (part: Part, place: number, change: (some: Partial<Part>) => void) => ReactNode;
}

/** The modes, set-ups or presets of a camera: each with its fields, copied, deleted and added. */
export function Parts<Part extends { id: string; name: string }>(props: Props<Part>) {
  const { what, camera, parts, most, put, fresh, own, usedIn, ask, fields } = props;
  const full = parts.length >= most;
  const copy = (part: Part) => {
    const name = copyName(
      part.name,
      parts.map((one) => one.name),
    );
    const id = freshKey(
      name,
      parts.map((one) => one.id),
    );
    put([...parts, { ...part, id, name, ...own?.(parts) }]);
  };
  const remove = (part: Part) => {
    const trips = usedIn(part.id);
    const asks = `${trips.join(", ")} ${trips.length > 1 ? "ask" : "asks"} for it.`;
    ask({
      what: `${what} ${part.name} of ${camera}`,
      more:
        trips.length > 0
          ? `${asks} Those stretches stay and the board says that the ${what} is missing.`
          : "No trip uses it.",
      run: () => put(withoutUnit(parts, part.id)),
    });
  };
  return (
    <>
      <ul className="parts">
        {parts.map((part, place) => (
          <li key={part.id} className="part" aria-label={`${what} ${part.name}`}>
            {fields(part, place, (some) => put(withUnit(parts, { ...part, ...some })))}
            <div className="row part-tools">
              <button
                type="button"
                className="plain link"
                disabled={full}
                onClick={() => copy(part)}
                aria-label={`Copy ${what} ${part.name}`}
              >
                Copy
              </button>
              <button
                type="button"
                className="plain link"
                disabled={parts.length === 1 && props.optional !== true}
                onClick={() => remove(part)}
                aria-label={`Delete ${what} ${part.name}`}
              >
                Delete
              </button>
            </div>
          </li>
        ))}
      </ul>
      <Button disabled={full} onClick={() => put([...parts, fresh(parts)])}>
        Add a {what}
      </Button>
    </>
  );
}
