import type { MediaInfo, MediaInfoResult } from "mediainfo.js";
import wasm from "mediainfo.js/MediaInfoModule.wasm?url";
import type { Clip, ClipsTold } from "../../domain/types";

export type Skipped = ClipsTold["skipped"][number];
export interface FolderRead {
  clips: Clip[];
  skipped: Skipped[];
}

const VIDEO = /\.(mp4|mov|m4v|mkv|avi|mts|m2ts|ts|webm|3gp)$/i;

/** What each file says of itself, read in the browser: no picture leaves it. */
export async function readClips(
  files: readonly File[],
  onProgress: (done: number) => void,
  stopped: () => boolean,
): Promise<FolderRead> {
  const { default: mediaInfoFactory } = await import("mediainfo.js");
  const fresh = () => mediaInfoFactory({ format: "object", locateFile: () => wasm });
  let reader = await fresh();
  const clips: Clip[] = [];
  const skipped: Skipped[] = [];
  try {
    for (const [place, file] of files.entries()) {
      if (stopped()) break;
      const found = await readClip(reader, file);
      if ("why" in found) skipped.push({ name: found.name, why: found.why });
      else clips.push(found);
      // a reader that stumbled over one file may be of no use for the next
      if ("stumbled" in found) reader = await fresh();
      onProgress(place + 1);
    }
  } finally {
    reader.close();
  }
  return { clips, skipped };
}

async function readClip(
  reader: MediaInfo<"object">,
  file: File,
): Promise<Clip | Skipped | (Skipped & { stumbled: true })> {
  const name = file.webkitRelativePath || file.name;
  if (file.size === 0) return { name, why: "has no bytes: it was never written" };
  if (!VIDEO.test(file.name)) return { name, why: "is no video" };
  try {
    const result = await reader.analyzeData(
      file.size,
      async (size, offset) => new Uint8Array(await file.slice(offset, offset + size).arrayBuffer()),
    );
    return clipOf(name, file.size, result);
  } catch (problem) {
    const what = problem instanceof Error ? problem.message : String(problem);
    return { name, why: `cannot be read (${what})`, stumbled: true };
  }
}

/** A file's facts, or why it is skipped. */
export function clipOf(name: string, bytes: number, { media }: MediaInfoResult): Clip | Skipped {
  const general = media?.track.find((one) => one["@type"] === "General");
  const video = media?.track.find((one) => one["@type"] === "Video");
  if (general === undefined || general.Format === undefined)
    return { name, why: "is damaged: nothing in it tells what it is" };
  if (video === undefined)
    return general.Duration === undefined
      ? { name, why: "is damaged or cut off: its index was never written" }
      : { name, why: "holds no picture" };
  if (String(general.extra?.["IsTruncated"] ?? "").startsWith("Yes"))
    return { name, why: "is cut off: it ends before its index says" };
  const seconds = video.Duration ?? general.Duration;
  if (seconds === undefined || seconds <= 0)
    return { name, why: "is damaged or cut off: its index was never written" };
  return {
    name,
    bytes,
    duration_s: seconds,
    width_px: video.Width ?? 0,
    height_px: video.Height ?? 0,
    fps: video.FrameRate ?? 0,
    started_at: instantOf(video.Encoded_Date ?? general.Encoded_Date),
  };
}

/** "2026-06-12 09:00:00 UTC" or "UTC 2026-06-12 09:00:00" as an instant; null when it is none. */
export function instantOf(text: string | undefined): string | null {
  const found = /(\d{4})-(\d{2}-\d{2})[ T](\d{2}:\d{2}:\d{2})/.exec(text ?? "");
  if (found === null || Number(found[1]) <= 1990) return null;
  return `${found[1] ?? ""}-${found[2] ?? ""}T${found[3] ?? ""}Z`;
}
