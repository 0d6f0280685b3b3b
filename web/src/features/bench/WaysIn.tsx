import {
  changedRun,
  localTime,
  nextId,
  NOTHING_SPECIAL,
  withoutRun,
  withTest,
} from "../../domain/bench";
import type { BenchRun, BenchTold, Camera, Kit, Notebook, OnBench } from "../../domain/types";
import { Pick } from "../../ui/fields";
import { ClipsIn } from "./ClipsIn";
import { MeterIn } from "./MeterIn";
import { RunEditor } from "./RunEditor";
import { StartTest } from "./StartTest";
import { TableIn } from "./TableIn";
import { TypeRun } from "./TypeRun";
import type { Known, Way, Ways } from "./useWays";

const WAYS: readonly { value: Way; name: string }[] = [
  { value: "start", name: "Start a test" },
  { value: "type", name: "Type a run" },
  { value: "table", name: "Paste or open a table" },
  { value: "meter", name: "Meter log" },
  { value: "clips", name: "Clips of a card" },
];

interface Props {
  kitId: number;
  kit: Kit;
  notebook: Notebook;
  on: OnBench;
  told: BenchTold | null;
  run: BenchRun | null;
  ways: Ways;
  edit: (change: (old: Notebook) => Notebook) => void;
  editKit: (change: (old: Kit) => Kit) => void;
  settled: () => Promise<void>;
  closeRun: () => void;
  keep: (runs: BenchRun[]) => void;
}

/** The chosen run, or a way to bring in another. */
export function WaysIn(props: Props) {
  const { on, told, run, ways, edit, closeRun } = props;
  return (
    <section aria-label="Bring in a run" className="ways">
      {run === null ? null : (
        <RunEditor
          key={run.id}
          camera={on.camera}
          run={run}
          told={told?.runs.find((one) => one.run === run.id)}
          onChange={(change) => edit((old) => changedRun(old, run.id, change))}
          onDelete={() => {
            edit((old) => withoutRun(old, run.id));
            closeRun();
          }}
          onClose={closeRun}
        />
      )}
      <Pick
        label="Ways to bring in a run"
        value={ways.way}
        choices={WAYS}
        onPick={(way) => ways.open(way === ways.way ? null : way)}
      />
      <OpenWay key={ways.turn} {...props} />
    </section>
  );
}

function OpenWay({ kitId, kit, notebook, on, ways, edit, editKit, settled, keep }: Props) {
  const { camera } = on;
  const first = firstRun(notebook, camera, ways.known);
  const use = (known: Known) => ways.open("type", known);
  const keepThese = (runs: BenchRun[]) => {
    keep(runs);
    ways.open(null);
  };
  switch (ways.way) {
    case null:
      return null;
    case "start":
      return (
        <StartTest
          camera={camera}
          first={first}
          busy={notebook.running.some((one) => one.camera === camera.id)}
          onStart={(test) => {
            edit((old) =>
              withTest(old, { ...test, id: nextId(old, camera.id), camera: camera.id }),
            );
            ways.open(null);
            window.scrollTo({ top: 0 });
          }}
        />
      );
    case "type":
      return <TypeRun camera={camera} first={first} onKeep={(run) => keepThese([run])} />;
    case "table":
      return (
        <TableIn
          kitId={kitId}
          camera={camera}
          cameras={kit.cameras}
          settled={settled}
          onKeep={keepThese}
        />
      );
    case "meter":
      return <MeterIn onUse={use} />;
    case "clips":
      return (
        <ClipsIn
          camera={camera}
          onUse={use}
          onRate={(mode, mbps) => editKit((old) => withRate(old, camera.id, mode, mbps))}
        />
      );
  }
}

/** A run to begin from: the last one's room and firmware, then what is known. */
function firstRun(notebook: Notebook, camera: Camera, known: Known): BenchRun {
  const last = notebook.runs.filter((run) => run.camera === camera.id).at(-1);
  const plain: BenchRun = {
    id: nextId(notebook, camera.id),
    camera: camera.id,
    set_up: camera.set_ups[0]?.id ?? "",
    mode: camera.modes[0]?.id ?? "",
    features: [],
    ambient_c: last?.ambient_c ?? 20,
    air_mps: 0,
    plugged: false,
    charge_start: 1,
    charge_end: null,
    minutes: 60,
    end: "empty",
    warned_min: null,
    charge_paused_min: 0,
    ...NOTHING_SPECIAL,
    mean_w: null,
    metered: "battery",
    bytes: null,
    at: localTime(Date.now()),
    firmware: last?.firmware ?? "",
    excluded: null,
  };
  return "doubt_before" in known
    ? {
        ...plain,
        mode: known.mode,
        set_up: known.set_up,
        features: known.features,
        ambient_c: known.ambient_c,
        air_mps: known.air_mps,
        plugged: known.plugged,
        charge_start: known.charge_start,
      }
    : { ...plain, ...known };
}

/** The kit with a measured rate: the picture's share of what was written. */
function withRate(kit: Kit, camera: string, mode: string, mbps: number): Kit {
  return {
    ...kit,
    cameras: kit.cameras.map((one) =>
      one.id === camera
        ? {
            ...one,
            modes: one.modes.map((m) =>
              m.id === mode
                ? { ...m, video_mbps: Math.max(0.1, Math.round((mbps - m.audio_mbps) * 10) / 10) }
                : m,
            ),
          }
        : one,
    ),
  };
}
