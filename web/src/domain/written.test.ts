import { describe, expect, it } from "vitest";
import { DOCUMENT, REHEARSAL } from "../testing/samples";
import { freshSetUp, SLOT } from "./kitEdits";
import type { Assignment, Camera, CameraResult, PlanDocument, Pooled } from "./types";
import { cardsAt, writtenAt, writtenStays } from "./written";

const MIN = 60_000;
const [chin] = DOCUMENT.kit.cameras as [Camera];
const [asked] = DOCUMENT.plan.assignments as [Assignment];
const [k1] = REHEARSAL.cards as [Pooled];
const [result] = REHEARSAL.cameras as [CameraResult];

/** Both in the camera; at the camp it writes to its own memory, on the way to the card. */
const both: Camera = {
  ...chin,
  memory: { kind: "fixed", gb: 64, reserved_gb: 0, speed_mb_s: 90 },
  slot: SLOT,
  set_ups: [freshSetUp([]), { ...freshSetUp([]), id: "carded", writes_to: "card" }],
};
const planned: PlanDocument = {
  ...DOCUMENT,
  kit: { ...DOCUMENT.kit, cameras: [both] },
  plan: {
    ...DOCUMENT.plan,
    assignments: [
      { ...asked, item: "way", set_up: "carded" },
      { ...asked, item: "camp", set_up: "bare" },
    ],
  },
};
const span = { assignment: 0, battery: "a1", item: "camp" };
const played = {
  ...REHEARSAL,
  cards: [k1, { ...k1, id: "chin:memory", name: "Chin memory", size: 60e9 }].map((one) => ({
    ...one,
    stays: [{ place: "chin", start_ms: 0, end_ms: 90 * MIN, level_start: 3e9, level_end: 9e9 }],
  })),
  cameras: [
    {
      ...result,
      filmed: [
        { ...span, start_ms: 0, end_ms: 30 * MIN, card: "chin:memory" },
        { ...span, start_ms: 30 * MIN, end_ms: 90 * MIN, card: "k1", item: "way" },
      ],
      course: {
        ...result.course,
        t_ms: [0, 30 * MIN, 30 * MIN, 90 * MIN],
        used_bytes: [3e9, 8e9, 3e9, 9e9],
      },
    },
  ],
};
const levels = (atMs: number) =>
  cardsAt(planned, played, atMs).map((one) => Math.round(one.level / 1e8) / 10);

describe("a camera with a card beside its own memory", () => {
  it("fills the one that its set-up writes to, and leaves the other as it is", () => {
    expect(levels(15 * MIN)).toEqual([3, 5.5]);
    expect(levels(60 * MIN)).toEqual([6, 8]);
    expect(levels(90 * MIN)).toEqual([9, 8]);
  });
  it("tells the room of the one that is written to", () => {
    const name = (atMs: number) => writtenAt(planned, played, both, atMs)?.name;
    expect([0, 29, 30, 80].map((min) => name(min * MIN))).toEqual([
      "Chin memory",
      "Chin memory",
      "K1",
      "K1",
    ]);
    const stays = played.cards.map((one) =>
      writtenStays(one, both, planned.plan.assignments, played.items),
    );
    expect(stays).toEqual([
      [{ startMs: 30 * MIN, endMs: 90 * MIN }],
      [{ startMs: 0, endMs: 30 * MIN }],
    ]);
  });
  it("without one, whatever is in it is written to", () => {
    expect(writtenAt(DOCUMENT, REHEARSAL, chin, 60 * MIN)?.name).toBe("K1");
    const bare = { ...REHEARSAL, cards: [{ ...k1, stays: [] }] };
    expect(writtenAt(DOCUMENT, bare, chin, 60 * MIN)).toBeUndefined();
  });
});
