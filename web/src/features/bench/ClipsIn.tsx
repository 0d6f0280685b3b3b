import { Button, LinearProgress } from "@mui/material";
import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { tellClips } from "../../api/bench";
import { modeName } from "../../domain/bench";
import type { BenchRun, Camera, ClipsTold } from "../../domain/types";
import { clipSizeText, clipText, countText } from "../../domain/units";
import { DropHere } from "../../ui/DropHere";
import { droppedFiles } from "./droppedFiles";
import { readClips } from "./readClips";

interface Props {
  camera: Camera;
  /** A measured rate goes into the kit. */
  onRate: (mode: string, mbps: number) => void;
  onUse: (known: Partial<BenchRun>) => void;
}

/** A folder of clips: lengths, rates and chapters, read here without sending any picture. */
export function ClipsIn({ camera, onRate, onUse }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const stop = useRef(false);
  const [progress, setProgress] = useState<{ done: number; of: number } | null>(null);
  const reading = useMutation({
    mutationFn: async (files: readonly File[]) => {
      stop.current = false;
      setProgress({ done: 0, of: files.length });
      const found = await readClips(
        files,
        (done) => setProgress({ done, of: files.length }),
        () => stop.current,
      );
      return tellClips(camera, found.clips, found.skipped);
    },
    onSettled: () => setProgress(null),
  });
  return (
    <div>
      <DropHere
        onDrop={(dropped) => void droppedFiles(dropped).then((files) => reading.mutate(files))}
      >
        <p>
          Drop a folder of {camera.name}’s clips here. They are read on this machine: lengths,
          sizes, frame sizes and start times, no picture.
        </p>
        <input
          ref={(element) => {
            input.current = element;
            element?.setAttribute("webkitdirectory", "");
          }}
          type="file"
          multiple
          className="sr"
          tabIndex={-1}
          aria-label="Folder of clips"
          onChange={(event) => {
            const files = [...(event.target.files ?? [])];
            event.target.value = "";
            if (files.length > 0) reading.mutate(files);
          }}
        />
        <Button onClick={() => input.current?.click()}>Choose a folder</Button>
      </DropHere>
      {progress === null ? null : (
        <div className="row start-row" role="status">
          <LinearProgress
            variant="determinate"
            value={(100 * progress.done) / Math.max(1, progress.of)}
            aria-label="Clips read"
            sx={{ flex: 1, height: 8 }}
          />
          <span>
            {progress.done} of {progress.of} files
          </span>
          <Button
            onClick={() => {
              stop.current = true;
            }}
          >
            Stop
          </Button>
        </div>
      )}
      {reading.error ? <p role="alert">{reading.error.message}</p> : null}
      {reading.data === undefined ? null : (
        <ClipsFound told={reading.data} camera={camera} onRate={onRate} onUse={onUse} />
      )}
    </div>
  );
}

interface FoundProps extends Props {
  told: ClipsTold;
}

function ClipsFound({ told, camera, onRate, onUse }: FoundProps) {
  const chapters = told.recordings.reduce((sum, one) => sum + one.names.length, 0);
  const joinedText =
    chapters > told.recordings.length
      ? `, ${String(chapters)} chapters joined where they go on`
      : "";
  return (
    <div>
      <p>
        {told.recordings.length === 1
          ? "One recording"
          : `${String(told.recordings.length)} recordings`}
        {joinedText}.
      </p>
      <ul className="plain-list">
        {told.rates.map((rate) => (
          <li key={rate.mode} className="row between">
            <span>
              <strong>{modeName(camera, rate.mode)}</strong> writes {rate.mbps.toFixed(1)} Mbit/s,
              the kit says {rate.assumed_mbps.toFixed(1)}. Longest {clipText(rate.longest_min)}.
            </span>
            <Button onClick={() => onRate(rate.mode, rate.mbps)}>Take the rate into the kit</Button>
          </li>
        ))}
      </ul>
      <details open={told.recordings.length <= 8}>
        <summary>Every recording</summary>
        <ul className="plain-list">
          {told.recordings.map((one) => (
            <li key={one.names[0]} className="row between">
              <span>
                {one.names[0]}
                {one.names.length > 1 ? ` and ${String(one.names.length - 1)} more` : ""}:{" "}
                {clipText(one.minutes)}, {clipSizeText(one.bytes)},{" "}
                {one.mode == null
                  ? "a mode that the kit does not know"
                  : modeName(camera, one.mode)}
              </span>
              <button
                type="button"
                className="plain link"
                onClick={() =>
                  onUse({
                    ...(one.mode == null ? {} : { mode: one.mode }),
                    minutes: Math.max(0.1, Math.round(one.minutes * 10) / 10),
                    bytes: one.bytes,
                    end: "stopped",
                    at: one.started_at == null ? null : one.started_at.slice(0, 19),
                  })
                }
                aria-label={`Use ${one.names[0] ?? ""} as a run`}
              >
                Use as a run
              </button>
            </li>
          ))}
        </ul>
      </details>
      {told.skipped.length === 0 ? null : (
        <details open>
          <summary>{countText(told.skipped.length, "file")} skipped</summary>
          <ul className="plain-list">
            {told.skipped.map((one) => (
              <li key={one.name}>
                {one.name} {one.why}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
