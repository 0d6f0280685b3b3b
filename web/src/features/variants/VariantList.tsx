import { Button } from "@mui/material";
import { useState } from "react";
import { useNavigate } from "react-router";
import { variants } from "../../api/variants";
import { useKeepKit } from "../../app/useKeepKit";
import { useTripHere } from "../../app/TripContext";
import type { VariantLine } from "../../domain/types";
import { CheckIn, NameIn, TextIn } from "../../ui/fields";
import { useDraft } from "../../ui/useDraft";

interface Props {
  lines: readonly VariantLine[];
  chosen: readonly number[];
  most: number;
  onToggle: (id: number) => void;
  onChanged: () => Promise<void>;
}

const NOW = 0;

/** The states that are kept: which are compared, and going back to one. */
export function VariantList({ lines, chosen, most, onToggle, onChanged }: Props) {
  const { id, kept } = useTripHere();
  const [error, setError] = useState<string | null>(null);
  const [name, setName] = useDraft(`variant.${String(id)}`);
  const told = (doing: Promise<unknown>) => {
    setError(null);
    doing
      .then(onChanged)
      .catch((problem: unknown) =>
        setError(problem instanceof Error ? problem.message : String(problem)),
      );
  };
  const keep = (given: string) => {
    const wanted = given.trim();
    if (wanted === "") return;
    const keeping = kept.settled().then(() => variants.keep(id, { name: wanted, words: "" }));
    told(keeping.then(() => setName("")));
  };
  return (
    <section>
      <h2>Compare up to {most}</h2>
      <ul className="plain-list variant-list">
        <li>
          <CheckIn
            label="The plan now"
            value={chosen.includes(NOW)}
            onCommit={() => onToggle(NOW)}
          />
        </li>
        {lines.map((line) => (
          <Line
            key={line.id}
            line={line}
            on={chosen.includes(line.id)}
            onToggle={() => onToggle(line.id)}
            onName={(next) => told(variants.rename(id, line.id, next))}
            onDelete={() => told(variants.remove(id, line.id))}
            onError={setError}
          />
        ))}
      </ul>
      <div className="row fields">
        <TextIn
          label="Keep the plan now as"
          value={name}
          placeholder="a name of your own"
          onCommit={keep}
          wide
        />
      </div>
      {error === null ? null : <p role="alert">{error}</p>}
    </section>
  );
}

interface LineProps {
  line: VariantLine;
  on: boolean;
  onToggle: () => void;
  onName: (name: string) => void;
  onDelete: () => void;
  onError: (error: string | null) => void;
}

function Line({ line, on, onToggle, onName, onDelete, onError }: LineProps) {
  const [open, setOpen] = useState(false);
  const [sure, setSure] = useState(false);
  return (
    <li>
      <div className="variant-line">
        <CheckIn label={line.name} value={on} onCommit={onToggle} />
        <button
          type="button"
          className="plain link"
          aria-expanded={open}
          aria-label={`More of ${line.name}`}
          onClick={() => setOpen(!open)}
        >
          {open ? "less" : "more"}
        </button>
      </div>
      {open ? (
        <div className="variant-more" role="group" aria-label={line.name}>
          {line.words === "" ? null : <p className="hint">{line.words}.</p>}
          <NameIn label="Name" value={line.name} onCommit={onName} wide />
          <GoBack line={line} onError={onError} />
          {sure ? (
            <p>
              It goes for good.{" "}
              <button type="button" className="plain link" onClick={onDelete}>
                Delete {line.name}
              </button>{" "}
              <button type="button" className="plain link" onClick={() => setSure(false)}>
                Keep it
              </button>
            </p>
          ) : (
            <button type="button" className="plain link" onClick={() => setSure(true)}>
              Delete…
            </button>
          )}
        </div>
      ) : null}
    </li>
  );
}

/** The plan made the variant's, as one step; its kit too, where that is another. */
function GoBack({ line, onError }: Pick<LineProps, "line" | "onError">) {
  const { id, kept } = useTripHere();
  const navigate = useNavigate();
  const keepKit = useKeepKit();
  const [busy, setBusy] = useState(false);
  const go = async (withKit: boolean) => {
    const { document } = await variants.get(id, line.id);
    await kept.settled();
    if (withKit) await keepKit(() => document.kit);
    kept.edit(() => ({ trip: document.trip, plan: document.plan }));
    void navigate("../board");
  };
  const start = (withKit: boolean) => {
    setBusy(true);
    onError(null);
    go(withKit)
      .catch((problem: unknown) =>
        onError(problem instanceof Error ? problem.message : String(problem)),
      )
      .finally(() => setBusy(false));
  };
  return (
    <div className="row">
      <Button size="small" disabled={busy} onClick={() => start(false)}>
        Go back to its plan
      </Button>
      <Button size="small" disabled={busy} onClick={() => start(true)}>
        … and its kit
      </Button>
      <p className="hint">
        Undo takes the plan back. The kit is changed for all its trips, with a step of its own.
      </p>
    </div>
  );
}
