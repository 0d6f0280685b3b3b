import * as assume from "../../domain/assumed";
import * as limits from "../../domain/limits";
import type { Camera } from "../../domain/types";
import { CheckIn, NumberIn, TextIn } from "../../ui/fields";

interface Props {
  camera: Camera;
  path: string;
  put: (part: Partial<Camera>) => void;
}

const ANSWERS = ["voice", "remote"] as const;

/** Power at its own port, its measured heat, how it is answered without a hand, its clock and its files' names. */
export function CameraMore({ camera, path, put }: Props) {
  return (
    <details>
      <summary>Port, heat, lens, voice, clock and file names</summary>
      <div className="row fields">
        <NumberIn
          label="Its port takes"
          unit="W"
          value={camera.charges_in_w}
          {...limits.Camera.charges_in_w}
          assumed="no port"
          onCommit={(charges_in_w) => put({ charges_in_w })}
          onClear={() => put({ charges_in_w: null })}
        />
        <NumberIn
          label="Armed"
          unit="W"
          value={camera.armed_w}
          {...limits.Camera.armed_w}
          assumed="standby"
          onCommit={(armed_w) => put({ armed_w })}
          onClear={() => put({ armed_w: null })}
        />
        <NumberIn
          label="Warms for each watt"
          unit="K/W"
          path={`${path}.resistance_k_per_w`}
          value={camera.resistance_k_per_w}
          {...limits.Camera.resistance_k_per_w}
          assumed="by mass"
          onCommit={(resistance_k_per_w) => put({ resistance_k_per_w })}
          onClear={() => put({ resistance_k_per_w: null })}
        />
        <NumberIn
          label="Heat of charging"
          unit="× typical"
          path={`${path}.charge_heat`}
          value={camera.charge_heat}
          {...limits.Camera.charge_heat}
          onCommit={(charge_heat) => put({ charge_heat })}
        />
        <NumberIn
          label="Aperture, f over"
          unit="number"
          value={camera.f_number}
          {...limits.Camera.f_number}
          assumed={String(assume.f_number)}
          onCommit={(f_number) => put({ f_number })}
          onClear={() => put({ f_number: null })}
        />
        <NumberIn
          label="Least gain"
          unit="ISO"
          value={camera.base_iso}
          {...limits.Camera.base_iso}
          whole
          assumed={String(assume.base_iso)}
          onCommit={(base_iso) => put({ base_iso })}
          onClear={() => put({ base_iso: null })}
        />
        <NumberIn
          label="Most gain that looks right"
          unit="ISO"
          value={camera.most_iso}
          {...limits.Camera.most_iso}
          whole
          assumed={String(assume.most_iso)}
          onCommit={(most_iso) => put({ most_iso })}
          onClear={() => put({ most_iso: null })}
        />
        <TextIn
          label="Files begin with"
          path={`${path}.file_prefix`}
          value={camera.file_prefix}
          onCommit={(file_prefix) => put({ file_prefix: file_prefix.slice(0, 12) })}
        />
        <NumberIn
          label="Clock drifts"
          unit="s a day"
          value={camera.clock_drift_s_per_day}
          {...limits.Camera.clock_drift_s_per_day}
          onCommit={(clock_drift_s_per_day) => put({ clock_drift_s_per_day })}
        />
        <CheckIn
          label="Clock is set"
          path={`${path}.clock_set`}
          value={camera.clock_set}
          onCommit={(clock_set) => put({ clock_set })}
        />
        {ANSWERS.map((answer) => (
          <CheckIn
            key={answer}
            label={`answers to ${answer}`}
            value={camera.answers_to.includes(answer)}
            onCommit={(on) =>
              put({
                answers_to: ANSWERS.filter((one) =>
                  one === answer ? on : camera.answers_to.includes(one),
                ),
              })
            }
          />
        ))}
      </div>
    </details>
  );
}
