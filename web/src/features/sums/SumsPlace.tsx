import { useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { tellSum } from "../../api/sums";
import { usePumped } from "../../api/usePumped";
import { MeasuresToggle } from "../../app/MeasuresToggle";
import { ThemeToggle } from "../../app/ThemeToggle";
import { LAST_TRIP } from "../../app/TripContext";
import { useTitle } from "../../app/useTitle";
import { questionOf, type Sum, sumOf, type Typed, wantedOf } from "../../domain/sums";
import { Pick } from "../../ui/fields";
import { Sentence } from "./Sentence";
import { SumRope } from "./SumRope";
import { SumTiles } from "./SumTiles";
import "./sums.css";

/** One question, no trip: a sentence with blanks, its answer and arithmetic, live as one types. */
export function SumsPlace() {
  const [query, setQuery] = useSearchParams();
  const { sum, typed } = useMemo(() => sumOf(query), [query]);
  const put = (part: Typed) =>
    setQuery({ sum: sum.kind, ...without(typed, "sum"), ...part }, { replace: true });
  useTitle("Quick sums");
  const lastTrip = localStorage.getItem(LAST_TRIP);
  return (
    <>
      <header className="head-bar label">
        <Link to="/trips" className="brand" aria-label="Tumbrel: all trips and files">
          Tumbrel
        </Link>
        <span className="trip-name">Quick sums</span>
        <span className="head-tools">
          {lastTrip === null ? null : (
            <Link to={`/trip/${lastTrip}/board`} className="tool">
              Back to the trip
            </Link>
          )}
          <Link to="/trips" className="tool">
            Trips
          </Link>
          <MeasuresToggle />
          <ThemeToggle />
        </span>
      </header>
      <main className="page sums-page">
        <SumTiles kind={sum.kind} />
        <OneSum key={sum.kind} sum={sum} typed={typed} put={put} trip={lastTrip} />
      </main>
    </>
  );
}

function without(typed: Typed, name: string): Typed {
  return Object.fromEntries(Object.entries(typed).filter(([key]) => key !== name));
}

interface OneSumProps {
  sum: Sum;
  typed: Typed;
  put: (part: Typed) => void;
  trip: string | null;
}

function OneSum({ sum, typed, put, trip }: OneSumProps) {
  const question = useMemo(() => questionOf(sum, typed), [sum, typed]);
  const { result, late, error } = usePumped(tellSum, question);
  const old = late || question === null;
  return (
    <section className="one-sum" aria-label={sum.title}>
      <h1>{sum.title}</h1>
      {sum.wanted === undefined ? null : (
        <Pick
          label="Wanted"
          value={wantedOf(sum, typed)}
          choices={sum.wanted.choices}
          onPick={(wanted) => put({ wanted })}
        />
      )}
      <Sentence sum={sum} typed={typed} put={put} />
      {error === null ? null : <p role="alert">{error}</p>}
      {result === null ? null : (
        <div className={old ? "sum-answer old" : "sum-answer"}>
          <SumRope rope={result.rope} />
          <div>
            <p className="answer" role="status" aria-live="polite">
              {result.answer}
            </p>
            <h2>How it is reckoned</h2>
            <ol className="sum-lines label">
              {result.lines.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ol>
            <ul className="sum-assumed">
              {result.assumed.map((line) => (
                <li key={line}>{line}.</li>
              ))}
            </ul>
          </div>
        </div>
      )}
      <Share />
      {trip === null ? null : (
        <p>
          <Link to={`/trip/${trip}/${sum.place}`}>Use it on the trip: {PLACES[sum.place]}</Link>
        </p>
      )}
    </section>
  );
}

const PLACES = { kit: "the kit", board: "the board", route: "the route" } as const;

/** The address holds the question with all that is typed. */
function Share() {
  const [said, setSaid] = useState("");
  return (
    <p className="hint">
      The page’s address is this sum: send it, or keep it.{" "}
      <button
        type="button"
        className="plain link"
        onClick={() => {
          navigator.clipboard
            .writeText(window.location.href)
            .then(() => setSaid("Copied."))
            .catch(() => setSaid("The browser does not let it be copied; take it from its line."));
        }}
      >
        Copy the address
      </button>{" "}
      <span role="status">{said}</span>
    </p>
  );
}
