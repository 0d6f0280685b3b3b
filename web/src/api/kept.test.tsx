// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { answered } from "./answers";
import { Refused, Unreachable } from "./client";
import { type KeptSource, useKept } from "./kept";
import type { Note } from "./notes";
import { SCHEMA } from "./schema-number";

const bringUp = vi.hoisted(() => vi.fn());
vi.mock("./queries", async (real) => ({ ...(await real<object>()), bringUp }));

/** A field each for two people, and for who edits the first one twice. */
interface Doc {
  a: string;
  b: string;
}

interface State {
  version: number;
  can_undo: boolean;
  can_redo: boolean;
  undo_at: string | null;
  redo_at: string | null;
  doc: Doc;
}

const FIRST: Doc = { a: "first", b: "" };
const a = (text: string): Doc => ({ ...FIRST, a: text });

/** A server that keeps versions and steps; it can be made unreachable, full, or refuse. */
class Fake implements KeptSource<State, Doc> {
  key = ["fake"];
  steps = [FIRST];
  step_at = 0;
  version = 1;
  fails: "down" | "full" | "bad" | null = null;
  saves: Doc[] = [];

  state(): State {
    return {
      version: this.version,
      can_undo: this.step_at > 0,
      can_redo: this.step_at < this.steps.length - 1,
      undo_at: null,
      redo_at: null,
      doc: this.steps[this.step_at] ?? FIRST,
    };
  }
  load = () => Promise.resolve(this.state());
  save = async (version: number, doc: Doc) => {
    await Promise.resolve();
    if (this.fails === "down") throw new Unreachable();
    if (this.fails === "full") throw this.refusal("disk_full", 507);
    if (this.fails === "bad") throw this.refusal("bad_document", 422);
    if (version !== this.version) throw this.refusal("stale");
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
  withDoc = (state: State, doc: Doc) => ({ ...state, doc });
  refusal(code: string, status = 409): Refused {
    return new Refused({
      type: `/problems/${code}`,
      title: code,
      status,
      detail: `${code}!`,
      faults: [],
      used_by: [],
      current: code === "stale" ? (this.state() as never) : null,
    });
  }
}

const NOTES = "tumbrel.note..fake.";
const notes = () => Object.keys(localStorage).filter((name) => name.startsWith(NOTES));
const leave = (tab: string, note: Note<Doc> & { schema?: number | undefined }) =>
  localStorage.setItem(NOTES + tab, JSON.stringify({ schema: SCHEMA, ...note }));

async function keeping(source: Fake) {
  const cache = new QueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={cache}>{children}</QueryClientProvider>
  );
  const hook = renderHook(() => useKept(source), { wrapper });
  await waitFor(() => expect(hook.result.current.state).toBeDefined());
  await act(() => hook.result.current.settled());
  return hook.result;
}

beforeEach(() => localStorage.clear());
afterEach(() => vi.restoreAllMocks());

describe("a kept document", () => {
  it("shows an edit at once and saves it with its version", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    act(() => kept.current.edit(() => a("second")));
    expect(kept.current.keeping).toBe("going");
    await waitFor(() => expect(kept.current.state?.doc.a).toBe("second"));
    await waitFor(() => expect(source.saves).toEqual([a("second")]));
    await waitFor(() => expect(kept.current.state?.version).toBe(2));
    expect(kept.current.keeping).toBe("kept");
    expect(notes()).toEqual([]);
  });
  it("saves quick edits one after the other, none lost", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    act(() => {
      for (const word of ["a", "b", "c"]) kept.current.edit((old) => a(old.a + word));
    });
    await act(() => kept.current.settled());
    expect(source.saves.map((one) => one.a)).toEqual(["firsta", "firstab", "firstabc"]);
    expect(kept.current.state).toMatchObject({ version: 4, can_undo: true });
  });
  it("goes back and forward over steps", async () => {
    const kept = await keeping(new Fake());
    act(() => kept.current.edit(() => a("second")));
    act(() => kept.current.undo());
    await act(() => kept.current.settled());
    expect(kept.current.state).toMatchObject({ doc: FIRST, can_redo: true });
    act(() => kept.current.redo());
    await act(() => kept.current.settled());
    expect(kept.current.state?.doc.a).toBe("second");
  });
});

