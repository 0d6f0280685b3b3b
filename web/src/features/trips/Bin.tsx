import { useState } from "react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type Binned, letGo, listsChanged, queries, takeOut } from "../../api/queries";

const day = (at: string) => new Date(at).toLocaleDateString("en-GB", { dateStyle: "medium" });

/** Deleted trips and kits, for thirty days; nothing is drawn while the bin is empty. */
export function Bin() {
  const bin = useQuery(queries.bin());
  const [asked, setAsked] = useState<string | null>(null);
  const cache = useQueryClient();
  const onSettled = () => listsChanged(cache);
  const putting = useMutation({ mutationFn: takeOut, onSettled });
  const going = useMutation({ mutationFn: letGo, onSettled });
  const busy = putting.isPending || going.isPending;
  const problem = putting.error ?? going.error;
  const lines = bin.data ?? [];
  if (lines.length === 0) return null;
  return (
    <section aria-label="Bin">
      <h2>Bin</h2>
      <p className="hint">What was deleted in the last 30 days. A trip brings its kit along.</p>
      <ul className="trip-list">
        {lines.map((line) => (
          <li key={keyOf(line)}>
            <strong className="label">{line.name}</strong>
            <span className="trip-more">{wordsOf(line)}</span>
            <span className="row">
              <button
                type="button"
                className="plain link"
                disabled={busy}
                onClick={() => putting.mutate(line)}
                aria-label={`Put back ${line.kind} ${line.name}`}
              >
                Put back
              </button>
              {asked === keyOf(line) ? (
                <>
                  <span>It cannot be brought back.</span>
                  <button
                    type="button"
                    className="plain link"
                    disabled={busy}
                    onClick={() => going.mutate(line)}
                  >
                    Delete {line.kind} {line.name} for good
                  </button>
                  <button type="button" className="plain link" onClick={() => setAsked(null)}>
                    Leave it in the bin
                  </button>
                </>
              ) : (
                <button
                  type="button"
                  className="plain link"
                  disabled={busy}
                  onClick={() => setAsked(keyOf(line))}
                  aria-label={`Delete for good: ${line.kind} ${line.name}`}
                >
                  Delete for good…
                </button>
              )}
            </span>
          </li>
        ))}
      </ul>
      {problem ? <p role="alert">{problem.message}</p> : null}
    </section>
  );
}

function keyOf({ kind, id }: Binned): string {
  return `${kind}-${String(id)}`;
}

function wordsOf(line: Binned): string {
  const held = line.variants === 1 ? " with 1 variant" : ` with ${String(line.variants)} variants`;
  return `${line.kind}${line.variants > 0 ? held : ""}, until ${day(line.goes_at)}`;
}
