import { Slider } from "@mui/material";
import { useMemo, useRef, useState } from "react";
import { lookAt } from "../../api/bench";
import { useBeside } from "../../api/useBeside";
import { usePumped } from "../../api/usePumped";
import { modeName } from "../../domain/bench";
import type { Air, Camera, OnBench } from "../../domain/types";
import { measured } from "../../domain/measures";
import { degreesText, speedText, temperatureText } from "../../domain/units";
import { CheckIn, ChoiceIn, Pick } from "../../ui/fields";
import { NotTaken } from "../../ui/NotTaken";
import { useWidth } from "../../ui/useWidth";
import type { CameraBenchProps } from "./BenchPlace";
import { BodyPicture } from "./BodyPicture";
import { ModesPicture, ModesWords } from "./ModesPicture";

const MARKS = [-10, 0, 10, 20, 30, 40].map((value) => ({ value, label: degreesText(value) }));
const AIR_MARKS = [
  { value: 0, label: "still" },
  { value: 1.5, label: "fan" },
  { value: 4, label: "4" },
  { value: 9, label: "riding" },
];
const WIDE_PX = 820;

interface Props extends Pick<CameraBenchProps, "kept"> {
  on: OnBench;
}

/** What the runs foretell in any air: minutes of every mode, and how warm the body gets. */
export function LookView({ on, kept }: Props) {
  const { camera } = on;
  const [air, setAir] = useState<Air>(() => firstAir(on));
  const question = useMemo(() => ({ on, air: within(camera, air) }), [on, camera, air]);
  const { result: look, error } = usePumped(ask, question);
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 1200);
  const side = width >= WIDE_PX;
  const modesWidth = side ? Math.floor(width * 0.46) : width;
  const bodyWidth = side ? width - modesWidth - 30 : width;
  const change = (changed: Partial<Air>) => setAir((old) => ({ ...old, ...changed }));
  const shown = question.air;
  const beside = useBeside({ ...kept, there: shown }).filter((one) => one.camera === camera.id);
  return (
    <section aria-label="In any air" className="bench-look">
      <h2>In the air you will have</h2>
      <div className="shelf-controls label">
        <span className="shelf-control slider">
          <span id="bench-temperature">temperature {temperatureText(shown.ambient_c)}</span>
          <Slider
            value={shown.ambient_c}
            min={-15}
            max={45}
            step={1}
            marks={MARKS}
            onChange={(_, value) => change({ ambient_c: value as number })}
            aria-labelledby="bench-temperature"
            getAriaValueText={(value) => temperatureText(value)}
          />
        </span>
        <span className="shelf-control slider">
          <span id="bench-air">air {measured(shown.air_mps, "m/s", 1)}</span>
          <Slider
            value={shown.air_mps}
            min={0}
            max={12}
            step={0.5}
            marks={AIR_MARKS}
            onChange={(_, value) => change({ air_mps: value as number })}
            aria-labelledby="bench-air"
            getAriaValueText={(value) => speedText(value)}
          />
        </span>
        {camera.set_ups.length > 1 ? (
          <ChoiceIn
            label="Set-up"
            value={shown.set_up}
            choices={camera.set_ups.map((one) => ({ value: one.id, name: one.name }))}
            onCommit={(set_up) => change({ set_up })}
          />
        ) : null}
        {camera.charges_in_w == null ? null : (
          <CheckIn
            label="plugged in"
            value={shown.plugged}
            onCommit={(plugged) => change({ plugged })}
          />
        )}
      </div>
      {error === null ? null : <p role="alert">{error}</p>}
      {shown.plugged ? null : (
        <NotTaken kit={{ cameras: [camera] }} found={beside}>
          The shelf and the board go by the kit, until you take them below.
        </NotTaken>
      )}
      <div ref={frame} className={side ? "look-pictures side" : "look-pictures"}>
        {look === null ? (
          <p className="hint">Working…</p>
        ) : (
          <>
            <div>
              <h3>How long each mode lasts</h3>
              <ModesPicture look={look} camera={camera} width={modesWidth} chosen={shown.mode} />
              <details>
                <summary>Minutes to empty and to hot, with their spread</summary>
                <ModesWords look={look} camera={camera} />
              </details>
            </div>
            <div>
              <h3>How warm the body gets in {modeName(camera, shown.mode)}</h3>
              <Pick
                label="Mode of the curves"
                value={shown.mode}
                choices={camera.modes.map((one) => ({ value: one.id, name: one.name }))}
                onPick={(mode) => change({ mode })}
              />
              <BodyPicture look={look} width={bodyWidth} />
            </div>
          </>
        )}
      </div>
    </section>
  );
}

function ask({ on, air }: { on: OnBench; air: Air }) {
  return lookAt(on, air);
}

/** Where most runs were done: the mode that was tried most, bare, in its room. */
function firstAir({ camera, runs }: OnBench): Air {
  const counts = camera.modes.map((mode) => runs.filter((run) => run.mode === mode.id).length);
  const most = camera.modes[counts.indexOf(Math.max(...counts))];
  return {
    mode: most?.id ?? "",
    set_up: camera.set_ups[0]?.id ?? "",
    features: [],
    ambient_c: Math.round(runs[0]?.ambient_c ?? 20),
    air_mps: 0,
    plugged: false,
  };
}

/** The same air, when the mode or set-up chosen is no more. */
function within(camera: Camera, air: Air): Air {
  const mode = camera.modes.some((one) => one.id === air.mode) ? air.mode : camera.modes[0]?.id;
  const setUp = camera.set_ups.some((one) => one.id === air.set_up)
    ? air.set_up
    : camera.set_ups[0]?.id;
  return { ...air, mode: mode ?? "", set_up: setUp ?? "" };
}
