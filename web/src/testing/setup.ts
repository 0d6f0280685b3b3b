import { cleanup } from "@testing-library/react";
import { afterEach } from "vitest";

afterEach(cleanup);

// jsdom lays nothing out, so it has nowhere to scroll
if (typeof Element !== "undefined") Element.prototype.scrollIntoView = () => undefined;
