import type { QueryKey } from "@tanstack/react-query";
import { installation } from "./installation";

interface Saved {
  key: string;
  version: number;
}

type Hear = (version: number) => void;

const hearers = new Map<string, Set<Hear>>();
let channel: BroadcastChannel | null = null;

function open(): BroadcastChannel | null {
  if (channel === null && "BroadcastChannel" in globalThis) {
    channel = new BroadcastChannel(`tumbrel.${installation()}`);
    channel.onmessage = ({ data }: MessageEvent<Saved>) =>
      hearers.get(data.key)?.forEach((hear) => hear(data.version));
  }
  return channel;
}

/** Tell the other tabs that a document was saved. */
export function tellTabs(key: QueryKey, version: number): void {
  open()?.postMessage({ key: key.join("."), version } satisfies Saved);
}

/** Hear of saves of a document in other tabs; gives back how to stop. */
export function hearTabs(key: QueryKey, hear: Hear): () => void {
  open();
  const name = key.join(".");
  const those = hearers.get(name) ?? new Set<Hear>();
  hearers.set(name, those.add(hear));
  return () => those.delete(hear);
}
