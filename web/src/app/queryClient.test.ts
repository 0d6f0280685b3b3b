// @vitest-environment jsdom
import { onlineManager, QueryObserver } from "@tanstack/react-query";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Unreachable } from "../api/client";
import { queryClient } from "./queryClient";

describe("what asks the server", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    onlineManager.setOnline(false);
  });
  afterEach(() => {
    onlineManager.setOnline(true);
    vi.useRealTimers();
  });
  it("says without a network that there is no answer, and has one when there is", async () => {
    const answer = vi.fn(() => Promise.reject<string>(new Unreachable()));
    const asked = new QueryObserver(queryClient(), { queryKey: ["place"], queryFn: answer });
    const end = asked.subscribe(() => undefined);
    await vi.advanceTimersByTimeAsync(2_000);
    expect(asked.getCurrentResult().error).toBeInstanceOf(Unreachable);
    answer.mockImplementation(() => Promise.resolve("there"));
    await vi.advanceTimersByTimeAsync(6_000);
    expect(asked.getCurrentResult().data).toBe("there");
    end();
  });
  it("asks once more, and no longer, what is refused", async () => {
    const answer = vi.fn(() => Promise.reject<string>(new Error("no such trip")));
    const asked = new QueryObserver(queryClient(), { queryKey: ["gone"], queryFn: answer });
    const end = asked.subscribe(() => undefined);
    await vi.advanceTimersByTimeAsync(30_000);
    expect(answer).toHaveBeenCalledTimes(2);
    end();
  });
});
