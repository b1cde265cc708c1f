import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Schemas } from "../../api/client";
import { newId } from "../../domain/ids";
import type { NewEvent, QueuedEvent, QueueStorage, RefusedEvent } from "../../domain/tapQueue";

type Run = Schemas["RunOut"];
type Kept = QueuedEvent & { refused?: string };

interface BenchStore extends DBSchema {
  pending: { key: string; value: Kept; indexes: { runId: string } };
  device: { key: "this"; value: { name: string; sequence: number } };
  runs: { key: string; value: Run };
}

/** Of a kept run's list only the end: what it needs to go on is its state. */
const EVENTS_KEPT = 60;
const RUNS_KEPT = 20;
let opened: Promise<IDBPDatabase<BenchStore>> | undefined;

function store(): Promise<IDBPDatabase<BenchStore>> {
  opened ??= openDB<BenchStore>("kessik-bench", 2, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore("pending", { keyPath: "id" }).createIndex("runId", "runId");
        db.createObjectStore("device");
      }
      if (from < 2) db.createObjectStore("runs", { keyPath: "id" });
    },
  });
  return opened;
}

/**
 * Events wait on this device's disk; the sequence number is given in the same transaction that
 * keeps them.
 */
export const queueStorage: QueueStorage = {
  async add(events: readonly NewEvent[]): Promise<QueuedEvent[]> {
    const db = await store();
    const tx = db.transaction(["pending", "device"], "readwrite", { durability: "strict" });
    const device = (await tx.objectStore("device").get("this")) ?? { name: newId(), sequence: 0 };
    const queued = events.map((event, i) => ({
      ...event,
      device: device.name,
      device_sequence: device.sequence + 1 + i,
    }));
    const next = { name: device.name, sequence: device.sequence + events.length };
    await Promise.all([
      tx.objectStore("device").put(next, "this"),
      ...queued.map((each) => tx.objectStore("pending").put(each)),
      tx.done,
    ]);
    return queued;
  },
  async remove(id: string): Promise<void> {
    await (await store()).delete("pending", id);
  },
  async pending(runId: string): Promise<QueuedEvent[]> {
    const found = await (await store()).getAllFromIndex("pending", "runId", runId);
    return found
      .filter((e) => e.refused === undefined)
      .sort((a, b) => a.device_sequence - b.device_sequence);
  },
  async refuse({ event, message }: RefusedEvent): Promise<void> {
    await (await store()).put("pending", { ...event, refused: message });
  },
  async refused(runId: string): Promise<RefusedEvent[]> {
    const found = await (await store()).getAllFromIndex("pending", "runId", runId);
    return found.flatMap(({ refused, ...event }) =>
      refused === undefined ? [] : [{ event, message: refused }],
    );
  },
};

/** The name this device has in the log. */
export async function deviceName(): Promise<string> {
  const tx = (await store()).transaction("device", "readwrite", { durability: "strict" });
  const known = await tx.store.get("this");
  const device = known ?? { name: newId(), sequence: 0 };
  if (!known) await tx.store.put(device, "this");
  await tx.done;
  return device.name;
}

/**
 * Keep the run as last acknowledged, with its bench card, to go on from while the server is away.
 */
export async function keepRun(run: Run): Promise<void> {
  const db = await store();
  await db.put("runs", { ...run, log: run.log.slice(-EVENTS_KEPT) });
  const keys = await db.getAllKeys("runs");
  if (keys.length > RUNS_KEPT)
    await db.delete("runs", keys.find((key) => key !== run.id) as string);
}

export async function keptRun(runId: string): Promise<Run | undefined> {
  return (await store()).get("runs", runId);
}