describe("what the server cannot take now", () => {
  it.each(["down", "full"] as const)("is kept and saved when it can be (%s)", async (how) => {
    const source = new Fake();
    const kept = await keeping(source);
    source.fails = how;
    act(() => kept.current.edit(() => a("second")));
    await waitFor(() => expect(kept.current.error).not.toBeNull());
    expect(kept.current.keeping).toBe("here");
    expect(kept.current.state?.doc.a).toBe("second");
    expect(localStorage.getItem(notes()[0] ?? "")).toContain("second");
    source.fails = null;
    act(() => kept.current.retry());
    await waitFor(() => expect(source.saves).toEqual([a("second")]));
    expect(kept.current.error).toBeNull();
    expect(notes()).toEqual([]);
  });
  it("is saved at once when the server answers anything", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    source.fails = "down";
    act(() => kept.current.edit(() => a("second")));
    await waitFor(() => expect(kept.current.error).toBeInstanceOf(Unreachable));
    source.fails = null;
    act(() => answered());
    await waitFor(() => expect(source.saves).toEqual([a("second")]));
  });
  it("is tried again by itself, with growing pauses", async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    const source = new Fake();
    const kept = await keeping(source);
    source.fails = "down";
    const tried = vi.spyOn(source, "save");
    act(() => kept.current.edit(() => a("second")));
    for (let seconds = 0; seconds < 24; seconds += 1)
      await act(() => vi.advanceTimersByTimeAsync(1000));
    expect(tried.mock.calls.length).toBeGreaterThanOrEqual(4);
    expect(tried.mock.calls.length).toBeLessThanOrEqual(7);
    source.fails = null;
    await act(() => vi.advanceTimersByTimeAsync(60_000));
    expect(source.saves).toEqual([a("second")]);
    vi.useRealTimers();
  });
  it("is taken back by undo, before it was ever saved", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    source.fails = "down";
    act(() => kept.current.edit(() => a("second")));
    act(() => kept.current.edit(() => a("third")));
    await waitFor(() => expect(kept.current.error).not.toBeNull());
    act(() => kept.current.undo());
    await waitFor(() => expect(kept.current.state?.doc.a).toBe("second"));
    source.fails = null;
    act(() => kept.current.retry());
    await waitFor(() => expect(source.saves).toEqual([a("second")]));
  });
  it("still goes when the browser's store is full, and says that it is only in this tab", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    source.fails = "down";
    act(() => kept.current.edit(() => a("second")));
    await waitFor(() => expect(kept.current.keeping).toBe("tab"));
    source.fails = null;
    act(() => kept.current.retry());
    await waitFor(() => expect(source.saves).toEqual([a("second")]));
  });
});

describe("what is refused", () => {
  it("stays on the page with its reason; the next edit is tried", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    source.fails = "bad";
    act(() => kept.current.edit(() => a("wrong")));
    await waitFor(() => expect(kept.current.error?.message).toBe("bad_document!"));
    expect(kept.current.state?.doc.a).toBe("wrong");
    source.fails = null;
    act(() => kept.current.edit(() => a("right")));
    await waitFor(() => expect(source.saves).toEqual([a("right")]));
    expect(kept.current.error).toBeNull();
  });
  it("is taken back by undo", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    source.fails = "bad";
    act(() => kept.current.edit(() => a("wrong")));
    await waitFor(() => expect(kept.current.error).not.toBeNull());
    act(() => kept.current.undo());
    await waitFor(() => expect(kept.current.state?.doc).toEqual(FIRST));
    expect(notes()).toEqual([]);
  });
});

