import * as assume from "../../domain/assumed";
import * as limits from "../../domain/limits";
import { resolutionName, RESOLUTIONS } from "../../domain/kitEdits";
import { FEATURES, type Mode } from "../../domain/types";
import { CheckIn, ChoiceIn, NameIn, NumberIn } from "../../ui/fields";

interface Props {
  mode: Mode;
  path: string;
  putMode: (part: Partial<Mode>) => void;
}

/** A mode, entered by what people know: five fields, and the rest folded away. */
export function ModeFields({ mode, path, putMode }: Props) {
  const { draw } = mode;
  const custom = resolutionName(mode);
  const resolutions = RESOLUTIONS.some((one) => one.name === custom)
    ? RESOLUTIONS.map((one) => one.name)
    : [custom, ...RESOLUTIONS.map((one) => one.name)];
  return (
    <>
      <div className="row fields">
        <NameIn
          label="Mode"
          path={`${path}.name`}
          value={mode.name}
          onCommit={(name) => putMode({ name })}
        />
        <ChoiceIn
          label="Resolution"
          value={custom}
          choices={resolutions.map((name) => ({ value: name, name }))}
          onCommit={(name) => {
            const found = RESOLUTIONS.find((one) => one.name === name);
            if (found) putMode({ width_px: found.width_px, height_px: found.height_px });
          }}
        />
        <NumberIn
          label="Rate"
          unit="1/s"
          value={mode.fps}
          {...limits.Mode.fps}
          onCommit={(fps) => putMode({ fps })}
        />
        <NumberIn
          label="Bitrate"
          unit="Mbit/s"
          value={mode.video_mbps}
          {...limits.Mode.video_mbps}
          onCommit={(video_mbps) => putMode({ video_mbps })}
        />
        <ChoiceIn
          label="Its drain is known by"
          value={draw.kind}
          choices={[
            { value: "lasts", name: "how long it lasts" },
            { value: "watts", name: "watts" },
            { value: "not_known", name: "nothing yet: not known" },
          ]}
          onCommit={(kind) => putMode({ draw: drawBy(kind, mode.box_minutes ?? USUAL_MIN) })}
        />
        {draw.kind === "watts" ? (
          <NumberIn
            label="It draws"
            unit="W"
            value={draw.watts}
            {...limits.DrawInWatts.watts}
            onCommit={(watts) => putMode({ draw: { kind: "watts", watts } })}
          />
        ) : (
          <NumberIn
            label="Lasts"
            unit="min"
            value={draw.kind === "lasts" ? draw.minutes : undefined}
            {...limits.DrawByRunTime.minutes}
            onCommit={(minutes) => putMode({ draw: { kind: "lasts", minutes } })}
          />
        )}
      </div>
      <MoreOfMode mode={mode} putMode={putMode} />
    </>
  );
}

const USUAL_MIN = 80;

function drawBy(kind: Mode["draw"]["kind"], minutes: number): Mode["draw"] {
  if (kind === "lasts") return { kind, minutes };
  return kind === "watts" ? { kind, watts: 3.5 } : { kind };
}

/** What decides seldom: heat, the box's claim, clip length, peaks, features. */
function MoreOfMode({ mode, putMode }: Pick<Props, "mode" | "putMode">) {
  return (
    <details>
      <summary>More of this mode{mode.rise_k == null ? " (heat assumed)" : ""}</summary>
      <div className="row fields">
        <NumberIn
          label="Width"
          unit="px"
          value={mode.width_px}
          {...limits.Mode.width_px}
          whole
          onCommit={(width_px) => putMode({ width_px })}
        />
        <NumberIn
          label="Height"
          unit="px"
          value={mode.height_px}
          {...limits.Mode.height_px}
          whole
          onCommit={(height_px) => putMode({ height_px })}
        />
        <NumberIn
          label="Warms by"
          unit="K"
          value={mode.rise_k}
          {...limits.Mode.rise_k}
          assumed="by mass, W"
          onCommit={(rise_k) => putMode({ rise_k })}
          onClear={() => putMode({ rise_k: null })}
        />
        <NumberIn
          label="Box claims"
          unit="min"
          value={mode.box_minutes}
          {...limits.Mode.box_minutes}
          onCommit={(box_minutes) => putMode({ box_minutes })}
          onClear={() => putMode({ box_minutes: null })}
        />
        <NumberIn
          label="Longest clip"
          unit="s"
          value={mode.clip_limit_s}
          {...limits.Mode.clip_limit_s}
          whole
          assumed="none"
          onCommit={(clip_limit_s) => putMode({ clip_limit_s })}
          onClear={() => putMode({ clip_limit_s: null })}
        />
        <NumberIn
          label="Peak bitrate"
          unit="Mbit/s"
          value={mode.peak_mbps}
          {...limits.Mode.peak_mbps}
          assumed={`${String(assume.peak_over_mean)} × mean`}
          onCommit={(peak_mbps) => putMode({ peak_mbps })}
          onClear={() => putMode({ peak_mbps: null })}
        />
      </div>
      <div className="row checks" role="group" aria-label={`Features that ${mode.name} allows`}>
        {FEATURES.map((name) => (
          <CheckIn
            key={name}
            label={name}
            value={mode.features.includes(name)}
            onCommit={(on) =>
              putMode({
                features: FEATURES.filter((one) =>
                  one === name ? on : mode.features.includes(one),
                ),
              })
            }
          />
        ))}
      </div>
      <div className="row checks">
        <CheckIn label="can loop" value={mode.loops} onCommit={(loops) => putMode({ loops })} />
        <CheckIn
          label="records sound"
          value={mode.sound}
          onCommit={(sound) => putMode({ sound })}
        />
      </div>
    </details>
  );
}
