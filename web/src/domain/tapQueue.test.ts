import { beforeEach, describe, expect, it, vi } from "vitest";
import {
  type NewEvent,
  type QueuedEvent,
  type QueueStorage,
  type RefusedEvent,
  type Sent,
  TapQueue,
} from "./tapQueue";

/** A device's disk, in memory: survives the queue that wrote it. */
class Disk implements QueueStorage {
  sequence = 0;
  kept: QueuedEvent[] = [];
  async add(events: readonly NewEvent[]): Promise<QueuedEvent[]> {
    const queued = events.map((event) => {
      this.sequence += 1;
      return { ...event, device: "phone", device_sequence: this.sequence };
    });
    this.kept.push(...queued);
    return queued;
  }
  async remove(id: string): Promise<void> {
    this.kept = this.kept.filter((e) => e.id !== id);
  }
  async pending(runId: string): Promise<QueuedEvent[]> {
    return this.kept.filter((e) => e.runId === runId && !this.no.some((r) => r.event.id === e.id));
  }
  no: RefusedEvent[] = [];
  async refuse(refused: RefusedEvent): Promise<void> {
    this.no.push(refused);
  }
  async refused(): Promise<RefusedEvent[]> {
    return this.no.filter((r) => this.kept.some((e) => e.id === r.event.id));
  }
}

const tap = (id: string): NewEvent => ({
  id,
  runId: "run",
  kind: "cut",
  last_seen_position: 0,
  count_at: 0,
  client_time: "2026-05-04T10:00:00+02:00",
  payload: { amount: 1 },
});

const settle = async () => {
  for (let i = 0; i < 20; i += 1) await vi.advanceTimersByTimeAsync(0);
};

describe("the tap queue", () => {
  let disk: Disk;
  let sent: string[];
  let away: boolean;
  const send = async (event: QueuedEvent): Promise<Sent> => {
    if (away) return { kind: "away" };
    sent.push(event.id);
    return { kind: "taken" };
  };
  beforeEach(() => {
    vi.useFakeTimers();
    disk = new Disk();
    sent = [];
    away = false;
  });

  it("sends taps in their order, each once, and forgets them once they are taken", async () => {
    const queue = new TapQueue("run", disk, send);
    await Promise.all(["a", "b", "c"].map((id) => queue.push(tap(id))));
    await settle();
    expect(sent).toEqual(["a", "b", "c"]);
    expect(disk.kept).toEqual([]);
    expect(queue.snapshot().pending).toEqual([]);
  });

  it("keeps taps on disk while the server is away, says so, and catches up by itself", async () => {
    const queue = new TapQueue("run", disk, send);
    away = true;
    await queue.push(tap("a"));
    await queue.push(tap("b"));
    await settle();
    expect(queue.snapshot().away).toBe(true);
    expect(disk.kept.map((e) => e.id)).toEqual(["a", "b"]);
    away = false;
    await vi.advanceTimersByTimeAsync(5000);
    expect(sent).toEqual(["a", "b"]);
    expect(queue.snapshot()).toMatchObject({ away: false, pending: [] });
  });

  it("takes up what a closed page left behind, before anything new", async () => {
    away = true;
    const first = new TapQueue("run", disk, send);
    await first.push(tap("a"));
    first.close();
    away = false;
    const second = new TapQueue("run", disk, send);
    await second.open();
    await second.push(tap("b"));
    await settle();
    expect(sent).toEqual(["a", "b"]);
  });

  it("leaves the taps of another run alone", async () => {
    disk.kept = [{ ...tap("x"), runId: "other", device: "phone", device_sequence: 9 }];
    const queue = new TapQueue("run", disk, send);
    await queue.open();
    await settle();
    expect(sent).toEqual([]);
    expect(disk.kept).toHaveLength(1);
  });

  it("sets a refused event aside with its reason and goes on with the next", async () => {
    const refusing = async (event: QueuedEvent): Promise<Sent> =>
      event.id === "bad" ? { kind: "refused", message: "this run is stopped" } : send(event);
    const queue = new TapQueue("run", disk, refusing);
    await queue.push(tap("bad"));
    await queue.push(tap("good"));
    await settle();
    expect(sent).toEqual(["good"]);
    expect(queue.snapshot().refused.map((r) => r.message)).toEqual(["this run is stopped"]);
    queue.forgetRefused();
    expect(queue.snapshot().refused).toEqual([]);
  });

  it("waits longer each time, but never long, while the server stays away", async () => {
    let tries = 0;
    const counting = async (): Promise<Sent> => {
      tries += 1;
      return { kind: "away" };
    };
    const queue = new TapQueue("run", disk, counting);
    await queue.push(tap("a"));
    await vi.advanceTimersByTimeAsync(20_000);
    expect(tries).toBeGreaterThan(5);
    expect(tries).toBeLessThan(12);
    queue.close();
  });

  it("tells its listeners of every change until they leave", async () => {
    const queue = new TapQueue("run", disk, send);
    const heard = vi.fn();
    const leave = queue.subscribe(heard);
    await queue.push(tap("a"));
    await settle();
    const before = heard.mock.calls.length;
    expect(before).toBeGreaterThanOrEqual(2);
    leave();
    await queue.push(tap("b"));
    await settle();
    expect(heard.mock.calls.length).toBe(before);
  });
});
