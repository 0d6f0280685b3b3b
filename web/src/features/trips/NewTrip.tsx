import { Button, TextField } from "@mui/material";
import { useState } from "react";
import type { TripAsked } from "../../api/queries";
import { useDraft } from "../../ui/useDraft";

interface Props {
  kits: readonly { id: number; name: string }[];
  busy: boolean;
  /** Resolves to whether it was made. */
  onMake: (asked: TripAsked) => Promise<boolean>;
}

const NEW_KIT = "";

function tomorrow(): string {
  const day = new Date(Date.now() + 86_400_000);
  const two = (number: number) => String(number).padStart(2, "0");
  return `${String(day.getFullYear())}-${two(day.getMonth() + 1)}-${two(day.getDate())}T08:00`;
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
  const wrongStart = tried && !/^\d{4}-\d\d-\d\dT\d\d:\d\d/.test(start);
  return (
    <section>
      <h2>New trip</h2>
      <form
        className="row fields"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          setTried(true);
          if (name.trim() === "" || start === "" || busy) return;
          void onMake({
            name: name.trim().slice(0, 60),
            start: start.length === 16 ? `${start}:00` : start,
            kit_id: kit === NEW_KIT ? null : Number(kit),
          }).then((made) => {
            if (made) for (const put of [setName, setStart, setKit]) put("");
          });
        }}
      >
        <TextField
          label="Name of the trip"
          value={name}
          onChange={(event) => setName(event.target.value)}
          error={wrongName}
          helperText={wrongName ? "Give it a name." : undefined}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <TextField
          label="Start, local clock"
          type="datetime-local"
          value={start}
          onChange={(event) => setStart(event.target.value)}
          error={wrongStart}
          helperText={wrongStart ? "Give a date and a time." : undefined}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <TextField
          select
          label="Kit"
          value={kit}
          onChange={(event) => setKit(event.target.value)}
          slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
        >
          <option value={NEW_KIT}>an empty one, to type in</option>
          {kits.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </TextField>
        <Button type="submit" variant="contained" disabled={busy}>
          Make the trip
        </Button>
      </form>
    </section>
  );
}
