import { Slider } from "@mui/material";
import { type ReactNode, useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import { hangShelf } from "../../api/queries";
import { useBeside } from "../../api/useBeside";
import { usePumped } from "../../api/usePumped";
import type { Kit, Trip } from "../../domain/types";
import { speedText, temperatureText } from "../../domain/units";
import { Pick } from "../../ui/fields";
import { NotTaken } from "../../ui/NotTaken";
import { useWidth } from "../../ui/useWidth";
import type { Opened } from "./opened";
import { ShelfPicture } from "./ShelfPicture";

interface Props {
  kit: Kit;
  /** The kit as it is kept: what was measured is asked of that. */
  kept: { id: number; version: number };
  trip: Trip | null;
  onOpen: (opened: Opened) => void;
  /** What else stands above the shelf. */
  children: ReactNode;
}

const AIRS = [
  { value: "0", name: "still" },
  { value: "1.2", name: "walking" },
  { value: "5", name: speedText(5) },
  { value: "9", name: speedText(9) },
] as const;
const FIRST = "(first)";

interface Question {
  kit: Kit;
  trip: Trip | null;
  ambient_c: number;
  air_mps: number;
  set_up: string | null;
}

/** Which modes last the longest leg, and what ends them, in the air chosen here. */
export function ShelfView({ kit, kept, trip, onOpen, children }: Props) {
  const [ambient, setAmbient] = useState(20);
  const [air, setAir] = useState<(typeof AIRS)[number]["value"]>("0");
  const [setUp, setSetUp] = useState(FIRST);
  const question = useMemo<Question>(
    () => ({
      kit,
      trip,
      ambient_c: ambient,
      air_mps: Number(air),
      set_up: setUp === FIRST ? null : setUp,
    }),
    [kit, trip, ambient, air, setUp],
  );
  const { result: shelf, late, error } = usePumped(hangShelf, question);
  const beside = useBeside({ kit: kept.id, version: kept.version, there: question });
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 1200);
  const setUps = [
    ...new Map(kit.cameras.flatMap((camera) => camera.set_ups).map((one) => [one.id, one.name])),
  ];
  return (
    <section aria-label="Shelf">
      <div className="shelf-head">
        <h1 data-testid="shelf-headline">
          {shelf?.headline ?? (error === null ? "Hanging the shelf…" : "The shelf")}
        </h1>
        {children}
      </div>
      <p className="hint">
        Each cord hangs as long as its mode records; a click opens it. Hatched is assumed, solid is
        measured; a ring is what the box claims, an arrow what runs say that were not taken.
        {late && error === null ? " Working…" : ""}
      </p>
      {error ? <p role="alert">{error}</p> : null}
      <div className="shelf-controls label">
        <span className="shelf-control">
          air <Pick label="Air" value={air} choices={AIRS} onPick={setAir} />
        </span>
        <span className="shelf-control slider">
          <span id="shelf-temperature">temperature {temperatureText(ambient)}</span>
          <Slider
            size="small"
            value={ambient}
            min={-20}
            max={45}
            step={1}
            onChange={(_, value) => setAmbient(value as number)}
            aria-labelledby="shelf-temperature"
            getAriaValueText={(value) => `${String(value)} degrees`}
          />
        </span>
        {setUps.length > 1 ? (
          <span className="shelf-control">
            set-up{" "}
            <Pick
              label="Set-up"
              value={setUp}
              choices={[
                { value: FIRST, name: "each one’s first" },
                ...setUps.map(([value, name]) => ({ value, name })),
              ]}
              onPick={setSetUp}
            />
          </span>
        ) : null}
      </div>
      <NotTaken kit={kit} found={beside}>
        <Link to="../bench">Take it on the bench</Link>, or the kit goes on with its own.
      </NotTaken>
      <div ref={frame} className="shelf-frame">
        {shelf ? <ShelfPicture {...{ shelf, kit, width, onOpen, beside }} /> : null}
      </div>
    </section>
  );
}
