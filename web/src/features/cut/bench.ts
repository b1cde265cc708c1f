import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useSyncExternalStore } from "react";
import { Away, api, body, Refused, type Schemas } from "../../api/client";
import { later, runQuery } from "../../api/queries";
import { localTime } from "../../domain/format";
import { newId } from "../../domain/ids";
import { type QueuedEvent, type Sent, TapQueue } from "../../domain/tapQueue";
import { queueStorage } from "./queueStorage";

type Run = Schemas["RunOut"];
type Kind = Schemas["EventBody"]["kind"];
const REPLANS = new Set<string>(["reading", "strike", "correction"]);

/** What the bench shows: the server's state, and on top of it what this device has not sent yet. */
export interface Shown {
  readonly count: number;
  readonly readings: readonly { eventId: string; count: number; forceGf: number; struck: boolean; waiting: boolean }[];
  readonly due: boolean;
  readonly readingsWanted: number;
  readonly planning: boolean;
  readonly lastTakeable: { id: string; kind: string } | null;
}

/** The run at the bench: its queue, its state, and the few things a hand can do. */
export function useBench(runId: string) {
  const queries = useQueryClient();
  const query = useQuery(runQuery(runId));
  const run = query.data;
  const plan = useCallback(async () => {
    try {
      const come = await body(api.POST("/api/runs/{run_id}/plan", { params: { path: { run_id: runId } } }));
      queries.setQueryData<Run>(["run", runId], (known) => later(known, come));
    } catch (error) {
      if (!(error instanceof Away)) throw error;
    }
  }, [queries, runId]);

  const send = useCallback(
    async (event: QueuedEvent): Promise<Sent> => {
      const { id, runId: _run, ...sent } = event;
      try {
        const ack = await body(
          api.PUT("/api/runs/{run_id}/events/{event_id}", {
            params: { path: { run_id: runId, event_id: id } },
            body: { ...sent, kind: sent.kind as Kind },
          }),
        );
        queries.setQueryData<Run>(["run", runId], (known) => (known ? acknowledged(known, event, ack) : known));
        if (REPLANS.has(event.kind)) void plan();
        return { kind: "taken" };
      } catch (error) {
        if (error instanceof Refused) return { kind: "refused", message: error.message };
        return { kind: "away" };
      }
    },
    [queries, runId, plan],
  );

  const queue = useMemo(() => new TapQueue(runId, queueStorage, send), [runId, send]);
  useEffect(() => {
    void queue.open();
    return () => queue.close();
  }, [queue]);
  const waiting = useSyncExternalStore(queue.subscribe, queue.snapshot);
  const state = run?.state;
  const stale = Boolean(state && !state.plan_is_current && state.status !== "stopped" && state.status !== "abandoned");
  useEffect(() => {
    if (stale) void plan();
  }, [stale, plan]);

  const shown = run ? show(run, waiting.pending) : null;
  const latest = useRef({ count: 0, position: 0 });
  if (run && shown) latest.current = { count: shown.count, position: run.state.position };

  const log = useCallback(
    (kind: Kind, payload: Record<string, unknown> = {}) => {
      const { count, position } = latest.current;
      if (kind === "cut") latest.current = { count: count + Number(payload.amount), position };
      return queue.push({
        id: newId(),
        runId,
        kind,
        last_seen_position: position,
        count_at: count,
        client_time: localTime(new Date()),
        payload,
      });
    },
    [queue, runId],
  );
  return { query, run, shown, waiting, log, queue };
}

function acknowledged(known: Run, event: QueuedEvent, ack: Schemas["AckOut"]): Run {
  if (known.state.position > ack.state.position) return known;
  const { id, kind, device, count_at, client_time, payload } = event;
  const log = known.log.some((e) => e.id === id)
    ? known.log
    : [...known.log, { id, kind, device, count_at, client_time, payload, position: ack.position }];
  return { ...known, state: ack.state, log };
}

/** Lay the unsent events over the server's state: only counting and listing, no rule of the job. */
function show(run: Run, pending: readonly QueuedEvent[]): Shown {
  const logged = new Set(run.log.map((e) => e.id));
  const unsent = pending.filter((e) => !logged.has(e.id));
  const takenBack = new Map(unsent.filter((e) => e.kind === "correction").map((e) => [String(e.payload.target), true]));
  const amounts = new Map(
    [...run.log, ...unsent].filter((e) => e.kind === "cut").map((e) => [e.id, Number(e.payload.amount)]),
  );
  let count = run.state.count;
  for (const e of unsent) {
    if (e.kind === "cut") count += Number(e.payload.amount);
    else if (e.kind === "correction") count -= amounts.get(String(e.payload.target)) ?? 0;
  }
  const readings = [
    ...run.state.checks.flatMap((c) =>
      c.force_gf === null
        ? []
        : [{ eventId: c.event_id, count: c.count, forceGf: c.force_gf, struck: c.struck, waiting: false }],
    ),
    ...unsent
      .filter((e) => e.kind === "reading")
      .map((e) => ({
        eventId: e.id,
        count: e.count_at,
        forceGf: Number(e.payload.value),
        struck: false,
        waiting: true,
      })),
  ].filter((r) => !takenBack.has(r.eventId));
  const unsentReadings = unsent.filter((e) => e.kind === "reading" && !takenBack.has(e.id)).length;
  const { plan, readings_wanted, confirmation_wanted } = run.state;
  const readingsWanted = Math.max(readings_wanted - unsentReadings, 0);
  const due = readingsWanted > 0 && (confirmation_wanted || (plan !== null && count >= plan.next_count));
  const gone = new Set([...run.state.withdrawn, ...takenBack.keys()]);
  const takeable = [...run.log, ...unsent]
    .filter((e) => (e.kind === "cut" || e.kind === "reading") && !gone.has(e.id))
    .at(-1);
  return {
    count,
    readings,
    due,
    readingsWanted,
    planning: !run.state.plan_is_current || unsentReadings > 0,
    lastTakeable: takeable ? { id: takeable.id, kind: takeable.kind } : null,
  };
}
