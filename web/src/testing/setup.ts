import { afterEach } from "vitest";

// most units need no page, and what clears one after each test is slow to load
if (typeof document !== "undefined") {
  const { cleanup } = await import("@testing-library/react");
  afterEach(cleanup);
  // jsdom lays nothing out, so it has nowhere to scroll
  Element.prototype.scrollIntoView = () => undefined;
}
