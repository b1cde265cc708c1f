import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { newId } from "../../domain/ids";
import type { NewEvent, QueuedEvent, QueueStorage } from "../../domain/tapQueue";

interface BenchStore extends DBSchema {
  pending: { key: string; value: QueuedEvent; indexes: { runId: string } };
  device: { key: "this"; value: { name: string; sequence: number } };
}

let opened: Promise<IDBPDatabase<BenchStore>> | undefined;

function store(): Promise<IDBPDatabase<BenchStore>> {
  opened ??= openDB<BenchStore>("kessik-bench", 1, {
    upgrade(db) {
      db.createObjectStore("pending", { keyPath: "id" }).createIndex("runId", "runId");
      db.createObjectStore("device");
    },
  });
  return opened;
}

/** Events wait on this device's disk; the sequence number is given in the same transaction that keeps them. */
export const queueStorage: QueueStorage = {
  async add(event: NewEvent): Promise<QueuedEvent> {
    const db = await store();
    const tx = db.transaction(["pending", "device"], "readwrite", { durability: "strict" });
    const device = (await tx.objectStore("device").get("this")) ?? { name: newId(), sequence: 0 };
    const next = { name: device.name, sequence: device.sequence + 1 };
    const queued = { ...event, device: next.name, device_sequence: next.sequence };
    await Promise.all([tx.objectStore("device").put(next, "this"), tx.objectStore("pending").put(queued), tx.done]);
    return queued;
  },
  async remove(id: string): Promise<void> {
    await (await store()).delete("pending", id);
  },
  async pending(runId: string): Promise<QueuedEvent[]> {
    const found = await (await store()).getAllFromIndex("pending", "runId", runId);
    return found.sort((a, b) => a.device_sequence - b.device_sequence);
  },
};
