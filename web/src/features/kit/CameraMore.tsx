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
          min={0.1}
          max={2000}
          assumed="no port"
          onCommit={(charges_in_w) => put({ charges_in_w })}
          onClear={() => put({ charges_in_w: null })}
          width={150}
        />
        <NumberIn
          label="Armed"
          unit="W"
          value={camera.armed_w}
          min={0}
          max={60}
          assumed="standby"
          onCommit={(armed_w) => put({ armed_w })}
          onClear={() => put({ armed_w: null })}
          width={140}
        />
        <NumberIn
          label="Warms for each watt"
          unit="K/W"
          path={`${path}.resistance_k_per_w`}
          value={camera.resistance_k_per_w}
          min={0.1}
          max={200}
          assumed="by mass"
          onCommit={(resistance_k_per_w) => put({ resistance_k_per_w })}
          onClear={() => put({ resistance_k_per_w: null })}
          width={190}
        />
        <NumberIn
          label="Heat of charging"
          unit="× typical"
          path={`${path}.charge_heat`}
          value={camera.charge_heat}
          min={0.1}
          max={10}
          onCommit={(charge_heat) => put({ charge_heat })}
          width={180}
        />
        <NumberIn
          label="Aperture, f over"
          unit="number"
          value={camera.f_number}
          min={0.7}
          max={32}
          assumed="2.8"
          onCommit={(f_number) => put({ f_number })}
          onClear={() => put({ f_number: null })}
          width={180}
        />
        <NumberIn
          label="Least gain"
          unit="ISO"
          value={camera.base_iso}
          min={25}
          max={409_600}
          whole
          assumed="100"
          onCommit={(base_iso) => put({ base_iso })}
          onClear={() => put({ base_iso: null })}
          width={140}
        />
        <NumberIn
          label="Most gain that looks right"
          unit="ISO"
          value={camera.most_iso}
          min={25}
          max={409_600}
          whole
          assumed="1600"
          onCommit={(most_iso) => put({ most_iso })}
          onClear={() => put({ most_iso: null })}
          width={220}
        />
        <TextIn
          label="Files begin with"
          path={`${path}.file_prefix`}
          value={camera.file_prefix}
          onCommit={(file_prefix) => put({ file_prefix: file_prefix.slice(0, 12) })}
          width={130}
        />
        <NumberIn
          label="Clock drifts"
          unit="s a day"
          value={camera.clock_drift_s_per_day}
          min={-600}
          max={600}
          onCommit={(clock_drift_s_per_day) => put({ clock_drift_s_per_day })}
          width={150}
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