describe("notes of pages that are gone", () => {
  it("are saved after a reload", async () => {
    const source = new Fake();
    leave("gone", { version: 1, base: FIRST, doc: a("from before") });
    await keeping(source);
    await waitFor(() => expect(source.saves).toEqual([a("from before")]));
    expect(notes()).toEqual([]);
  });
  it("of several tabs are all saved, one after the other", async () => {
    const source = new Fake();
    leave("one", { version: 1, base: FIRST, doc: a("by one") });
    leave("two", { version: 1, base: FIRST, doc: { ...FIRST, b: "by two" } });
    const kept = await keeping(source);
    await waitFor(() => expect(source.saves).toHaveLength(2));
    expect(kept.current.state?.doc).toEqual({ a: "by one", b: "by two" });
  });
  it("stay in the browser until each is taken up", async () => {
    const source = new Fake();
    source.fails = "down";
    leave("one", { version: 1, base: FIRST, doc: a("by one") });
    leave("two", { version: 1, base: FIRST, doc: { ...FIRST, b: "by two" } });
    const kept = await keeping(source);
    await waitFor(() => expect(kept.current.keeping).toBe("here"));
    const texts = notes().map((name) => localStorage.getItem(name));
    expect(texts.filter((text) => text?.includes("by one"))).toHaveLength(1);
    expect(texts.filter((text) => text?.includes("by two"))).toHaveLength(1);
    source.fails = null;
    act(() => kept.current.retry());
    await waitFor(() => expect(source.state().doc).toEqual({ a: "by one", b: "by two" }));
    await waitFor(() => expect(notes()).toEqual([]));
  });
  it("of an older schema are brought up by the server, and wait while it cannot be asked", async () => {
    const source = new Fake();
    const older = { schema: undefined, version: 1, base: FIRST, doc: a("old words") };
    leave("gone", older);
    bringUp.mockRejectedValueOnce(new Error("offline"));
    await keeping(source);
    await waitFor(() => expect(bringUp).toHaveBeenCalledOnce());
    expect(source.saves).toEqual([]);
    expect(notes()).toHaveLength(1);
    bringUp.mockResolvedValueOnce({ tumbrel: SCHEMA, documents: [FIRST, a("new words")] });
    await keeping(source);
    await waitFor(() => expect(source.saves).toEqual([a("new words")]));
    const asked = { kind: "trip", tumbrel: 1, documents: [FIRST, a("old words")] };
    expect(bringUp).toHaveBeenLastCalledWith(asked);
    expect(notes()).toEqual([]);
  });
  it("of another installation are left alone", async () => {
    const source = new Fake();
    const other = "tumbrel.note.0123456789ab.fake.gone";
    localStorage.setItem(other, JSON.stringify({ version: 1, base: FIRST, doc: a("theirs") }));
    const kept = await keeping(source);
    expect(kept.current.state?.doc).toEqual(FIRST);
    expect(localStorage.getItem(other)).toContain("theirs");
  });
  it("that are spoiled break nothing", async () => {
    localStorage.setItem(`${NOTES}gone`, "{half");
    const kept = await keeping(new Fake());
    expect(kept.current.state?.doc).toEqual(FIRST);
    expect(notes()).toEqual([]);
  });
  it("ask where someone else changed the same meanwhile", async () => {
    const source = new Fake();
    await source.save(1, a("theirs"));
    leave("gone", { version: 1, base: FIRST, doc: { a: "mine", b: "mine too" } });
    const kept = await keeping(source);
    await waitFor(() => expect(kept.current.conflict?.clashes).toEqual(["a"]));
    expect(source.saves).toHaveLength(1);
    expect(notes()).toHaveLength(1);
    act(() => kept.current.takeTheirs());
    await waitFor(() => expect(source.saves.at(-1)).toEqual({ a: "theirs", b: "mine too" }));
  });
});

