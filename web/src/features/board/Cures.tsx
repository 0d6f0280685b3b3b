import { Button } from "@mui/material";
import { useState } from "react";
import { apart, cureFigures } from "../../domain/cures";
import type { Cure, CureOutcome, CureTarget, PlanDocument } from "../../domain/types";
import { useCures } from "./useCures";

export interface Curing {
  /** The whole document, ways and all, as a cure may change its trip. */
  document: PlanDocument;
  tried: Cure | null;
  /** The verdict with what is tried. */
  headline: string;
  /** Why the last one could not be tried or kept. */
  error: string | null;
  onTry: (cure: Cure | null) => void;
  onKeep: (cure: Cure) => void;
  /** Whose cures are shown; none are while it is null. */
  open: CureTarget | null;
  onOpen: (target: CureTarget | null) => void;
}

const SHOWN = 4;
const GIVEN = 2;

type CuresProps = Pick<Curing, "document" | "tried" | "onTry" | "onKeep"> & { target: CureTarget };

/** Changes that cure one thing, each rehearsed; tried on the board, or kept as one step. */
export function Cures({ document, tried, onTry, onKeep, target }: CuresProps) {
  const { cures, outcome, error, stop, stopped } = useCures(document, target);
  const searching = outcome === null && error === null && !stopped;
  const order = useOrder(outcome);
  const inOrder = order.inOrder?.flatMap((place) => cures[place] ?? []) ?? cures;
  const [cured, given] = apart(inOrder);
  const lines = { tried, onTry, onKeep };
  return (
    <div className="cures" role="group" aria-label="Cures" {...order.watched}>
      <CureLines cures={cured.slice(0, SHOWN)} {...lines} />
      {given.length === 0 ? null : (
        <>
          <h3 className="label">Giving up</h3>
          <CureLines cures={given.slice(0, GIVEN)} {...lines} />
        </>
      )}
      {searching ? (
        <p role="status">
          Rehearsing cures…{" "}
          <button type="button" className="plain link" onClick={stop}>
            Stop looking
          </button>
        </p>
      ) : null}
      {outcome !== null && outcome.why !== "" ? <p>{outcome.why}</p> : null}
      {error === null ? null : <p role="alert">{error}</p>}
    </div>
  );
}

type LinesProps = Pick<CuresProps, "tried" | "onTry" | "onKeep"> & { cures: readonly Cure[] };

/** A line a cure: what to do, what it gains and costs, and the verdict that it leaves. */
function CureLines({ cures, tried, onTry, onKeep }: LinesProps) {
  return (
    <ul className="plain-list">
      {cures.map((cure) => (
        <li key={cure.text} className="cure">
          <p>
            {cure.text} <span className="label cure-figures">{cureFigures(cure)}</span>
            {cure.closes ? null : <span className="hint"> It closes part of it.</span>}
            <span className="hint cure-side">{sentence(cure.leaves)}</span>
            {cure.side.map((side) => (
              <span key={side} className="hint cure-side">
                {side}
              </span>
            ))}
            {cure.kit == null ? null : (
              <span className="hint cure-side">It changes the kit, for all its trips.</span>
            )}
          </p>
          <div className="row">
            <Button
              size="small"
              aria-pressed={tried === cure}
              onClick={() => onTry(tried === cure ? null : cure)}
            >
              {tried === cure ? "Leave it" : "Try"}
            </Button>
            <Button size="small" variant="contained" onClick={() => onKeep(cure)}>
              Keep
            </Button>
          </div>
        </li>
      ))}
    </ul>
  );
}

function sentence(words: string): string {
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;
}

/** The order of worth, once it is known; never while somebody points at the list or is in it. */
function useOrder(outcome: CureOutcome | null) {
  const [pointed, setPointed] = useState(false);
  const [within, setWithin] = useState(false);
  const [ordered, setOrdered] = useState<CureOutcome | null>(null);
  if (ordered !== outcome && (outcome === null || !(pointed || within))) setOrdered(outcome);
  return {
    inOrder: ordered?.order ?? null,
    watched: {
      onPointerEnter: () => setPointed(true),
      onPointerLeave: () => setPointed(false),
      onFocus: () => setWithin(true),
      onBlur: () => setWithin(false),
    },
  };
}
