import * as limits from "../../domain/limits";
import { useTellGone } from "../../app/gone";
import { typedOver } from "../../domain/routeEdits";
import { Button } from "@mui/material";
import { useContext } from "react";
import { TripContext } from "../../app/TripContext";
import { socketText } from "../../domain/sockets";
import { IMPORTANCES, type Item, type Leg, type Stop, type TripMoment } from "../../domain/types";
import { CheckIn, ChoiceIn, NameIn, NumberIn, PercentIn } from "../../ui/fields";

interface Props {
  item: Item;
  path: string;
  put: (next: Item) => void;
}

const FRESH: TripMoment = {
  name: "something worth having",
  count: 2,
  per_hour: null,
  seconds: 30,
  reaction_s: 5,
  importance: "want",
};

/** Moments worth having, light on a panel, speed and water, a socket at a stop. */
export function MoreFields({ item, path, put }: Props) {
  return (
    <details>
      <summary>
        Moments, power and water{item.moments.length > 0 ? ` (${String(item.moments.length)})` : ""}
      </summary>
      <div className="row fields">
        <PercentIn
          label="Clear sky on a panel"
          value={item.sky}
          onCommit={(sky) => put({ ...item, ...typedOver(item, "sky"), sky_doubt: 0, sky })}
        />
        {item.kind === "leg" ? (
          <LegMore leg={item} path={path} put={put} />
        ) : (
          <StopMore stop={item} put={put} />
        )}
      </div>
      <Moments item={item} path={path} put={put} />
    </details>
  );
}

function LegMore({ leg, path, put }: { leg: Leg; path: string; put: (next: Item) => void }) {
  return (
    <>
      <NumberIn
        label="Speed, for a dynamo"
        unit="m/s"
        value={leg.speed_mps}
        {...limits.Leg.speed_mps}
        onCommit={(speed_mps) => put({ ...leg, speed_mps })}
      />
      <ChoiceIn
        label="Water"
        path={`${path}.wet`}
        value={leg.wet}
        choices={[
          { value: "dry", name: "none" },
          { value: "splash", name: "splashes" },
          { value: "under", name: "under water" },
        ]}
        onCommit={(wet) => put({ ...leg, wet })}
      />
      {leg.wet === "under" ? (
        <NumberIn
          label="As deep as"
          unit="m"
          value={leg.depth_m}
          {...limits.Leg.depth_m}
          assumed="not said"
          onCommit={(depth_m) => put({ ...leg, depth_m })}
          onClear={() => put({ ...leg, depth_m: null })}
        />
      ) : null}
      <CheckIn
        label="Vehicle runs"
        value={leg.vehicle_runs}
        onCommit={(vehicle_runs) => put({ ...leg, vehicle_runs })}
      />
      <CheckIn
        label="Always one angle on"
        value={leg.one_angle_always}
        onCommit={(one_angle_always) => put({ ...leg, one_angle_always })}
      />
    </>
  );
}

function StopMore({ stop, put }: { stop: Stop; put: (next: Item) => void }) {
  const kit = useContext(TripContext)?.kit.state?.kit;
  const socket = stop.socket;
  return (
    <>
      <CheckIn
        label="Has a socket"
        value={socket != null}
        onCommit={(on) =>
          put({ ...stop, socket: on ? { watts: 20, start_s: 0, duration_s: null } : null })
        }
      />
      {socket == null ? null : (
        <>
          <NumberIn
            label="Socket gives"
            unit="W"
            value={socket.watts}
            {...limits.Socket.watts}
            onCommit={(watts) => put({ ...stop, socket: { ...socket, watts } })}
          />
          <NumberIn
            label="from"
            unit="min in"
            value={Math.round(socket.start_s / 60)}
            min={0}
            max={44_640}
            whole
            onCommit={(min) => put({ ...stop, socket: { ...socket, start_s: min * 60 } })}
          />
          <NumberIn
            label="for"
            unit="min"
            value={socket.duration_s == null ? null : Math.round(socket.duration_s / 60)}
            min={1}
            max={44_640}
            whole
            assumed="to the end"
            onCommit={(min) => put({ ...stop, socket: { ...socket, duration_s: min * 60 } })}
            onClear={() => put({ ...stop, socket: { ...socket, duration_s: null } })}
          />
          {kit === undefined ? null : (
            <p className="hint" role="status">
              {socketText(kit)}
            </p>
          )}
        </>
      )}
    </>
  );
}

function Moments({ item, path, put }: Props) {
  const tellGone = useTellGone();
  const change = (place: number, part: Partial<TripMoment>) =>
    put({
      ...item,
      moments: item.moments.map((one, n) => (n === place ? { ...one, ...part } : one)),
    });
  return (
    <>
      {item.moments.map((moment, place) => (
        <div
          className="row fields"
          key={place}
          role="group"
          aria-label={`Moment ${String(place + 1)}`}
        >
          <NameIn
            label="Moment"
            path={`${path}.moments[${String(place)}].name`}
            value={moment.name}
            onCommit={(name) => change(place, { name })}
          />
          <NumberIn
            label={moment.count == null ? "An hour" : "How many"}
            unit={moment.count == null ? "1/h" : "in all"}
            value={moment.count ?? moment.per_hour}
            min={moment.count == null ? 0.1 : 1}
            max={moment.count == null ? 240 : 2000}
            whole={moment.count != null}
            onCommit={(number) =>
              change(place, moment.count == null ? { per_hour: number } : { count: number })
            }
          />
          <NumberIn
            label="Lasts"
            unit="s"
            value={moment.seconds}
            {...limits.Moment.seconds}
            whole
            onCommit={(seconds) => change(place, { seconds })}
          />
          <NumberIn
            label="You react in"
            unit="s"
            value={moment.reaction_s}
            {...limits.Moment.reaction_s}
            whole
            onCommit={(reaction_s) => change(place, { reaction_s })}
          />
          <ChoiceIn
            label="Importance"
            value={moment.importance}
            choices={IMPORTANCES.map((value) => ({ value, name: value }))}
            onCommit={(importance) => change(place, { importance })}
          />
          <button
            type="button"
            className="plain link"
            onClick={() => {
              put({ ...item, moments: item.moments.filter((_, n) => n !== place) });
              tellGone(`Moment ${moment.name} of ${item.name}`);
            }}
          >
            Delete moment {moment.name}
          </button>
        </div>
      ))}
      <Button
        size="small"
        disabled={item.moments.length >= 20}
        onClick={() => put({ ...item, moments: [...item.moments, FRESH] })}
      >
        Add a moment
      </Button>
    </>
  );
}
