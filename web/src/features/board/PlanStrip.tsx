import * as assume from "../../domain/assumed";
import * as limits from "../../domain/limits";
import { Button } from "@mui/material";
import { useMemo, useState } from "react";
import { type DayWindow, dayWindows } from "../../domain/clock";
import { itemsOfDay, withDayCopied } from "../../domain/dayEdits";
import { fillable, freshFullBy, type FullBy } from "../../domain/planEdits";
import { fromLocalField, localField } from "../../domain/routeEdits";
import type { EditingComputer, Plan } from "../../domain/types";
import { STRIP_PX } from "../../scale/lanes";
import { CheckIn, ChoiceIn, NumberIn, Pick, TextIn } from "../../ui/fields";
import { CODECS } from "../../domain/types";
import { GearUsed, PlugsSaid } from "./PowerSaid";
import { Strip } from "./Strip";
import type { StripProps } from "./StretchStrip";
import { countText } from "../../domain/units";

const MOST_WISHES = 60;

/** What holds for the whole trip: charging, the film's rate, carriage by air, what must be full when. */
export function PlanStrip({ document, rehearsal, clock, kept, lanes, onClose }: StripProps) {
  const plan = kept.state?.plan ?? document.plan;
  const put = (part: Partial<Plan>) =>
    kept.edit((doc) => ({ ...doc, plan: { ...doc.plan, ...part } }));
  return (
    <Strip
      title="For the whole trip"
      left={Math.max(0, lanes.width - STRIP_PX)}
      top={0}
      phone={lanes.phone}
      onClose={onClose}
    >
      <div className="strip-fields">
        <Pick
          label="When batteries and cards are swapped"
          value={plan.swap_policy ?? "early"}
          choices={[
            { value: "early", name: "swap early, at a stop" },
            { value: "run_flat", name: "swap when flat" },
          ]}
          onPick={(swap_policy) => put({ swap_policy })}
        />
        <CheckIn
          label="Free hands plug in what is low"
          path="plan.charging"
          value={plan.charging === "auto"}
          onCommit={(on) => put({ charging: on ? "auto" : "never" })}
        />
        <NumberIn
          label="The film’s rate"
          path="plan.delivery_fps"
          unit="frames a second"
          value={plan.delivery_fps}
          {...limits.Plan.delivery_fps}
          onCommit={(delivery_fps) => put({ delivery_fps })}
          wide
          hint="A mode of twice as many can be slowed to half."
        />
        <Editing plan={plan} put={put} />
        <CheckIn
          label="The kit is carried on an aircraft"
          path="plan.by_air"
          value={plan.by_air}
          onCommit={(by_air) => put({ by_air })}
        />
        <AtHome plan={plan} put={put} />
        <PlugsSaid document={document} plan={plan} put={put} />
        <GearUsed document={document} plan={plan} put={put} />
        <Wishes document={document} plan={plan} put={put} />
        <CopyDay document={document} rehearsal={rehearsal} clock={clock} kept={kept} />
      </div>
    </Strip>
  );
}

const FIRST_COMPUTER: EditingComputer = {
  width_px: 3840,
  height_px: 2160,
  fps: 60,
  mbps: 150,
  codecs: [],
};

/** What the computer at home plays; more than that becomes a finding. */
function Editing({ plan, put }: { plan: Plan; put: (part: Partial<Plan>) => void }) {
  const computer = plan.editing;
  const change = (part: Partial<EditingComputer>) =>
    put({ editing: { ...(computer ?? FIRST_COMPUTER), ...part } });
  return (
    <>
      <CheckIn
        label="My computer plays only so much"
        path="plan.editing"
        value={computer != null}
        onCommit={(on) => put({ editing: on ? FIRST_COMPUTER : null })}
      />
      {computer == null ? null : (
        <div className="row fields">
          <NumberIn
            label="Width"
            unit="px"
            value={computer.width_px}
            {...limits.EditingComputer.width_px}
            whole
            onCommit={(width_px) => change({ width_px })}
          />
          <NumberIn
            label="Height"
            unit="px"
            value={computer.height_px}
            {...limits.EditingComputer.height_px}
            whole
            onCommit={(height_px) => change({ height_px })}
          />
          <NumberIn
            label="Rate"
            unit="1/s"
            value={computer.fps}
            {...limits.EditingComputer.fps}
            onCommit={(fps) => change({ fps })}
          />
          <NumberIn
            label="Bitrate"
            unit="Mbit/s"
            value={computer.mbps}
            {...limits.EditingComputer.mbps}
            assumed="any"
            onCommit={(mbps) => change({ mbps })}
            onClear={() => change({ mbps: null })}
          />
          {CODECS.map((codec) => (
            <CheckIn
              key={codec}
              label={`plays ${codec.toUpperCase()}`}
              value={computer.codecs.length === 0 || computer.codecs.includes(codec)}
              onCommit={(on) => {
                const now = computer.codecs.length === 0 ? CODECS : computer.codecs;
                const next = CODECS.filter((one) => (one === codec ? on : now.includes(one)));
                change({ codecs: next.length === CODECS.length ? [] : next });
              }}
            />
          ))}
        </div>
      )}
    </>
  );
}

const AT_HOME: NonNullable<Plan["home"]> = {
  hours_per_hour: null,
  clip_min: 0,
  camera_min: 0,
  lead_s: 0,
  tail_s: 0,
  marks: false,
};

