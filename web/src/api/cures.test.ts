import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { DOCUMENT } from "../testing/samples";
import { Refused, Unreachable } from "./client";
import { streamCures } from "./cures";

const ASKED = {
  document: DOCUMENT,
  target: { camera: "chin", item: "way", code: null, path: "" },
};
const OUTCOME = { cure: null, outcome: { tried: 1, order: [], why: "" } };

function answers(parts: readonly string[], status = 200) {
  const encoder = new TextEncoder();
  const body = new ReadableStream({
    start(control) {
      for (const part of parts) control.enqueue(encoder.encode(part));
      control.close();
    },
  });
  vi.stubGlobal("fetch", () => Promise.resolve(new Response(body, { status })));
}

describe("cures as they come", () => {
  beforeEach(() => vi.stubGlobal("document", { cookie: "", querySelector: () => null }));
  afterEach(() => vi.unstubAllGlobals());
  const told = async () => {
    const lines: unknown[] = [];
    await streamCures(ASKED, (line) => lines.push(line), new AbortController().signal);
    return lines;
  };
  it("are read line by line, however the answer is cut", async () => {
    const text = `${JSON.stringify(OUTCOME)}\n`;
    answers([text.slice(0, 7), text.slice(7) + text, text]);
    expect(await told()).toEqual([OUTCOME, OUTCOME, OUTCOME]);
  });
  it("a refusal is told in its own words", async () => {
    answers([JSON.stringify({ type: "/problems/bad", detail: "target: gone", status: 422 })], 422);
    await expect(told()).rejects.toThrow(Refused);
  });
  it("a server that does not answer is said to be so", async () => {
    vi.stubGlobal("fetch", () => Promise.reject(new TypeError("refused")));
    await expect(told()).rejects.toThrow(Unreachable);
  });
});
