import { Alert, Button } from "@mui/material";
import { useMutation } from "@tanstack/react-query";
import { airOf } from "../../api/queries";
import type { AirTold, Item, Trip } from "../../domain/types";
import { degreesText, percentText } from "../../domain/units";
import { FileIn } from "../../ui/FileIn";

interface Props {
  trip: Trip;
  onAir: (told: AirTold[], source: string) => void;
}

interface Source {
  name: string;
  text: string | null;
}

const MADE_UP: Source = { name: "made-up weather", text: null };

/** Temperature, sky and airflow of all legs and stops from weather, seen before they are taken. */
export function AirIn({ trip, onAir }: Props) {
  const asking = useMutation({
    mutationFn: ({ name, text }: Source) => airOf(trip, text === null ? null : { name, text }),
  });
  const told = asking.data;
  const source = asking.variables?.name ?? "";
  return (
    <section aria-label="Air from weather" className="track-in">
      <h2>Air from weather</h2>
      <p className="hint">
        Hours of weather at the trip’s place give each leg and stop its temperature by time and
        height, its sky and, where its speed is known, its airflow. The service that ships here is
        made up: plausible by season and place, no forecast. A CSV of hours (time, temp_c, wind_mps,
        cloud, doubt_k) is taken as it is. Whatever is typed over it stays.
      </p>
      <div className="row start-row">
        <Button onClick={() => asking.mutate(MADE_UP)} disabled={asking.isPending}>
          Ask the made-up weather
        </Button>
        <FileIn
          label="Open hourly weather"
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          onFile={(file) =>
            void file.text().then((text) => asking.mutate({ name: file.name, text }))
          }
        />
      </div>
      {asking.error ? (
        <Alert severity="error" role="alert">
          {asking.error.message}
        </Alert>
      ) : null}
      {told === undefined ? null : (
        <>
          <ul className="plain-list">
            {told.map((one) => (
              <li key={one.item}>
                <strong>{one.name}</strong>: {airText(one)}
                <span className="hint">
                  {" "}
                  now {nowText(trip.items.find((item) => item.id === one.item))}
                </span>
              </li>
            ))}
          </ul>
          <Button
            variant="contained"
            onClick={() => {
              onAir(told, source);
              asking.reset();
            }}
          >
            Take this air
          </Button>
        </>
      )}
    </section>
  );
}

function airText(air: AirTold): string {
  const doubt = air.temp_doubt_k > 0 ? ` ± ${String(Math.round(air.temp_doubt_k))}` : "";
  const wind = air.air_mps == null ? "" : `, air ${String(air.air_mps)} m/s`;
  return `${degreesText(air.temp_start_c)} to ${degreesText(air.temp_end_c)}C${doubt}${wind}, light of a clear sky ${percentText(air.sky)}`;
}

function nowText(item: Item | undefined): string {
  if (item === undefined) return "gone";
  const from = item.air_from === "" ? "typed" : `by ${item.air_from}`;
  return `${degreesText(item.temp_start_c)} to ${degreesText(item.temp_end_c)}C, ${from}`;
}
