import * as limits from "../../domain/limits";
import { Button } from "@mui/material";
import {
  clockEdge,
  clockText,
  type Edge,
  segmentsOf,
  SUN_EVENTS,
  type Windows,
} from "../../domain/patterns";
import type { Assignment, Camera, Pattern } from "../../domain/types";
import { ChoiceIn, NumberIn, TextIn } from "../../ui/fields";
import { IntervalFields } from "./IntervalFields";

type Put = (part: Partial<Assignment>) => void;
type Of<Kind extends Pattern["kind"]> = Extract<Pattern, { kind: Kind }>;

interface Props {
  pattern: Pattern;
  put: Put;
  /** The loops that the camera offers; none: any. */
  loops: Camera["loops"];
  /** How long the stretch lasts. */
  lastsS: number;
}

/** The figures of a pattern. */
export function PatternFields({ pattern, put, loops, lastsS }: Props) {
  const change = (next: Pattern) => put({ pattern: next });
  switch (pattern.kind) {
    case "roll":
      return null;
    case "takes":
      return <TakesFields takes={pattern} change={change} />;
    case "loop":
      return <LoopFields loop={pattern} loops={loops} change={change} />;
    case "windows":
      return <WindowsFields windows={pattern} change={change} />;
    case "interval":
      return <IntervalFields interval={pattern} lastsS={lastsS} change={change} />;
    case "armed":
      return <ArmedFields armed={pattern} change={change} />;
  }
}

interface CountedProps {
  what: string;
  count: number | null | undefined;
  perHour: number | null | undefined;
  put: (counted: { count: number | null; per_hour: number | null }) => void;
}

/** So many in all, or so many an hour. */
function Counted({ what, count, perHour, put }: CountedProps) {
  const byCount = count != null;
  return (
    <>
      <NumberIn
        label={byCount ? what : `${what} an hour`}
        unit={byCount ? "in all" : "1/h"}
        value={byCount ? count : perHour}
        min={byCount ? 1 : 0.1}
        max={byCount ? 2000 : 240}
        whole={byCount}
        onCommit={(number) =>
          put(byCount ? { count: number, per_hour: null } : { count: null, per_hour: number })
        }
      />
      <button
        type="button"
        className="plain link"
        onClick={() => put(byCount ? { count: null, per_hour: 6 } : { count: 10, per_hour: null })}
      >
        {byCount ? "count by the hour instead" : "count in all instead"}
      </button>
    </>
  );
}

function TakesFields({ takes, change }: { takes: Of<"takes">; change: (next: Pattern) => void }) {
  return (
    <div className="row">
      <NumberIn
        label="Each"
        unit="s"
        value={takes.seconds}
        {...limits.Takes.seconds}
        whole
        onCommit={(seconds) => change({ ...takes, seconds })}
      />
      <Counted
        what="Takes"
        count={takes.count}
        perHour={takes.per_hour}
        put={(counted) => change({ ...takes, ...counted })}
      />
    </div>
  );
}

interface LoopProps {
  loop: Of<"loop">;
  loops: Camera["loops"];
  change: (next: Pattern) => void;
}

/** A loop among those that the camera has, or any. */
function LoopLength({ loop, loops, change }: LoopProps) {
  const now = `${String(loop.length_s)}/${String(loop.segments)}`;
  const offered = loops.map((one) => {
    const segments = segmentsOf(one);
    const value = `${String(one.length_s)}/${String(segments)}`;
    return { value, name: `${String(one.length_s)} s in ${String(segments)}`, one, segments };
  });
  if (offered.length > 0)
    return (
      <ChoiceIn
        label="Loop"
        value={now}
        choices={
          offered.some(({ value }) => value === now)
            ? offered
            : [{ value: now, name: `${String(loop.length_s)} s, not offered` }, ...offered]
        }
        onCommit={(value) => {
          const chosen = offered.find((one) => one.value === value);
          if (chosen) change({ ...loop, length_s: chosen.one.length_s, segments: chosen.segments });
        }}
      />
    );
  return (
    <>
      <NumberIn
        label="Length"
        unit="s"
        value={loop.length_s}
        {...limits.Loop.length_s}
        whole
        onCommit={(length_s) => change({ ...loop, length_s })}
      />
      <NumberIn
        label="Segments"
        unit="in it"
        value={loop.segments}
        {...limits.Loop.segments}
        whole
        onCommit={(segments) => change({ ...loop, segments })}
      />
    </>
  );
}

