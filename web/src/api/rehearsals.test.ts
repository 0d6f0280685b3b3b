// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { DOCUMENT, REHEARSAL } from "../testing/samples";
import type { PlanDocument } from "../domain/types";
import { rehearse, rehearseAside, Rehearsals } from "./rehearsals";

const ROWS = 4; // of the sample's only course
const named = (name: string): PlanDocument => ({
  ...DOCUMENT,
  trip: { ...DOCUMENT.trip, name },
});

function kept(most: number) {
  const send = vi.fn((text: string) =>
    Promise.resolve({ ...REHEARSAL, files: (JSON.parse(text) as PlanDocument).trip.name.length }),
  );
  return { send, rehearsals: new Rehearsals(send, most) };
}

describe("rehearsals by their document", () => {
  it("the same document is asked once, aside or not", async () => {
    const { send, rehearsals } = kept(100);
    const first = await rehearsals.of(named("a"), true);
    expect(await rehearsals.of(named("a"), false)).toBe(first);
    expect(send).toHaveBeenCalledExactlyOnceWith(JSON.stringify(named("a")), true, undefined);
  });
  it("any change of the document is asked anew", async () => {
    const { send, rehearsals } = kept(100);
    await rehearsals.of(named("a"), false);
    expect((await rehearsals.of(named("bb"), false)).files).toBe(2);
    expect(send).toHaveBeenCalledTimes(2);
  });
  it("what was used longest ago is forgotten first", async () => {
    const { send, rehearsals } = kept(2 * ROWS);
    await rehearsals.of(named("a"), false);
    await rehearsals.of(named("b"), false);
    await rehearsals.of(named("a"), false);
    await rehearsals.of(named("c"), false);
    send.mockClear();
    await rehearsals.of(named("a"), false);
    await rehearsals.of(named("c"), false);
    expect(send).not.toHaveBeenCalled();
    await rehearsals.of(named("b"), false);
    expect(send).toHaveBeenCalledOnce();
  });
  it("one that is too large is told and not kept", async () => {
    const { send, rehearsals } = kept(ROWS - 1);
    await rehearsals.of(named("a"), false);
    await rehearsals.of(named("a"), false);
    expect(send).toHaveBeenCalledTimes(2);
  });
  it("a refusal is not kept", async () => {
    const send = vi.fn().mockRejectedValueOnce(new Error("no")).mockResolvedValue(REHEARSAL);
    const rehearsals = new Rehearsals(send, 100);
    await expect(rehearsals.of(DOCUMENT, false)).rejects.toThrow("no");
    expect(await rehearsals.of(DOCUMENT, false)).toBe(REHEARSAL);
  });
  it("asked twice at the same time, it is counted once", async () => {
    const { rehearsals, send } = kept(2 * ROWS);
    await Promise.all([rehearsals.of(named("a"), false), rehearsals.of(named("a"), true)]);
    await rehearsals.of(named("b"), false);
    send.mockClear();
    await rehearsals.of(named("a"), false);
    expect(send).not.toHaveBeenCalled();
  });
});

describe("what is asked aside", () => {
  const flying: { name: string; answer: () => void; signal: AbortSignal | null }[] = [];
  beforeEach(() => {
    flying.length = 0;
    vi.stubGlobal("fetch", (_: string, asked: RequestInit) => {
      const { name } = (JSON.parse(asked.body as string) as PlanDocument).trip;
      const told = new Response(JSON.stringify({ ...REHEARSAL, files: name.length }));
      return new Promise<Response>((answer) =>
        flying.push({ name, signal: asked.signal ?? null, answer: () => answer(told) }),
      );
    });
  });
  afterEach(() => vi.unstubAllGlobals());

  it("keeps to two connections; what is left meanwhile is never sent", async () => {
    const left = new AbortController();
    const asked = ["a1", "a2", "a3", "a4"].map((name) =>
      rehearseAside(named(name), name === "a3" ? left.signal : undefined),
    );
    await vi.waitFor(() => expect(flying.map((one) => one.name)).toEqual(["a1", "a2"]));
    left.abort();
    flying[0]?.answer();
    await expect(asked[2]).rejects.toThrow();
    await vi.waitFor(() => expect(flying.map((one) => one.name)).toEqual(["a1", "a2", "a4"]));
    flying.forEach((one) => one.answer());
    expect((await Promise.all([asked[0], asked[1], asked[3]])).length).toBe(3);
  });
  it("ends with whoever asked, and an edit waits for none of it", async () => {
    const left = new AbortController();
    const aside = [rehearseAside(named("b1"), left.signal), rehearseAside(named("b2"))];
    const edit = rehearse(named("edit"));
    await vi.waitFor(() => expect(flying).toHaveLength(3));
    expect(flying.find((one) => one.name === "b1")?.signal).toBe(left.signal);
    flying.forEach((one) => one.answer());
    expect((await edit).files).toBe(4);
    await Promise.all(aside);
  });
});
