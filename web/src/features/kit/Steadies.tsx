import type { Camera, Preset } from "../../domain/types";
import { RESOLUTIONS } from "../../domain/kitEdits";
import * as limits from "../../domain/limits";
import { ChoiceIn, NumberIn } from "../../ui/fields";

interface Props {
  camera: Camera;
  put: (part: Partial<Camera>) => void;
}

type Steadied = Camera["steadies"][number];
const KINDS: { kind: Preset["stabilised"]; name: string }[] = [
  { kind: "on", name: "Steadies up to" },
  { kind: "strong", name: "Strongly up to" },
];
const ANY = "any";

/** The largest frame at which a camera steadies the picture, and at how many a second. */
export function Steadies({ camera, put }: Props) {
  return (
    <div className="row fields">
      {KINDS.map(({ kind, name }) => {
        const known = camera.steadies.find((one) => one.stabilised === kind);
        const others = camera.steadies.filter((one) => one.stabilised !== kind);
        const keep = (next: Steadied | null) =>
          put({ steadies: next === null ? others : [...others, next] });
        return (
          <span key={kind} className="row">
            <ChoiceIn
              label={name}
              value={known === undefined ? ANY : sizeOf(known)}
              choices={[
                { value: ANY, name: "any frame" },
                ...RESOLUTIONS.map((one) => ({ value: sizeOf(one), name: one.name })),
              ]}
              onCommit={(value) => {
                const size = RESOLUTIONS.find((one) => sizeOf(one) === value);
                keep(
                  size === undefined
                    ? null
                    : {
                        stabilised: kind,
                        width_px: size.width_px,
                        height_px: size.height_px,
                        fps: known?.fps ?? 60,
                      },
                );
              }}
            />
            {known === undefined ? null : (
              <NumberIn
                label={`${name}, at`}
                unit="1/s"
                value={known.fps}
                {...limits.Steadied.fps}
                onCommit={(fps) => keep({ ...known, fps })}
              />
            )}
          </span>
        );
      })}
    </div>
  );
}

function sizeOf(one: { width_px: number; height_px: number }): string {
  return `${String(one.width_px)}x${String(one.height_px)}`;
}
