import { describe, expect, it, vi } from "vitest";
import { Pump } from "./pump";

interface Sent {
  ask: string;
  done: (result: string) => void;
  fail: (error: Error) => void;
}

function rig() {
  const sent: Sent[] = [];
  const onResult = vi.fn();
  const onError = vi.fn();
  const send = (ask: string) => new Promise<string>((done, fail) => sent.push({ ask, done, fail }));
  return { sent, onResult, onError, pump: new Pump(send, onResult, onError) };
}

const soon = () => new Promise((done) => setTimeout(done, 0));

describe("the pump", () => {
  it("keeps one request in flight and then sends only the newest", async () => {
    const { sent, onResult, pump } = rig();
    for (const ask of ["a", "b", "c", "d"]) pump.push(ask);
    expect(sent.map((one) => one.ask)).toEqual(["a"]);
    sent[0]?.done("A");
    await soon();
    expect(sent.map((one) => one.ask)).toEqual(["a", "d"]);
    sent[1]?.done("D");
    await soon();
    expect(onResult.mock.calls).toEqual([
      ["A", "a", false],
      ["D", "d", true],
    ]);
  });
  it("always ends on the last, however many come", async () => {
    const { sent, onResult, pump } = rig();
    for (let n = 0; n < 50; n += 1) {
      pump.push(String(n));
      if (n % 7 === 0) {
        sent.at(-1)?.done(`done ${sent.at(-1)?.ask ?? ""}`);
        await soon();
      }
    }
    while (onResult.mock.lastCall?.[2] !== true) {
      sent.at(-1)?.done(`done ${sent.at(-1)?.ask ?? ""}`);
      await soon();
    }
    expect(onResult.mock.lastCall).toEqual(["done 49", "49", true]);
  });
  it("goes on after an error and says whether the newest failed", async () => {
    const { sent, onResult, onError, pump } = rig();
    pump.push("a");
    pump.push("b");
    sent[0]?.fail(new Error("no"));
    await soon();
    expect(onError).toHaveBeenLastCalledWith(expect.any(Error), false);
    sent[1]?.fail(new Error("again"));
    await soon();
    expect(onError).toHaveBeenLastCalledWith(expect.any(Error), true);
    pump.push("c");
    sent[2]?.done("C");
    await soon();
    expect(onResult).toHaveBeenLastCalledWith("C", "c", true);
  });
});
