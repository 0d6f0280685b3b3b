import * as limits from "../../domain/limits";
import { Button } from "@mui/material";
import type { ComponentProps } from "react";
import {
  ACTIVITIES,
  asKind,
  fromLocalField,
  HANDS,
  localField,
  typedOver,
  withActivity,
  withDuration,
} from "../../domain/routeEdits";
import type { Item, Leg, Stop } from "../../domain/types";
import { durationText, parseDuration } from "../../domain/units";
import type { Corrections } from "../../app/useCorrections";
import { WayFields } from "./WayFields";
import { MoreFields } from "./MoreFields";
import { CheckIn, ChoiceIn, NameIn, NumberIn, PercentIn, TextIn } from "../../ui/fields";

interface Props {
  item: Item;
  path: string;
  first: boolean;
  last: boolean;
  only: boolean;
  /** What of the plan is planned here, in words. */
  planned: string;
  put: (next: Item) => void;
  /** What corrects a leg on its way. */
  way: Omit<ComponentProps<typeof WayFields>, "leg">;
  onMove: (by: -1 | 1) => void;
  onInsert: (kind: Item["kind"]) => void;
  onDelete: () => void;
}

/** Everything of one leg or stop, typed. */
export function RowFields({
  item,
  path,
  first,
  last,
  only,
  planned,
  put,
  way,
  onMove,
  onInsert,
  onDelete,
}: Props) {
  return (
    <>
      <div className="row fields">
        <NameIn
          label="Name"
          path={`${path}.name`}
          value={item.name}
          onCommit={(name) => put({ ...item, name })}
        />
        <ChoiceIn
          label="Kind"
          value={item.kind}
          choices={[
            { value: "leg", name: "leg" },
            { value: "stop", name: "stop" },
          ]}
          onCommit={(kind) => put(asKind(item, kind))}
        />
        <Duration item={item} path={path} put={put} />
        <TextIn
          label="Not before (local)"
          value={item.not_before == null ? "" : localField(item.not_before).replace("T", " ")}
          placeholder="2027-06-12 16:00"
          check={(text) =>
            text.trim() === "" || fromLocalField(text.trim().replace(" ", "T"))
              ? null
              : "Like 2027-06-12 16:00, or empty."
          }
          onCommit={(text) =>
            put({ ...item, not_before: fromLocalField(text.trim().replace(" ", "T")) })
          }
        />
        <NumberIn
          label="Air from"
          unit="°C"
          value={item.temp_start_c}
          {...limits.Leg.temp_start_c}
          onCommit={(temp_start_c) =>
            put({ ...item, ...typedOver(item, "temp"), temp_doubt_k: 0, temp_start_c })
          }
        />
        <NumberIn
          label="to"
          unit="°C"
          value={item.temp_end_c}
          {...limits.Leg.temp_end_c}
          onCommit={(temp_end_c) =>
            put({ ...item, ...typedOver(item, "temp"), temp_doubt_k: 0, temp_end_c })
          }
        />
        <PercentIn
          label="Sun on kit"
          value={item.sun_share}
          onCommit={(sun_share) => put({ ...item, sun_share })}
        />
        {item.sun_share > 0 ? (
          <CheckIn
            label="Snow around"
            value={item.snow}
            onCommit={(snow) => put({ ...item, snow })}
          />
        ) : null}
        {item.kind === "leg" ? (
          <LegFields leg={item} path={path} put={put} correct={way.corrections.correct} />
        ) : (
          <StopFields stop={item} put={put} />
        )}
        <CheckIn
          label="Gloves on"
          value={item.gloves}
          onCommit={(gloves) => put({ ...item, gloves })}
        />
        {item.typed.length === 0 ? null : (
          <button type="button" className="plain link" onClick={() => put({ ...item, typed: [] })}>
            Let weather change the typed air of {item.name}
          </button>
        )}
      </div>
      <MoreFields item={item} path={path} put={put} />
      {item.kind === "leg" && item.on_way != null ? (
        <WayFields key={item.id} {...way} leg={item} />
      ) : null}
      <div className="row row-tools">
        <Button size="small" onClick={() => onInsert("leg")}>
          Leg after
        </Button>
        <Button size="small" onClick={() => onInsert("stop")}>
          Stop after
        </Button>
        <Button size="small" disabled={first} onClick={() => onMove(-1)}>
          Earlier
        </Button>
        <Button size="small" disabled={last} onClick={() => onMove(1)}>
          Later
        </Button>
        <Button size="small" color="error" disabled={only} onClick={onDelete}>
          Delete {item.name}
        </Button>
        {planned === "" ? null : (
          <span className="hint">Planned here, and deleted with it: {planned}.</span>
        )}
      </div>
    </>
  );
}

