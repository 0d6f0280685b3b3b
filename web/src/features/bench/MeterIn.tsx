import { Button } from "@mui/material";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { readMeter } from "../../api/bench";
import type { BenchRun, MeterRead } from "../../domain/types";
import { minutesText, wattHoursText } from "../../domain/units";
import { FileIn } from "../../ui/FileIn";
import { Pick } from "../../ui/fields";

interface Props {
  /** Go on to type what the log does not tell. */
  onUse: (known: Known) => void;
}

type Known = Partial<BenchRun>;

const QUANTITIES: Record<MeterRead["columns"][number]["quantity"], string> = {
  time: "time",
  volts: "volts",
  amps: "amps",
  watts: "watts",
};
const UNITS: Record<string, string> = { v: "V", mv: "mV", a: "A", ma: "mA", w: "W", mw: "mW" };

/** A power meter's log: what its columns were taken for, the power it shows, and the run in it. */
export function MeterIn({ onUse }: Props) {
  const [name, setName] = useState("");
  const [sat, setSat] = useState<BenchRun["metered"]>("battery");
  const reading = useMutation({ mutationFn: readMeter });
  const log = reading.data;
  return (
    <div>
      <p className="hint">
        A log with a line of column names: time, volts and amps, or time and watts, in any common
        unit. Nothing is taken before you have seen it.
      </p>
      <FileIn
        label="Open a meter log"
        accept=".csv,.tsv,.txt,.log,text/csv,text/plain"
        onFile={(file) => {
          setName(file.name);
          void file.text().then((text) => reading.mutate(text));
        }}
      />
      {reading.error ? (
        <p role="alert">
          {name}: {reading.error.message}
        </p>
      ) : null}
      {log === undefined ? null : (
        <>
          <p>
            {name}, {log.lines} readings.{" "}
            {log.columns
              .map(
                (one) =>
                  `“${one.heading}” is ${QUANTITIES[one.quantity]} in ${UNITS[one.unit] ?? one.unit}`,
              )
              .join("; ")}
            .
          </p>
          <PowerPicture log={log} />
          <p>
            It recorded for {minutesText(log.minutes)}, at {log.mean_w.toFixed(2)} W on average:{" "}
            {wattHoursText(log.wh)}.
          </p>
          <div className="row start-row">
            <Pick
              label="Where the meter sat"
              value={sat}
              choices={[
                { value: "battery", name: "at the battery" },
                { value: "port", name: "at the port" },
              ]}
              onPick={setSat}
            />
            <Button
              variant="contained"
              onClick={() =>
                onUse({
                  minutes: Math.round(log.minutes * 10) / 10,
                  mean_w: Math.round(log.mean_w * 1000) / 1000,
                  metered: sat,
                  plugged: sat === "port",
                  end: sat === "port" ? "stopped" : "empty",
                })
              }
            >
              Use it in a run
            </Button>
          </div>
        </>
      )}
    </div>
  );
}

const WIDE = 560;
const HIGH = 120;
const LEFT = 44;

function PowerPicture({ log }: { log: MeterRead }) {
  const longest = Math.max(1e-6, log.t_min.at(-1) ?? 0);
  const most = Math.max(0.1, ...log.watts) * 1.1;
  const x = (minutes: number) => LEFT + (minutes / longest) * (WIDE - LEFT - 4);
  const y = (watts: number) => HIGH - 22 - (watts / most) * (HIGH - 30);
  const points = log.t_min.map(
    (minutes, place) => `${x(minutes).toFixed(1)} ${y(log.watts[place] ?? 0).toFixed(1)}`,
  );
  return (
    <svg
      viewBox={`0 0 ${String(WIDE)} ${String(HIGH)}`}
      className="label meter-picture"
      role="img"
      aria-label={`Power over ${minutesText(longest)}; recording from ${minutesText(log.from_min)} to ${minutesText(log.to_min)}`}
    >
      <rect
        x={x(log.from_min)}
        width={x(log.to_min) - x(log.from_min)}
        y={6}
        height={HIGH - 28}
        fill="var(--rope-ground)"
      />
      <path d={`M${points.join("L")}`} fill="none" stroke="var(--rope)" strokeWidth={2} />
      <text x={LEFT - 6} y={y(log.mean_w) + 4} fontSize={13} textAnchor="end" fill="var(--ink)">
        {log.mean_w.toFixed(1)} W
      </text>
      <text x={x(log.from_min)} y={HIGH - 6} fontSize={13} fill="var(--ink-2)">
        {minutesText(log.from_min)}
      </text>
      <text x={x(log.to_min)} y={HIGH - 6} fontSize={13} textAnchor="end" fill="var(--ink-2)">
        {minutesText(log.to_min)}
      </text>
    </svg>
  );
}
