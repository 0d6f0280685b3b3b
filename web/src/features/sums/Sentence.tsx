import { type Blank, type Sum, textOf, type Typed, wantedOf, wrongIn } from "../../domain/sums";

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
  return (
    <span className="blank">
      <input
        type={blank.day === true ? "date" : "text"}
        inputMode={blank.day === true ? undefined : "decimal"}
        value={text}
        aria-label={blank.unit === "" ? blank.label : `${blank.label}, ${blank.unit}`}
        aria-invalid={wrong !== null}
        aria-describedby={wrong === null ? undefined : id}
        style={{ width: `${String(Math.max(LEAST_CH, text.length) + 1)}ch` }}
        onChange={(event) => onText(event.target.value)}
        onFocus={(event) => {
          if (blank.day !== true) event.target.select();
        }}
      />
      <span className="blank-unit"> {blank.unit}</span>
      {wrong === null ? null : (
        <span className="blank-wrong label" id={id} role="alert">
          {wrong}
        </span>
      )}
    </span>
  );
}
