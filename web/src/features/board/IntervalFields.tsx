import * as limits from "../../domain/limits";
import type { Pattern } from "../../domain/types";
import { ChoiceIn, NumberIn } from "../../ui/fields";

type Interval = Extract<Pattern, { kind: "interval" }>;

/** Three digits behind the point, as an interval is set. */
function rounded(value: number): number {
  return Math.round(value * 1000) / 1000;
}

/** Frames: how often, by the interval, by how fast they run, or by the film that is wanted. */
export function IntervalFields({
  interval,
  lastsS,
  change,
}: {
  interval: Interval;
  /** How long the stretch lasts. */
  lastsS: number;
  change: (next: Pattern) => void;
}) {
  const stills = interval.frame_mb != null;
  return (
    <div className="row">
      <NumberIn
        label="A frame every"
        unit="s"
        value={interval.every_s}
        {...limits.Interval.every_s}
        onCommit={(every_s) => change({ ...interval, every_s })}
      />
      <ChoiceIn
        label="Frames become"
        value={stills ? "stills" : "video"}
        choices={[
          { value: "video", name: "video" },
          { value: "stills", name: "stills" },
        ]}
        onCommit={(value) => change({ ...interval, frame_mb: value === "stills" ? 6 : null })}
      />
      {stills ? (
        <NumberIn
          label="One still"
          unit="MB"
          value={interval.frame_mb}
          {...limits.Interval.frame_mb}
          onCommit={(frame_mb) => change({ ...interval, frame_mb })}
        />
      ) : null}
      <NumberIn
        label="Exposed"
        unit="s"
        value={interval.exposure_s}
        {...limits.Interval.exposure_s}
        assumed="short"
        onCommit={(exposure_s) => change({ ...interval, exposure_s })}
        onClear={() => change({ ...interval, exposure_s: null })}
      />
      <NumberIn
        label="Then written"
        unit="s"
        value={interval.writing_s}
        {...limits.Interval.writing_s}
        assumed="1"
        onCommit={(writing_s) => change({ ...interval, writing_s })}
        onClear={() => change({ ...interval, writing_s: null })}
      />
      <NumberIn
        label="Or so many"
        unit={stills ? "stills" : "frames"}
        value={Math.ceil(lastsS / interval.every_s)}
        min={1}
        max={Math.floor(lastsS / limits.Interval.every_s.min)}
        whole
        onCommit={(count) =>
          change({ ...interval, every_s: Math.ceil((lastsS / count) * 1000) / 1000 })
        }
      />
      <NumberIn
        label="Or times as fast"
        unit="times"
        value={rounded(interval.every_s * interval.playback_fps)}
        min={rounded(limits.Interval.every_s.min * interval.playback_fps)}
        max={limits.Interval.every_s.max * interval.playback_fps}
        onCommit={(times) =>
          change({ ...interval, every_s: rounded(times / interval.playback_fps) })
        }
      />
      <NumberIn
        label="Or film of"
        unit="s"
        value={rounded(lastsS / interval.every_s / interval.playback_fps)}
        min={rounded(Math.max(0.001, lastsS / limits.Interval.every_s.max / interval.playback_fps))}
        max={rounded(lastsS / limits.Interval.every_s.min / interval.playback_fps)}
        onCommit={(film_s) =>
          change({ ...interval, every_s: rounded(lastsS / film_s / interval.playback_fps) })
        }
      />
      <NumberIn
        label="Played at"
        unit="1/s"
        value={interval.playback_fps}
        {...limits.Interval.playback_fps}
        onCommit={(playback_fps) => change({ ...interval, playback_fps })}
      />
    </div>
  );
}
