import * as limits from "../../domain/limits";
import { Button } from "@mui/material";
import { useMutation } from "@tanstack/react-query";
import { type AirAsked, airOf } from "../../api/queries";
import { airFromText } from "../../domain/routeEdits";
import type { AirTold, DailyRange, Item, Trip } from "../../domain/types";
import { Said } from "../../ui/Said";
import {
  degreesText,
  doubtText,
  percentText,
  speedText,
  temperatureText,
} from "../../domain/units";
import { FileIn } from "../../ui/FileIn";
import { NumberIn, PercentIn } from "../../ui/fields";
import { useDraftOf } from "../../ui/useDraft";

interface Props {
  trip: Trip;
  onAir: (told: AirTold[], source: string) => void;
}

const MADE_UP: AirAsked = { name: "made-up weather" };
const FIRST_DAYS: DailyRange = {
  low_c: 5,
  high_c: 18,
  height_m: null,
  doubt_k: 3,
  wind_mps: 2,
  wind_doubt_mps: 2,
  cloud: 0.3,
  cloud_doubt: 0.2,
};

/** Temperature, sky and airflow of all legs and stops from weather, seen before they are taken. */
export function AirIn({ trip, onAir }: Props) {
  const asking = useMutation({ mutationFn: (from: AirAsked) => airOf(trip, from) });
  const told = asking.data;
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
      <Days trip={trip} onAsk={(days) => asking.mutate({ name: daysName(days), days })} />
      {asking.error ? <Said kind="wrong">{asking.error.message}</Said> : null}
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
              onAir(told, asking.variables?.name ?? "");
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

function daysName({ low_c, high_c }: DailyRange): string {
  return `days of ${degreesText(low_c)} to ${temperatureText(high_c)}`;
}

/** The low and high of the days, and the curve between them by the sun. */
function Days({ trip, onAsk }: { trip: Trip; onAsk: (days: DailyRange) => void }) {
  const [days, change] = useDraftOf("days", FIRST_DAYS);
  const wrong = days.low_c > days.high_c;
  return (
    <details>
      <summary>From the days’ low and high</summary>
      <div className="row fields">
        <NumberIn
          label="Low"
          unit="°C"
          value={days.low_c}
          {...limits.DailyRange.low_c}
          onCommit={(low_c) => change({ low_c })}
          hint={wrong ? "Above the high." : undefined}
        />
        <NumberIn
          label="High"
          unit="°C"
          value={days.high_c}
          {...limits.DailyRange.high_c}
          onCommit={(high_c) => change({ high_c })}
        />
        <NumberIn
          label="Give or take"
          unit="K"
          value={days.doubt_k}
          {...limits.DailyRange.doubt_k}
          onCommit={(doubt_k) => change({ doubt_k })}
        />
        <NumberIn
          label="At a height of"
          unit="m"
          value={days.height_m}
          {...limits.DailyRange.height_m}
          assumed={`${String(Math.round(trip.place?.height_m ?? 0))}, the place’s`}
          onCommit={(height_m) => change({ height_m })}
          onClear={() => change({ height_m: null })}
        />
        <NumberIn
          label="Wind"
          unit="m/s"
          value={days.wind_mps}
          {...limits.DailyRange.wind_mps}
          onCommit={(wind_mps) => change({ wind_mps })}
        />
        <NumberIn
          label="Wind, give or take"
          unit="m/s"
          value={days.wind_doubt_mps}
          {...limits.DailyRange.wind_doubt_mps}
          onCommit={(wind_doubt_mps) => change({ wind_doubt_mps })}
        />
        <PercentIn label="Cloud" value={days.cloud} onCommit={(cloud) => change({ cloud })} />
        <PercentIn
          label="Cloud, give or take"
          value={days.cloud_doubt}
          onCommit={(cloud_doubt) => change({ cloud_doubt })}
        />
        <Button disabled={wrong} onClick={() => onAsk(days)}>
          Lay the curve of these days
        </Button>
      </div>
    </details>
  );
}

function airText(air: AirTold): string {
  const doubt = doubtText(air.temp_doubt_k);
  const gusts = air.air_doubt_mps > 0 ? ` ± ${speedText(air.air_doubt_mps)}` : "";
  const wind = air.air_mps == null ? "" : `, air ${speedText(air.air_mps)}${gusts}`;
  const sky = air.sky_doubt > 0 ? ` ± ${String(Math.round(air.sky_doubt * 100))}` : "";
  return `${degreesText(air.temp_start_c)} to ${temperatureText(air.temp_end_c)}${doubt}${wind}, light of a clear sky ${percentText(air.sky)}${sky}`;
}

function nowText(item: Item | undefined): string {
  if (item === undefined) return "gone";
  const typed = item.typed.includes("temp") ? "typed, and stays" : "typed";
  const from = airFromText(item) || typed;
  return `${degreesText(item.temp_start_c)} to ${temperatureText(item.temp_end_c)}, ${from}`;
}
