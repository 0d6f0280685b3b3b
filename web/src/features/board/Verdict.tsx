import { useState } from "react";
import { fellOver } from "../../domain/ours";
import type { Rehearsal } from "../../domain/types";
import { minutesText } from "../../domain/units";
import { UndoHere } from "./UndoHere";
import { useSettled } from "./useSettled";

interface Props {
  rehearsal: Rehearsal;
  late: boolean;
  error: Error | null;
}

const SPOKEN_AFTER_MS = 600;
const SENTENCE_END = /(?<=\.) (?=[A-Z])/;

/** The plain answer in two lines; all of it on wish. */
export function Verdict({ rehearsal, late, error }: Props) {
  const { verdict } = rehearsal;
  const { minutes } = verdict;
  const [whole, setWhole] = useState(false);
  const spoken = useSettled(`${verdict.headline} ${verdict.detail}`, SPOKEN_AFTER_MS);
  const [first = "", ...rest] = verdict.detail.split(SENTENCE_END);
  return (
    <section className="verdict" aria-label="Verdict">
      <h1 className={verdict.covered ? "covered" : "broken"} data-testid="headline">
        {verdict.headline}
      </h1>
      <p>
        {whole ? verdict.detail : first}{" "}
        {rest.length > 0 && !whole && minutes.missing > 0 ? (
          <span className="label">
            {minutesText(minutes.missing)} of {minutesText(minutes.asked)} camera time is missing.
          </span>
        ) : null}{" "}
        {rest.length > 0 ? (
          <button
            type="button"
            className="plain link"
            aria-expanded={whole}
            onClick={() => setWhole(!whole)}
          >
            {whole ? "less" : "all of it"}
          </button>
        ) : null}
      </p>
      <p className="sr" role="status" aria-live="polite">
        {spoken}
      </p>
      <p className="late label" aria-hidden={!late}>
        {error ? error.message : late ? "rehearsing…" : ""}
      </p>
      {error !== null || fellOver(rehearsal) ? <UndoHere /> : null}
    </section>
  );
}
