import { useState } from "react";
import { shownIn, shownNumber } from "../../domain/measures";
import { type Blank, type Sum, textOf, type Typed, wantedOf, wrongIn } from "../../domain/sums";
import { parseNumber } from "../../domain/units";

interface Props {
  sum: Sum;
  typed: Typed;
  put: (part: Typed) => void;
}

const LEAST_CH = 3;

/** The question as a sentence; what it leaves blank is typed where it stands. */
export function Sentence({ sum, typed, put }: Props) {
  return (
    <p className="sentence">
      {sum
        .words(wantedOf(sum, typed))
        .map((one, place) =>
          typeof one === "string" ? (
            <span key={place}>{/^[.,?]/.test(one) ? one : ` ${one}`} </span>
          ) : (
            <BlankIn
              key={one.name}
              blank={one}
              text={textOf(one, typed)}
              wrong={wrongIn(one, typed)}
              onText={(text) => put({ [one.name]: text })}
            />
          ),
        )}
    </p>
  );
}

interface BlankProps {
  blank: Blank;
  text: string;
  wrong: string | null;
  onText: (text: string) => void;
}

function BlankIn({ blank, text, wrong, onText }: BlankProps) {
  const id = `blank-${blank.name}`;
  const [draft, setDraft] = useState<string | null>(null);
  const shown = shownIn(blank.unit);
  const asGiven = shown.digits === null; // else the address keeps SI, and what is typed stays here
  const number = parseNumber(text);
  const value =
    asGiven || number === null
      ? text
      : (draft ?? String(shownNumber(number, blank.unit)).replace("-", "\u2212"));
  const type = (typed: string) => {
    const given = parseNumber(typed);
    setDraft(typed);
    onText(asGiven || given === null ? typed : String(shown.back(given)));
  };
  return (
    <span className="blank">
      <input
        type={blank.day === true ? "date" : "text"}
        inputMode={blank.day === true ? undefined : "decimal"}
        value={value}
        aria-label={blank.unit === "" ? blank.label : `${blank.label}, ${shown.unit}`}
        aria-invalid={wrong !== null}
        aria-describedby={wrong === null ? undefined : id}
        style={{ width: `${String(Math.max(LEAST_CH, value.length) + 1)}ch` }}
        onChange={(event) => type(event.target.value)}
        onBlur={() => setDraft(null)}
        onFocus={(event) => {
          if (blank.day !== true) event.target.select();
        }}
      />
      <span className="blank-unit"> {shown.unit}</span>
      {wrong === null ? null : (
        <span className="blank-wrong label" id={id} role="alert">
          {wrong}
        </span>
      )}
    </span>
  );
}
