/**
 * One request in flight, then the newest one asked. Every edit thus ends in a result, a drag shows
 * results while it moves, and what is older than what is shown is dropped.
 */
export class Pump<Ask, Result> {
  private flying = false;
  private waiting: { ask: Ask; revision: number } | null = null;
  private shown = -1;
  private newest = -1;
  private flight: Promise<void> = Promise.resolve();

  constructor(
    private readonly send: (ask: Ask) => Promise<Result>,
    private readonly onResult: (result: Result, ask: Ask, isNewest: boolean) => void,
    private readonly onError: (error: unknown, isNewest: boolean) => void,
  ) {}

  push(ask: Ask): void {
    this.newest += 1;
    this.waiting = { ask, revision: this.newest };
    if (!this.flying) this.flight = this.fly();
  }

  /** Resolves when nothing is in flight or waiting. */
  settled(): Promise<void> {
    return this.flight;
  }

  private async fly(): Promise<void> {
    this.flying = true;
    while (this.waiting !== null) {
      const { ask, revision } = this.waiting;
      this.waiting = null;
      try {
        const result = await this.send(ask);
        if (revision > this.shown) {
          this.shown = revision;
          this.onResult(result, ask, revision === this.newest);
        }
      } catch (error) {
        this.onError(error, revision === this.newest);
      }
    }
    this.flying = false;
  }
}
