/**
 * The tap queue: what is done at the bench is kept on this device first, then sent in order,
 * exactly once.
 * It knows nothing of the job; storage and sending are handed in.
 */

export interface QueuedEvent {
  readonly id: string;
  readonly runId: string;
  readonly kind: string;
  readonly device: string;
  readonly device_sequence: number;
  readonly last_seen_position: number;
  readonly count_at: number;
  readonly client_time: string;
  readonly payload: Record<string, unknown>;
}

export type NewEvent = Omit<QueuedEvent, "device" | "device_sequence">;

export interface QueueStorage {
  /** Keep events durably, all or none, with this device's name and its next sequence numbers. */
  add(events: readonly NewEvent[]): Promise<QueuedEvent[]>;
  remove(id: string): Promise<void>;
  pending(runId: string): Promise<QueuedEvent[]>;
  /**
   * Keep what the server refused until the tester has seen it: in one step with taking it off the
   * queue.
   */
  refuse(refused: RefusedEvent): Promise<void>;
  refused(runId: string): Promise<RefusedEvent[]>;
}

export interface RefusedEvent {
  readonly event: QueuedEvent;
  readonly message: string;
}

/**
 * Only what the server refuses at a field is set aside; after any other answer the event waits and
 * is sent again.
 */
export type Sent =
  | { kind: "taken" }
  | { kind: "refused"; message: string }
  | { kind: "away"; why?: string };

export interface QueueView {
  readonly pending: readonly QueuedEvent[];
  readonly away: boolean;
  /** Why nothing is taken, where the server answers and says so. */
  readonly why: string;
  readonly refused: readonly RefusedEvent[];
}

/** Only what has its number, and so is on this device's disk, is sent. */
const BEING_STORED = 0;
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 4000;

export class TapQueue {
  private view: QueueView = { pending: [], away: false, why: "", refused: [] };
  private readonly listeners = new Set<() => void>();
  private sending = false;
  private wait = FIRST_WAIT_MS;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly unstored: NewEvent[] = [];
  private chain: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly runId: string,
    private readonly storage: QueueStorage,
    private readonly send: (event: QueuedEvent) => Promise<Sent>,
  ) {}

  /** Take up what an earlier page left behind. */
  async open(): Promise<void> {
    const [pending, refused] = await Promise.all([
      this.storage.pending(this.runId),
      this.storage.refused(this.runId),
    ]);
    const known = new Set(pending.map((e) => e.id));
    this.set({
      pending: [...pending, ...this.view.pending.filter((e) => !known.has(e.id))],
      refused,
    });
    void this.flush();
  }

  /** The server was heard of: try at once, whatever the wait. */
  wake(): void {
    this.wait = FIRST_WAIT_MS;
    void this.flush();
  }

  /**
   * Seen at once, and stored in the order they were made in: what a fast hand makes meanwhile is
   * stored together.
   */
  push(event: NewEvent): Promise<void> {
    this.set({
      pending: [...this.view.pending, { ...event, device: "", device_sequence: BEING_STORED }],
    });
    this.unstored.push(event);
    const stored = this.chain.then(() => this.store());
    this.chain = stored.catch(() => undefined);
    return stored;
  }

  private async store(): Promise<void> {
    const events = this.unstored.splice(0);
    if (events.length === 0) return;
    const ids = new Set(events.map((e) => e.id));
    try {
      const queued = new Map((await this.storage.add(events)).map((e) => [e.id, e]));
      this.set({ pending: this.view.pending.map((e) => queued.get(e.id) ?? e) });
    } catch (error) {
      this.set({ pending: this.view.pending.filter((e) => !ids.has(e.id)) });
      throw error;
    }
    void this.flush();
  }

  close(): void {
    clearTimeout(this.timer);
    this.listeners.clear();
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): QueueView => this.view;

  forgetRefused(): void {
    for (const { event } of this.view.refused) void this.storage.remove(event.id);
    this.set({ refused: [] });
  }

  private set(change: Partial<QueueView>): void {
    this.view = { ...this.view, ...change };
    for (const listener of this.listeners) listener();
  }

  private async flush(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    clearTimeout(this.timer);
    try {
      let next = this.view.pending[0];
      while (next && next.device_sequence !== BEING_STORED) {
        const sent = await this.send(next);
        if (sent.kind === "away") {
          this.set({ away: true, why: sent.why ?? "" });
          this.timer = setTimeout(() => void this.flush(), this.wait);
          this.wait = Math.min(this.wait * 2, LONGEST_WAIT_MS);
          return;
        }
        const done = next.id;
        let { refused } = this.view;
        if (sent.kind === "refused") {
          const kept = { event: next, message: sent.message };
          await this.storage.refuse(kept);
          refused = [...refused, kept];
        } else await this.storage.remove(done);
        this.wait = FIRST_WAIT_MS;
        this.set({
          pending: this.view.pending.filter((e) => e.id !== done),
          away: false,
          why: "",
          refused,
        });
        next = this.view.pending[0];
      }
    } finally {
      this.sending = false;
    }
  }
}
