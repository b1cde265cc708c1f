import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useSyncExternalStore } from "react";
import { Away, api, body, Refused, type Schemas } from "../../api/client";
import { later, runQuery } from "../../api/queries";
import { localTime } from "../../domain/format";
import { newId } from "../../domain/ids";
import { type QueuedEvent, type Sent, TapQueue } from "../../domain/tapQueue";
import { acknowledged, show } from "./projection";
import { queueStorage } from "./queueStorage";

type Run = Schemas["RunOut"];
type Kind = Schemas["EventBody"]["kind"];
const REPLANS = new Set<string>(["reading", "outcome", "strike", "correction"]);

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