function LoopFields({ loop, loops, change }: LoopProps) {
  const how = loop.saves != null ? "count" : loop.saves_per_hour != null ? "hour" : "moments";
  return (
    <div className="row">
      <LoopLength loop={loop} loops={loops} change={change} />
      <ChoiceIn
        label="Kept"
        value={how}
        choices={[
          { value: "moments", name: "at the leg's moments" },
          { value: "count", name: "so many times" },
          { value: "hour", name: "so many times an hour" },
        ]}
        onCommit={(value) =>
          change({
            ...loop,
            saves: value === "count" ? 3 : null,
            saves_per_hour: value === "hour" ? 2 : null,
          })
        }
      />
      {how === "moments" ? null : (
        <NumberIn
          label={how === "count" ? "Times" : "Times an hour"}
          unit={how === "count" ? "in all" : "1/h"}
          value={how === "count" ? loop.saves : loop.saves_per_hour}
          min={how === "count" ? 0 : 0.1}
          max={how === "count" ? 2000 : 240}
          whole={how === "count"}
          onCommit={(number) =>
            change(
              how === "count" ? { ...loop, saves: number } : { ...loop, saves_per_hour: number },
            )
          }
        />
      )}
    </div>
  );
}

function WindowsFields({ windows, change }: { windows: Windows; change: (next: Pattern) => void }) {
  const put = (place: number, part: Partial<Windows["windows"][number]>) =>
    change({
      ...windows,
      windows: windows.windows.map((one, n) => (n === place ? { ...one, ...part } : one)),
    });
  return (
    <div>
      {windows.windows.map((window, place) => (
        <div className="row" key={place} role="group" aria-label={`Window ${String(place + 1)}`}>
          <EdgeFields label="opens" edge={window.opens} put={(opens) => put(place, { opens })} />
          <EdgeFields
            label="closes"
            edge={window.closes}
            put={(closes) => put(place, { closes })}
          />
          {windows.windows.length > 1 ? (
            <button
              type="button"
              className="plain link"
              onClick={() =>
                change({ ...windows, windows: windows.windows.filter((_, n) => n !== place) })
              }
            >
              Delete window {place + 1}
            </button>
          ) : null}
        </div>
      ))}
      <Button
        size="small"
        disabled={windows.windows.length >= 12}
        onClick={() =>
          change({
            ...windows,
            windows: [
              ...windows.windows,
              {
                opens: { kind: "sun", event: "sunset", plus_min: -20 },
                closes: { kind: "sun", event: "sunset", plus_min: 20 },
              },
            ],
          })
        }
      >
        Add a window
      </Button>
    </div>
  );
}

function EdgeFields({
  label,
  edge,
  put,
}: {
  label: string;
  edge: Edge;
  put: (edge: Edge) => void;
}) {
  return (
    <>
      <ChoiceIn
        label={label}
        value={edge.kind === "sun" ? edge.event : "clock"}
        choices={[
          { value: "clock", name: "by the clock" },
          ...SUN_EVENTS.map((value) => ({ value, name: value })),
        ]}
        onCommit={(value) =>
          put(
            value === "clock"
              ? { kind: "clock", at: "07:00:00" }
              : { kind: "sun", event: value as (typeof SUN_EVENTS)[number], plus_min: 0 },
          )
        }
      />
      {edge.kind === "clock" ? (
        <TextIn
          label={`${label} at`}
          value={clockText(edge) ?? ""}
          check={(text) => (clockEdge(text) === null ? "Like 07:30." : null)}
          onCommit={(text) => {
            const next = clockEdge(text);
            if (next !== null) put(next);
          }}
        />
      ) : (
        <NumberIn
          label={`${label} after`}
          unit="min"
          value={edge.plus_min}
          {...limits.SunEdge.plus_min}
          whole
          onCommit={(plus_min) => put({ ...edge, plus_min })}
        />
      )}
    </>
  );
}

const TRIGGERS = {
  motion: "motion",
  speed: "speed",
  voice: "voice",
  press: "a press",
  power: "power appearing",
} as const;

function ArmedFields({ armed, change }: { armed: Of<"armed">; change: (next: Pattern) => void }) {
  return (
    <div className="row">
      <ChoiceIn
        label="Starts by"
        value={armed.trigger}
        choices={Object.entries(TRIGGERS).map(([value, name]) => ({
          value: value as keyof typeof TRIGGERS,
          name,
        }))}
        onCommit={(trigger) => change({ ...armed, trigger })}
      />
      <NumberIn
        label="Clip"
        unit="s"
        value={armed.seconds}
        {...limits.Armed.seconds}
        whole
        onCommit={(seconds) => change({ ...armed, seconds })}
      />
      <NumberIn
        label="Before it"
        unit="s"
        value={armed.pre_record_s}
        {...limits.Armed.pre_record_s}
        whole
        onCommit={(pre_record_s) => change({ ...armed, pre_record_s })}
      />
      <Counted
        what="Clips"
        count={armed.count}
        perHour={armed.per_hour}
        put={(counted) => change({ ...armed, ...counted })}
      />
    </div>
  );
}
