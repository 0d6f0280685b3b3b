// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it, vi } from "vitest";

/** Locks as a browser has them, for one page: held by name, asked for, waited for. */
class Locks {
  held = new Set<string>();
  private waiting: (() => void)[] = [];

  query = () => Promise.resolve({ held: [...this.held].map((name) => ({ name })) });

  request = async (
    name: string,
    { ifAvailable = false, signal }: { ifAvailable?: boolean; signal?: AbortSignal },
    work: (lock: object | null) => unknown,
  ) => {
    if (this.held.has(name) && ifAvailable) return work(null);
    while (this.held.has(name)) {
      await new Promise<void>((done, fail) => {
        this.waiting.push(done);
        signal?.addEventListener("abort", () => fail(new Error("too long")));
      });
    }
    this.held.add(name);
    const done = await work({ name });
    this.release(name);
    return done;
  };

  release(name: string) {
    this.held.delete(name);
    for (const go of this.waiting.splice(0)) go();
  }
}

const OLD = "tumbrel.tab.old";
let locks: Locks;

beforeEach(() => {
  vi.resetModules();
  locks = new Locks();
  vi.stubGlobal("navigator", { locks });
  sessionStorage.setItem("tumbrel.tab", "old");
});
afterEach(() => vi.unstubAllGlobals());

it("a reloaded page takes its tab's name again", async () => {
  const { claimTab, liveTabs, thisTab } = await import("./installation");
  await claimTab();
  expect(thisTab()).toBe("old");
  expect(await liveTabs()).toEqual(new Set(["old"]));
});

it("waits, to tell who is there, for the page it replaces to let go", async () => {
  locks.held.add(OLD);
  const { claimTab, liveTabs, thisTab } = await import("./installation");
  await claimTab();
  expect(thisTab()).not.toBe("old");
  const live = liveTabs();
  locks.release(OLD);
  expect(await live).toEqual(new Set([thisTab()]));
});

it("a duplicated tab leaves what the other one holds to it", async () => {
  vi.spyOn(AbortSignal, "timeout").mockImplementation(() => {
    const stop = new AbortController();
    setTimeout(() => stop.abort(), 5);
    return stop.signal;
  });
  locks.held.add(OLD);
  const { claimTab, liveTabs, thisTab } = await import("./installation");
  await claimTab();
  expect(await liveTabs()).toEqual(new Set(["old", thisTab()]));
});