function Duration({ item, path, put }: Pick<Props, "item" | "path" | "put">) {
  return (
    <TextIn
      label="Lasts, h:min"
      path={`${path}.duration_s`}
      value={durationText(item.duration_s)}
      check={(text) => ((parseDuration(text) ?? 0) > 0 ? null : "Like 1:35, 95 or 1 h 35.")}
      onCommit={(text) => put(withDuration(item, parseDuration(text) ?? item.duration_s))}
    />
  );
}

interface LegProps {
  leg: Leg;
  path: string;
  put: (next: Item) => void;
  correct: Corrections["correct"];
}

function LegFields({ leg, path, put, correct }: LegProps) {
  return (
    <>
      <ChoiceIn
        label="Activity"
        value={leg.activity}
        choices={Object.entries(ACTIVITIES).map(([value, name]) => ({
          value: value as Leg["activity"],
          name,
        }))}
        onCommit={(activity) =>
          leg.on_way == null
            ? put(withActivity(leg, activity))
            : correct({ kind: "activity", item: leg.id, activity })
        }
      />
      <ChoiceIn
        label="Hands"
        path={`${path}.hands`}
        value={leg.hands}
        choices={Object.entries(HANDS).map(([value, name]) => ({
          value: value as Leg["hands"],
          name,
        }))}
        onCommit={(hands) => put({ ...leg, hands })}
      />
      <NumberIn
        label="Airflow"
        unit="m/s"
        value={leg.air_mps}
        {...limits.Leg.air_mps}
        onCommit={(air_mps) =>
          put({ ...leg, ...typedOver(leg, "wind"), air_doubt_mps: 0, air_mps })
        }
      />
      <NumberIn
        label="Height from"
        unit="m"
        value={leg.height_start_m}
        {...limits.Leg.height_start_m}
        onCommit={(height_start_m) => put({ ...leg, height_start_m })}
        onClear={() => put({ ...leg, height_start_m: null })}
      />
      <NumberIn
        label="to"
        unit="m"
        value={leg.height_end_m}
        {...limits.Leg.height_end_m}
        onCommit={(height_end_m) => put({ ...leg, height_end_m })}
        onClear={() => put({ ...leg, height_end_m: null })}
      />
    </>
  );
}

function StopFields({ stop, put }: { stop: Stop; put: (next: Item) => void }) {
  const asleep = stop.asleep;
  const most = stop.duration_s / 60;
  return (
    <>
      <NumberIn
        label="Height"
        unit="m"
        value={stop.height_m}
        {...limits.Stop.height_m}
        onCommit={(height_m) => put({ ...stop, height_m })}
        onClear={() => put({ ...stop, height_m: null })}
      />
      <CheckIn
        label="Asleep for a while"
        value={asleep != null}
        onCommit={(on) =>
          put({
            ...stop,
            asleep: on
              ? {
                  start_s: Math.floor(stop.duration_s / 4),
                  duration_s: Math.max(1, Math.floor(stop.duration_s / 2)),
                }
              : null,
          })
        }
      />
      {asleep == null ? null : (
        <>
          <NumberIn
            label="Asleep after"
            unit="min"
            value={Math.round(asleep.start_s / 60)}
            min={0}
            max={Math.floor(most - asleep.duration_s / 60)}
            whole
            onCommit={(after) => put({ ...stop, asleep: { ...asleep, start_s: after * 60 } })}
          />
          <NumberIn
            label="for"
            unit="min"
            value={Math.round(asleep.duration_s / 60)}
            min={1}
            max={Math.floor(most - asleep.start_s / 60)}
            whole
            onCommit={(length) => put({ ...stop, asleep: { ...asleep, duration_s: length * 60 } })}
          />
        </>
      )}
    </>
  );
}
