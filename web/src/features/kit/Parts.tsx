import { Button } from "@mui/material";
import type { ReactNode } from "react";
import { useTellGone } from "../../app/gone";
import { freshKey } from "../../domain/edits";
import { capital, staysText } from "../../domain/gone";
import { copyName, withoutUnit, withUnit } from "../../domain/kitEdits";

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
  fields: (part: Part, place: number, change: (some: Partial<Part>) => void) => ReactNode;
}

/** The modes, set-ups or presets of a camera: each with its fields, copied, deleted and added. */
export function Parts<Part extends { id: string; name: string }>(props: Props<Part>) {
  const { what, camera, parts, most, put, fresh, own, usedIn, fields } = props;
  const tellGone = useTellGone();
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
    put(withoutUnit(parts, part.id));
    tellGone(capital(`${what} ${part.name} of ${camera}`), staysText(what, usedIn(part.id)));
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