/** The person's own work at home, that hours of footage are told by. */
function AtHome({ plan, put }: { plan: Plan; put: (part: Partial<Plan>) => void }) {
  const home = plan.home;
  const change = (part: Partial<typeof AT_HOME>) =>
    put({ home: { ...(home ?? AT_HOME), ...part } });
  return (
    <>
      <CheckIn
        label="I know my work at home"
        path="plan.home"
        value={home != null}
        onCommit={(on) => put({ home: on ? AT_HOME : null })}
      />
      {home == null ? null : (
        <div className="row fields">
          <NumberIn
            label="Hours for an hour"
            unit="h"
            value={home.hours_per_hour}
            {...limits.HomeWork.hours_per_hour}
            assumed={String(assume.looking_through)}
            onCommit={(hours_per_hour) => change({ hours_per_hour })}
            onClear={() => change({ hours_per_hour: null })}
          />
          <NumberIn
            label="A clip"
            unit="min"
            value={home.clip_min}
            {...limits.HomeWork.clip_min}
            onCommit={(clip_min) => change({ clip_min })}
          />
          <NumberIn
            label="A camera"
            unit="min"
            value={home.camera_min}
            {...limits.HomeWork.camera_min}
            onCommit={(camera_min) => change({ camera_min })}
          />
          <NumberIn
            label="Left before a shot"
            unit="s"
            value={home.lead_s}
            {...limits.HomeWork.lead_s}
            onCommit={(lead_s) => change({ lead_s })}
          />
          <NumberIn
            label="Left after it"
            unit="s"
            value={home.tail_s}
            {...limits.HomeWork.tail_s}
            onCommit={(tail_s) => change({ tail_s })}
          />
          <CheckIn
            label="I mark moments while filming"
            value={home.marks}
            onCommit={(marks) => change({ marks })}
          />
        </div>
      )}
    </>
  );
}

/** Batteries and banks that must be full at a time; they are plugged in before others. */
function Wishes({
  document,
  plan,
  put,
}: Pick<StripProps, "document"> & { plan: Plan; put: (part: Partial<Plan>) => void }) {
  const { kit, trip } = document;
  const units = fillable(kit);
  const taken = new Set(plan.full_by.map((one) => one.unit));
  const fresh = freshFullBy(kit, plan, trip);
  const change = (place: number, part: Partial<FullBy>) =>
    put({ full_by: plan.full_by.map((one, n) => (n === place ? { ...one, ...part } : one)) });
  return (
    <section aria-label="Must be full by">
      <h3>Must be full by</h3>
      {plan.full_by.map((wish, place) => (
        <div className="wish" key={place} role="group" aria-label={`Full by ${String(place + 1)}`}>
          <ChoiceIn
            label="Unit"
            path={`plan.full_by[${String(place)}].unit`}
            value={wish.unit}
            choices={units
              .filter((one) => one.id === wish.unit || !taken.has(one.id))
              .map((one) => ({ value: one.id, name: one.name }))}
            onCommit={(unit) => change(place, { unit })}
            wide
          />
          <TextIn
            label="Local clock"
            path={`plan.full_by[${String(place)}]`}
            value={localField(wish.at).replace("T", " ")}
            check={(text) => (clockOf(text) ? null : "Like 2027-06-13 06:00.")}
            onCommit={(text) => {
              const at = clockOf(text);
              if (at) change(place, { at });
            }}
          />
          <button
            type="button"
            className="plain link"
            onClick={() => put({ full_by: plan.full_by.filter((_, n) => n !== place) })}
          >
            Delete
          </button>
        </div>
      ))}
      <Button
        size="small"
        disabled={fresh === null || plan.full_by.length >= MOST_WISHES}
        onClick={() => {
          if (fresh) put({ full_by: [...plan.full_by, fresh] });
        }}
      >
        Add one
      </Button>
    </section>
  );
}

function clockOf(text: string): string | null {
  return fromLocalField(text.trim().replace(" ", "T"));
}

/** What is asked on one day, asked on another too. */
function CopyDay({
  document,
  rehearsal,
  clock,
  kept,
}: Pick<StripProps, "document" | "rehearsal" | "clock" | "kept">) {
  const days = useMemo(
    () => dayWindows(document.trip, rehearsal, clock),
    [document.trip, rehearsal, clock],
  );
  const [from, setFrom] = useState("1");
  const [to, setTo] = useState("2");
  const [said, setSaid] = useState("");
  const [source, target] = [from, to].map((one) => days[Number(one) - 1]);
  if (days.length < 2) return null;
  const choices = days.map(({ number, startMs }) => ({
    value: String(number),
    name: `${String(number)}, ${clock.date(startMs)}`,
  }));
  const copy = () => {
    if (source === undefined || target === undefined) return;
    const items = (day: DayWindow) => itemsOfDay(document.trip, rehearsal, day);
    const made = withDayCopied(document.plan, items(source), items(target));
    kept.edit((doc) => ({
      ...doc,
      plan: withDayCopied(doc.plan, items(source), items(target)).plan,
    }));
    const none = made.left.length === 0 ? "" : ` No like of ${made.left.join(", ")} there.`;
    setSaid(
      `${countText(made.copied, "stretch", "stretches")} copied to day ${to}.${none} Undo takes it back.`,
    );
  };
  return (
    <fieldset className="together">
      <legend>Copy a day’s work</legend>
      <div className="row fields">
        <ChoiceIn label="From day" value={from} choices={choices} onCommit={setFrom} />
        <ChoiceIn label="To day" value={to} choices={choices} onCommit={setTo} />
      </div>
      <p className="hint">
        Climb for climb, flight for flight, stop for stop. What was asked on day {to} goes.
      </p>
      <Button size="small" disabled={from === to} onClick={copy}>
        Copy day {from} to day {to}
      </Button>
      <p role="status">{said}</p>
    </fieldset>
  );
}
