// @vitest-environment jsdom
import { describe, expect, it } from "vitest";
import { csrfToken, Refused, Unreachable, unwrap } from "./client";

const problem = {
  type: "/problems/stale",
  title: "stale",
  status: 409,
  detail: "It was saved elsewhere.",
  faults: [],
  used_by: [],
  current: null,
};

describe("answers", () => {
  it("give their data", async () => {
    await expect(unwrap(Promise.resolve({ data: 5, response: new Response() }))).resolves.toBe(5);
  });
  it("refusals carry the server's words and their code", async () => {
    const refused = unwrap(
      Promise.resolve({ error: problem, response: new Response(null, { status: 409 }) }),
    );
    await expect(refused).rejects.toThrow("It was saved elsewhere.");
    await refused.catch((error: unknown) => {
      expect(error).toBeInstanceOf(Refused);
      expect((error as Refused).is("stale")).toBe(true);
      expect((error as Refused).is("in_use")).toBe(false);
    });
  });
  it("a failure without words says its status", async () => {
    const failed = unwrap(
      Promise.resolve({ error: "<html>", response: new Response(null, { status: 500 }) }),
    );
    await expect(failed).rejects.toThrow("Tumbrel failed at this (500). Nothing was changed.");
  });
  it("no answer at all is told as such", async () => {
    await expect(unwrap(Promise.reject(new TypeError("fetch failed")))).rejects.toBeInstanceOf(
      Unreachable,
    );
  });
  it("the page's token is read from its cookie", () => {
    document.cookie = "other=1";
    document.cookie = "tumbrel_csrf_=abc";
    expect(csrfToken()).toBe("abc");
  });
});
