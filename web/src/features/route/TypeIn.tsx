import { Button } from "@mui/material";
import { useMutation } from "@tanstack/react-query";
import { Refused } from "../../api/client";
import { readTable } from "../../api/queries";
import { itemKeys } from "../../domain/routeEdits";
import type { Item, Trip } from "../../domain/types";
import { Said } from "../../ui/Said";
import { useDraft } from "../../ui/useDraft";

interface Props {
  id: number;
  trip: Trip;
  onItems: (items: Item[]) => void;
  onFresh: (kind: Item["kind"]) => void;
}

const EXAMPLE =
  "Tarn camp; stop; 0:40; 4 to 6\nclimb; climb; 2:30; 6 to 11; 0.6; 50 %; stops; 1240 to 1980\nflight; flight; 1:35; 9 to 14; 9; 80 %; never; 1980 to 1120";

/** Legs and stops typed or pasted, one a line. A line at fault is named and nothing is added. */
export function TypeIn({ id, trip, onItems, onFresh }: Props) {
  const [text, setText] = useDraft(`legs.${String(id)}`);
  const reading = useMutation({
    mutationFn: (asked: string) => readTable(asked, itemKeys(trip)),
    onSuccess: (pasted) => {
      onItems(pasted.items);
      setText("");
    },
  });
  const lines = text.split("\n").filter((line) => line.trim() !== "").length;
  const faults = reading.error instanceof Refused ? reading.error.problem.faults : [];
  const add = () => {
    if (lines > 0 && !reading.isPending) reading.mutate(text);
  };
  return (
    <section className="type-in">
      <h2>Add legs and stops</h2>
      <label htmlFor="type-in-text" className="hint">
        Type or paste, one a line: name; activity or “stop”; length; temperature; air m/s; sun;
        hands; height. The first three are enough. Tabs work too. Ctrl+Enter adds.
      </label>
      <textarea
        id="type-in-text"
        rows={4}
        value={text}
        placeholder={EXAMPLE}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) add();
        }}
      />
      {reading.error ? (
        <Said kind="wrong">
          {faults.length === 0 ? reading.error.message : "Nothing was added."}
          <ul className="faults">
            {faults.map((fault) => (
              <li key={fault.path + fault.why}>
                <code>{fault.path}</code>: {fault.why}
              </li>
            ))}
          </ul>
        </Said>
      ) : null}
      <div className="row">
        <Button variant="contained" disabled={lines === 0 || reading.isPending} onClick={add}>
          {lines > 1 ? `Add ${String(lines)} lines` : "Add the line"}
        </Button>
        <Button onClick={() => onFresh("leg")}>Add a leg</Button>
        <Button onClick={() => onFresh("stop")}>Add a stop</Button>
      </div>
    </section>
  );
}