describe("a save of another tab", () => {
  let channel: BroadcastChannel;
  const heard = () => new Promise((done) => setTimeout(done, 20));
  beforeEach(() => {
    channel = new BroadcastChannel("tumbrel.");
  });
  afterEach(() => channel.close());
  /** Another tab saves, and says so while an answer of the server to this tab is on its way. */
  const elsewhere = async (source: Fake, doc: Doc) => {
    await source.save(source.version, doc);
    channel.postMessage({ key: "fake", version: source.version });
    await heard();
  };

  it("is shown", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    await act(() => elsewhere(source, a("theirs")));
    await waitFor(() => expect(kept.current.state?.doc.a).toBe("theirs"));
  });
  it("is shown when the first answer is older and comes later", async () => {
    const source = new Fake();
    const load = vi.spyOn(source, "load").mockImplementationOnce(async () => {
      const old = source.state();
      await elsewhere(source, a("theirs"));
      return old;
    });
    const kept = await keeping(source);
    expect(kept.current.state?.doc.a).toBe("theirs");
    expect(load).toHaveBeenCalledTimes(2);
  });
  it("is shown when it came after one of this tab's, whose answer was on its way", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    const { save } = source;
    vi.spyOn(source, "save").mockImplementationOnce(async (version, doc) => {
      const mine = await save(version, doc);
      await elsewhere(source, { ...doc, b: "theirs" });
      return mine;
    });
    act(() => kept.current.edit(() => a("mine")));
    await waitFor(() => expect(kept.current.state?.doc).toEqual({ a: "mine", b: "theirs" }));
    expect(kept.current.keeping).toBe("kept");
  });
  it("is told on by whoever loads it: the one that saved may be gone", async () => {
    const said: unknown[] = [];
    channel.onmessage = ({ data }) => said.push(data);
    await keeping(new Fake());
    await waitFor(() => expect(said).toEqual([{ key: "fake", version: 1 }]));
  });
  it("of a higher number asks once only, when the server went back to a copy", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    const load = vi.spyOn(source, "load");
    channel.postMessage({ key: "fake", version: 40 });
    await act(heard);
    act(() => kept.current.edit(() => a("mine")));
    await act(() => kept.current.settled());
    await act(heard);
    expect(load).toHaveBeenCalledOnce();
    expect(kept.current.state?.doc.a).toBe("mine");
  });
});

describe("two tabs", () => {
  const beside = async () => {
    const source = new Fake();
    const kept = await keeping(source);
    await source.save(1, a("theirs"));
    return { source, kept };
  };
  it("that edit different fields are brought together without a question", async () => {
    const { source, kept } = await beside();
    act(() => kept.current.edit((old) => ({ ...old, b: "mine" })));
    await waitFor(() => expect(source.saves.at(-1)).toEqual({ a: "theirs", b: "mine" }));
    expect(kept.current.conflict).toBeNull();
    expect(kept.current.state?.doc).toEqual({ a: "theirs", b: "mine" });
  });
  it("that edit the same field ask; keeping mine is one more step", async () => {
    const { source, kept } = await beside();
    act(() => kept.current.edit(() => a("mine")));
    await waitFor(() => expect(kept.current.conflict?.theirs.doc.a).toBe("theirs"));
    expect(kept.current.keeping).toBe("here");
    act(() => kept.current.keepMine());
    await act(() => kept.current.settled());
    expect(source.steps.map((one) => one.a)).toEqual(["first", "theirs", "mine"]);
    expect(kept.current.conflict).toBeNull();
  });
  it("keeping mine leaves what only the other changed", async () => {
    const source = new Fake();
    const kept = await keeping(source);
    await source.save(1, { a: "theirs", b: "theirs too" });
    act(() => kept.current.edit(() => a("mine")));
    await waitFor(() => expect(kept.current.conflict).not.toBeNull());
    act(() => kept.current.keepMine());
    await act(() => kept.current.settled());
    expect(source.steps.at(-1)).toEqual({ a: "mine", b: "theirs too" });
  });
  it("edits made while a conflict waits belong to mine", async () => {
    const { source, kept } = await beside();
    act(() => kept.current.edit(() => a("mine")));
    await waitFor(() => expect(kept.current.conflict).not.toBeNull());
    act(() => kept.current.edit((old) => a(`${old.a} and more`)));
    act(() => kept.current.keepMine());
    await act(() => kept.current.settled());
    expect(source.steps.at(-1)?.a).toBe("mine and more");
  });
  it("may also take theirs", async () => {
    const { source, kept } = await beside();
    act(() => kept.current.edit(() => a("mine")));
    await waitFor(() => expect(kept.current.conflict).not.toBeNull());
    act(() => kept.current.takeTheirs());
    await waitFor(() => expect(kept.current.state?.doc.a).toBe("theirs"));
    act(() => kept.current.edit(() => a("onwards")));
    await act(() => kept.current.settled());
    expect(source.steps.at(-1)?.a).toBe("onwards");
  });
});
