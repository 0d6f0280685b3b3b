import type { MediaInfoResult } from "mediainfo.js";
import { describe, expect, it } from "vitest";
import { clipOf, instantOf } from "./readClips";

const GENERAL = { "@type": "General", Format: "MPEG-4", Duration: 600 };
const VIDEO = {
  "@type": "Video",
  Width: 3840,
  Height: 2160,
  FrameRate: 29.97,
  Duration: 599.9,
  Encoded_Date: "2027-06-12 09:00:00 UTC",
};

function read(...track: object[]) {
  return clipOf("a.mp4", 4_500, { media: { track } } as unknown as MediaInfoResult);
}

describe("what a file says of itself", () => {
  it("is length, picture and start", () => {
    expect(read(GENERAL, VIDEO)).toEqual({
      name: "a.mp4",
      bytes: 4_500,
      duration_s: 599.9,
      width_px: 3840,
      height_px: 2160,
      fps: 29.97,
      started_at: "2027-06-12T09:00:00Z",
    });
  });
  it.each([
    ["nothing known", [], "nothing in it tells what it is"],
    ["no format", [{ "@type": "General" }], "nothing in it tells what it is"],
    [
      "no index",
      [{ ...GENERAL, Duration: undefined }],
      "is damaged or cut off: its index was never written",
    ],
    ["sound alone", [GENERAL], "holds no picture"],
    [
      "cut",
      [{ ...GENERAL, extra: { IsTruncated: "Yes, 4096 bytes" } }, VIDEO],
      "is cut off: it ends before its index says",
    ],
    [
      "no length",
      [
        { ...GENERAL, Duration: undefined },
        { ...VIDEO, Duration: undefined },
      ],
      "its index was never written",
    ],
  ])("with %s it is skipped, and why is said", (_, tracks, why) => {
    const found = read(...tracks);
    expect("why" in found && found.why).toContain(why);
  });
  it.each([
    ["2027-06-12 09:00:00 UTC", "2027-06-12T09:00:00Z"],
    ["UTC 2027-06-12 09:00:00", "2027-06-12T09:00:00Z"],
    ["1904-01-01 00:00:00 UTC", null],
    [undefined, null],
  ])("a start of %s is %s", (text, instant) => {
    expect(instantOf(text)).toBe(instant);
  });
});
