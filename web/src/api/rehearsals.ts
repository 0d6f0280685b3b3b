import pLimit from "p-limit";
import type { PlanDocument, Rehearsal } from "../domain/types";
import { sendAtOnce } from "./client";

/** Rows of all courses that are kept: a dozen rehearsals of a few days, one or two of a month. */
const MOST_ROWS = 60_000;

/**
 * Rehearsals by their document. A rehearsal depends on nothing else, so what the strip has already
 * asked aside is there at once when it is chosen, or taken back.
 */
export class Rehearsals {
  private readonly known = new Map<string, Rehearsal>();
  private rows = 0;

  constructor(
    private readonly send: (
      text: string,
      aside: boolean,
      signal?: AbortSignal,
    ) => Promise<Rehearsal>,
    private readonly most = MOST_ROWS,
  ) {}

  async of(document: PlanDocument, aside: boolean, signal?: AbortSignal): Promise<Rehearsal> {
    const text = JSON.stringify(document);
    const known = this.known.get(text);
    if (known !== undefined) {
      this.known.delete(text); // used last, forgotten last
      this.known.set(text, known);
      return known;
    }
    const told = await this.send(text, aside, signal);
    if (!this.known.has(text)) this.rows += rowsOf(told);
    this.known.set(text, told);
    this.forget();
    return told;
  }

  private forget(): void {
    for (const [text, told] of this.known) {
      if (this.rows <= this.most) return;
      this.known.delete(text);
      this.rows -= rowsOf(told);
    }
  }
}

function rowsOf(told: Rehearsal): number {
  return told.cameras.reduce((sum, camera) => sum + camera.course.t_ms.length, 0);
}

const rehearsals = new Rehearsals((text, aside, signal) =>
  sendAtOnce<Rehearsal>(`/api/rehearsals?aside=${String(aside)}`, "application/json", text, signal),
);

/** So many are asked aside at once: a browser has six connections, for saves and what is opened too. */
const ASIDE_AT_ONCE = 2;
const inTurn = pLimit(ASIDE_AT_ONCE);

export function rehearse(document: PlanDocument): Promise<Rehearsal> {
  return rehearsals.of(document, false);
}

/** What another choice would give: the server lets edits go first. Nobody waits for what is aborted. */
export function rehearseAside(document: PlanDocument, signal?: AbortSignal): Promise<Rehearsal> {
  return inTurn(() => {
    signal?.throwIfAborted();
    return rehearsals.of(document, true, signal);
  });
}
