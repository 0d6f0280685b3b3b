// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { beforeEach, describe, expect, it } from "vitest";
import { Refused, Unreachable } from "./client";
import { type KeptSource, useKept } from "./kept";

interface State {
  version: number;
  can_undo: boolean;
  can_redo: boolean;
  doc: string;
}

/** A server that keeps versions and steps; it can be made unreachable or refuse. */
class Fake implements KeptSource<State, string> {
  key = ["fake"];
  steps = ["first"];
  step_at = 0;
  version = 1;
  down = false;
  inUse = false;
  saves: string[] = [];

  state(): State {
    return {
      version: this.version,
      can_undo: this.step_at > 0,
      can_redo: this.step_at < this.steps.length - 1,
      doc: this.steps[this.step_at] ?? "",
    };
  }
  load = () => Promise.resolve(this.state());
  save = async (version: number, doc: string, release: boolean) => {
    await Promise.resolve();
    if (this.down) throw new Unreachable();
    if (version !== this.version) throw this.refusal("stale");
    if (this.inUse && !release) throw this.refusal("in_use");
    this.steps = [...this.steps.slice(0, this.step_at + 1), doc];
    this.step_at += 1;
    this.version += 1;
    this.saves.push(doc);
    return this.state();
  };
  step = async (version: number, by: -1 | 1) => {
    await Promise.resolve();
    if (version !== this.version) throw this.refusal("stale");
    this.step_at += by;
    this.version += 1;
    return this.state();
  };
  docOf = (state: State) => state.doc;
  withDoc = (state: State, doc: string) => ({ ...state, doc });
  refusal(code: string): Refused {
    return new Refused({
      type: `/problems/${code}`,
      title: code,
      status: 409,
      detail: `${code}!`,
      faults: [],
      used_by: [],
      current: code === "stale" ? (this.state() as never) : null,
    });
  }
}

const UNSAVED = "tumbrel.unsaved.fake";

async function keeping(source: Fake) {
  const cache = new QueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={cache}>{children}</QueryClientProvider>
  );
  const hook = renderHook(() => useKept(source), { wrapper });
  await waitFor(() => expect(hook.result.current.state).toBeDefined());
  return hook.result;
}

beforeEach(() => localStorage.clear());

describe("a kept document", () => {
  it("shows an edit at once and saves it with its version", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    act(() => kept.current.edit(() => "second"));
    await waitFor(() => expect(kept.current.state?.doc).toBe("second"));
    await waitFor(() => expect(source.saves).toEqual(["second"]));
    await waitFor(() => expect(kept.current.state?.version).toBe(2));
    expect(localStorage.getItem(UNSAVED)).toBeNull();
  });
  it("saves quick edits one after the other, none lost", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    act(() => {
      for (const word of ["a", "b", "c"]) kept.current.edit((old) => old + word);
    });
    await act(() => kept.current.settled());
    expect(source.saves).toEqual(["firsta", "firstab", "firstabc"]);
    expect(kept.current.state).toMatchObject({ doc: "firstabc", version: 4, can_undo: true });
  });
  it("goes back and forward over steps", async () => {
    const kept = await keeping(new Fake());
    act(() => kept.current.edit(() => "second"));
    act(() => kept.current.undo());
    await act(() => kept.current.settled());
    expect(kept.current.state).toMatchObject({ doc: "first", can_redo: true });
    act(() => kept.current.redo());
    await act(() => kept.current.settled());
    expect(kept.current.state?.doc).toBe("second");
  });
  it("keeps what cannot be saved, and saves it when asked again", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    source.down = true;
    act(() => kept.current.edit(() => "second"));
    await waitFor(() => expect(kept.current.error).toBeInstanceOf(Unreachable));
    expect(kept.current.state?.doc).toBe("second");
    expect(localStorage.getItem(UNSAVED)).toContain("second");
    source.down = false;
    act(() => kept.current.retry());
    await waitFor(() => expect(source.saves).toEqual(["second"]));
    expect(kept.current.error).toBeNull();
  });
  it("saves after a reload what the page before could not", async () => {
    const source = new Fake();
    localStorage.setItem(UNSAVED, JSON.stringify({ version: 1, doc: "from before" }));
    const kept = await keeping(source);
    await waitFor(() => expect(source.saves).toEqual(["from before"]));
    expect(kept.current.state?.doc).toBe("from before");
  });
  it("is not broken by what the browser kept badly", async () => {
    localStorage.setItem(UNSAVED, "{half");
    const kept = await keeping(new Fake());
    expect(kept.current.state?.doc).toBe("first");
    expect(localStorage.getItem(UNSAVED)).toBeNull();
  });
  it("asks when someone else saved while the page was closed", async () => {
    const source = new Fake();
    source.version = 7;
    localStorage.setItem(UNSAVED, JSON.stringify({ version: 1, doc: "mine" }));
    const kept = await keeping(source);
    await waitFor(() => expect(kept.current.conflict?.mine).toBe("mine"));
    expect(source.saves).toEqual([]);
  });
  it("a stale save shows both; keeping mine is one more step", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    await source.save(1, "theirs", false);
    act(() => kept.current.edit(() => "mine"));
    await waitFor(() => expect(kept.current.conflict?.theirs.doc).toBe("theirs"));
    act(() => kept.current.keepMine());
    await act(() => kept.current.settled());
    expect(source.steps).toEqual(["first", "theirs", "mine"]);
    expect(kept.current.conflict).toBeNull();
  });
  it("edits made while a conflict waits belong to mine", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    await source.save(1, "theirs", false);
    act(() => kept.current.edit(() => "mine"));
    await waitFor(() => expect(kept.current.conflict).not.toBeNull());
    act(() => kept.current.edit((old) => `${old} and more`));
    act(() => kept.current.keepMine());
    await act(() => kept.current.settled());
    expect(source.steps.at(-1)).toBe("mine and more");
  });
  it("a stale save may also take theirs", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    await source.save(1, "theirs", false);
    act(() => kept.current.edit(() => "mine"));
    await waitFor(() => expect(kept.current.conflict).not.toBeNull());
    act(() => kept.current.takeTheirs());
    await waitFor(() => expect(kept.current.state?.doc).toBe("theirs"));
    act(() => kept.current.edit(() => "onwards"));
    await act(() => kept.current.settled());
    expect(source.steps.at(-1)).toBe("onwards");
  });
  it("a deletion that takes more with it asks back; no leaves everything", async () => {
    const source = new Fake();
    source.inUse = true;
    const kept = await keeping(source);
    act(() => kept.current.edit(() => "less"));
    await waitFor(() => expect(kept.current.asksRelease?.detail).toBe("in_use!"));
    act(() => kept.current.asksRelease?.no());
    await waitFor(() => expect(kept.current.state?.doc).toBe("first"));
    expect(source.saves).toEqual([]);
  });
  it("a deletion that is confirmed goes through", async () => {
    const source = new Fake();
    source.inUse = true;
    const kept = await keeping(source);
    act(() => kept.current.edit(() => "less"));
    await waitFor(() => expect(kept.current.asksRelease).not.toBeNull());
    act(() => kept.current.asksRelease?.yes());
    await waitFor(() => expect(source.saves).toEqual(["less"]));
  });
});
