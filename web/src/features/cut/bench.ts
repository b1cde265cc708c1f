import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { Away, api, body, Refused, type Schemas } from "../../api/client";
import type { EventBody, Log } from "../../api/events";
import { useFollow } from "../../api/follow";
import { runQuery } from "../../api/queries";
import { localTime } from "../../domain/format";
import { newId } from "../../domain/ids";
import { type QueuedEvent, type Sent, TapQueue } from "../../domain/tapQueue";
import { acknowledged, lacks, show, told } from "./projection";
import { deviceName, keepRun, keptRun, queueStorage } from "./queueStorage";

export type Run = Schemas["RunOut"];
export type InstrumentNews = Schemas["InstrumentNewsOut"];
/** What this device has not sent yet, and what was refused. */
export type Waiting = ReturnType<TapQueue["snapshot"]>;
export type { Log };

const REPLANS = new Set<string>(["reading", "outcome", "strike", "correction"]);
/** An answer that never came, of a server that was busy or away, is asked for again. */
const PLANS_AGAIN_MS = 5000;
/** Clocks of two devices are never quite the same; from here on it is said. */
const CLOCK_OFF_MIN = 10;

/** What is found of a run, and what the strop brings back, is told with the whole run alone. */
const hasEnded = (state: Run["state"]) =>
  state.status === "stopped" || state.status === "abandoned";

/** The run at the bench: its queue, its state, and the few things a hand can do. */
export function useBench(runId: string, onInstrument: (news: InstrumentNews) => void) {
  const queries = useQueryClient();
  const query = useQuery(runQuery(runId));
  const run = query.data;
  const [me, setMe] = useState("");
  const [clockOffMin, setClockOff] = useState(0);
  useEffect(() => {
    void deviceName().then(setMe);
    void keptRun(runId).then((kept) => {
      if (kept && !queries.getQueryData(["run", runId]))
        queries.setQueryData<Run>(["run", runId], kept);
    });
  }, [queries, runId]);
  useEffect(() => {
    if (run) void keepRun(run);
  }, [run]);

  const plan = useCallback(async () => {
    try {
      const after = queries.getQueryData<Run>(["run", runId])?.state.position ?? 0;
      const params = { path: { run_id: runId }, query: { after } };
      const come = await body(api.POST("/api/runs/{run_id}/plan", { params }));
      queries.setQueryData<Run>(["run", runId], (known) => (known ? told(known, come) : known));
    } catch (error) {
      if (!(error instanceof Away || error instanceof Refused)) throw error;
    }
  }, [queries, runId]);

  const send = useCallback(
    async (event: QueuedEvent): Promise<Sent> => {
      const { id, runId: _run, ...sent } = event;
      try {
        const ack = await body(
          api.PUT("/api/runs/{run_id}/events/{event_id}", {
            params: { path: { run_id: runId, event_id: id } },
            body: sent as EventBody,
          }),
        );
        const before = queries.getQueryData<Run>(["run", runId]);
        if (before) queries.setQueryData<Run>(["run", runId], acknowledged(before, event, ack));
        if (before && (lacks(before, ack.state) || hasEnded(ack.state)))
          void queries.invalidateQueries({ queryKey: ["run", runId] });
        if (REPLANS.has(event.kind)) void plan();
        return { kind: "taken" };
      } catch (error) {
        // A reading of an instrument has one id whoever hears it: a second device that heard it,
        // too, has nothing to add.
        if (error instanceof Refused && error.at("id") && event.payload.instrument)
          return { kind: "taken" };
        if (error instanceof Refused && error.problem.field)
          return { kind: "refused", message: error.message };
        return error instanceof Refused ? { kind: "away", why: error.message } : { kind: "away" };
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

  const seen = run?.state.position;
  useFollow(seen === undefined ? null : () => `/api/runs/${runId}/follow?after=${seen}`, (news) => {
    if (news.run) {
      const { run: told_ } = news;
      setClockOff((Date.now() - Date.parse(told_.server_utc)) / 60000);
      const before = queries.getQueryData<Run>(["run", runId]);
      if (before) queries.setQueryData<Run>(["run", runId], told(before, told_));
      const ended = told_.state.status === "stopped" || told_.state.status === "abandoned";
      if (
        before &&
        (ended || before.state.status === "stopped") &&
        before.state.position < told_.state.position
      )
        void query.refetch();
      queue.wake();
    }
    if (news.instrument) onInstrument(news.instrument);
  });

  const state = run?.state;
  const stale = Boolean(
    state && !state.plan_is_current && state.status !== "stopped" && state.status !== "abandoned",
  );
  const caughtUp = waiting.pending.length === 0 && !waiting.away;
  // A plan is not made while the log grows under it: asked for again at each position where it
  // still stands out.
  const standsOutAt = stale && caughtUp ? state?.position : undefined;
  useEffect(() => {
    if (standsOutAt === undefined) return;
    void plan();
    const again = setInterval(() => void plan(), PLANS_AGAIN_MS);
    return () => clearInterval(again);
  }, [standsOutAt, plan]);

  const shown = run ? show(run, waiting.pending, me, waiting.away) : null;
  /**
   * Counts are stamped from what is known at the stroke itself; what is drawn may lag behind a fast
   * hand.
   */
  const log: Log = useCallback(
    (kind, payload, id = newId(), countAt) => {
      const known = queries.getQueryData<Run>(["run", runId]);
      const count_at = countAt ?? (known ? show(known, queue.snapshot().pending, me).count : 0);
      return queue.push({
        id,
        runId,
        kind,
        last_seen_position: known?.state.position ?? 0,
        count_at,
        client_time: localTime(new Date()),
        payload: payload ?? {},
      });
    },
    [queries, queue, runId, me],
  );
  const clock = Math.abs(clockOffMin) >= CLOCK_OFF_MIN ? clockOffMin : 0;
  return { query, run, shown, waiting, log, queue, clockOffMin: clock };
}
