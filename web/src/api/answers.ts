/** After how long what had no answer is asked again. */
export const AGAIN_MS = 5_000;

type Hear = () => void;

const hearers = new Set<Hear>();

/** The server has answered something: whoever waits for it may try again. */
export function answered(): void {
  for (const hear of [...hearers]) hear();
}

/** Hear when the server answers, or the machine is on the network again. */
export function whenAnswered(hear: Hear): () => void {
  hearers.add(hear);
  return () => hearers.delete(hear);
}
