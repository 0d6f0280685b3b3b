import { Button } from "@mui/material";
import { type KeyboardEvent, useState } from "react";
import type { TripAsked } from "../../api/queries";
import { Field } from "../../ui/fields";
import { useDraft } from "../../ui/useDraft";

interface Props {
  kits: readonly { id: number; name: string }[];
  busy: boolean;
  /** Resolves to whether it was made. */
  onMake: (asked: TripAsked) => Promise<boolean>;
}

const NEW_KIT = "";
const START = /^\d{4}-\d\d-\d\dT\d\d:\d\d$/;

function tomorrow(): string {
  const day = new Date(Date.now() + 86_400_000);
  const two = (number: number) => String(number).padStart(2, "0");
  return `${String(day.getFullYear())}-${two(day.getMonth() + 1)}-${two(day.getDate())}T08:00`;
}

/** Enter in a blank goes on to the next one: only the button makes the trip. */
function goOn(event: KeyboardEvent<HTMLFormElement>) {
  if (event.key !== "Enter" || !(event.target instanceof HTMLInputElement)) return;
  event.preventDefault();
  const fields = [...event.currentTarget.elements];
  const next = fields[fields.indexOf(event.target) + 1];
  if (next instanceof HTMLElement) next.focus();
}

/** A new trip: a name, a start, and a kit that is there or an empty one. */
export function NewTrip({ kits, busy, onMake }: Props) {
  const [name, setName] = useDraft("trip-name");
  const [typedStart, setStart] = useDraft("trip-start");
  const [first] = useState(tomorrow);
  const start = typedStart === "" ? first : typedStart;
  const [kit, setKit] = useDraft("trip-kit", NEW_KIT);
  const [tried, setTried] = useState(false);
  const wrongName = tried && name.trim() === "";
  const wrongStart = tried && !START.test(start);
  return (
    <section>
      <h2>New trip</h2>
      <form
        className="row fields"
        noValidate
        onKeyDown={goOn}
        onSubmit={(event) => {
          event.preventDefault();
          setTried(true);
          if (name.trim() === "" || !START.test(start) || busy) return;
          void onMake({
            name: name.trim().slice(0, 60),
            start: `${start}:00`,
            kit_id: kit === NEW_KIT ? null : Number(kit),
          }).then((made) => {
            if (made) for (const put of [setName, setStart, setKit]) put("");
          });
        }}
      >
        <Field
          label="It is called"
          hint={wrongName ? "Give it a name." : undefined}
          wrong={wrongName}
        >
          <input
            aria-label="Name of the trip"
            // the first thing to do where there is no trip yet
            autoFocus={kits.length === 0}
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </Field>
        <Field
          label="It starts"
          hint={wrongStart ? "Like 2027-06-12 08:00." : undefined}
          wrong={wrongStart}
        >
          <input
            aria-label="Start, local clock"
            value={start.replace("T", " ")}
            onChange={(event) => setStart(event.target.value.trim().replace(" ", "T"))}
          />
        </Field>
        <Field label="with">
          <select aria-label="Kit" value={kit} onChange={(event) => setKit(event.target.value)}>
            <option value={NEW_KIT}>an empty kit, to type in</option>
            {kits.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </Field>
        <Button type="submit" variant="contained" disabled={busy}>
          Make the trip
        </Button>
      </form>
    </section>
  );
}
