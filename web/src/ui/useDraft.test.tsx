// @vitest-environment jsdom
import { act, renderHook } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { useDraft, useDraftOf } from "./useDraft";

const FIRST = { low: 5, high: 20 };

beforeEach(() => sessionStorage.clear());

describe("what is typed and not taken yet", () => {
  it("is there again after going elsewhere, until it is taken", () => {
    const before = renderHook(() => useDraft("table"));
    act(() => before.result.current[1]("a; stop"));
    before.unmount();
    const after = renderHook(() => useDraft("table"));
    expect(after.result.current[0]).toBe("a; stop");
    act(() => after.result.current[1](""));
    expect(sessionStorage).toHaveLength(0);
  });
  it("fields keep what was changed, over what they are first now", () => {
    const before = renderHook(() => useDraftOf("days", FIRST));
    act(() => before.result.current[1]({ low: -3 }));
    expect(before.result.current[0]).toEqual({ low: -3, high: 20 });
    before.unmount();
    const after = renderHook(() => useDraftOf("days", { ...FIRST, high: 30 }));
    expect(after.result.current[0]).toEqual({ low: -3, high: 30 });
    act(() => after.result.current[2]());
    expect(after.result.current[0]).toEqual({ low: 5, high: 30 });
  });
});
