import type { Schemas } from "../../api/client";
import type { Look } from "../../charts/LooksChart";
import type { QueuedEvent } from "../../domain/tapQueue";

type Run = Schemas["RunOut"];

const isLook = (e: { kind: string }) => e.kind === "reading" || e.kind === "outcome";

function unsentLook(e: QueuedEvent): Look {
  const said = e.kind === "outcome" ? String(e.payload.outcome) : null;
  const lamp = e.payload.check === "inspect";
  return {
    id: e.id,
    kind: String(e.payload.check ?? "force"),
    count: e.count_at,
    outcome: lamp && said ? (said === "clean" ? "pass" : "fail") : said,
    seen: lamp && said ? said : "",
    value: e.kind === "reading" ? Number(e.payload.value) : null,
    struck: false,
  };
}

/** What the bench shows: the server's state, and on top of it what this device has not sent yet. */
export interface Shown {
  readonly count: number;
  readonly looks: readonly Look[];
  readonly readings: readonly { eventId: string; count: number; forceGf: number; struck: boolean; waiting: boolean }[];
  readonly due: boolean;
  readonly readingsWanted: number;
  readonly planning: boolean;
  readonly lastTakeable: { id: string; kind: string } | null;
}

/** The run with one event acknowledged; an answer that was overtaken changes nothing. */
export function acknowledged(known: Run, event: QueuedEvent, ack: Schemas["AckOut"]): Run {
  if (known.state.position > ack.state.position) return known;
  const { id, kind, device, count_at, client_time, payload } = event;
  const log = known.log.some((e) => e.id === id)
    ? known.log
    : [...known.log, { id, kind, device, count_at, client_time, payload, position: ack.position }];
  return { ...known, state: ack.state, log };
}

/** Lay the unsent events over the server's state: only counting and listing, no rule of the job. */
export function show(run: Run, pending: readonly QueuedEvent[]): Shown {
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
      .filter((e) => e.kind === "reading" && String(e.payload.check ?? "force") === "force")
      .map((e) => ({
        eventId: e.id,
        count: e.count_at,
        forceGf: Number(e.payload.value),
        struck: false,
        waiting: true,
      })),
  ].filter((r) => !takenBack.has(r.eventId));
  const looks: Look[] = [
    ...run.state.checks.map((c) => ({ ...c, id: c.event_id })),
    ...unsent.filter((e) => e.kind === "outcome" || e.kind === "reading").map(unsentLook),
  ].filter((l) => l.kind !== "force" && !takenBack.has(l.id));
  const unsentReadings = unsent.filter(
    (e) => isLook(e) && String(e.payload.check ?? "force") === run.state.asked && !takenBack.has(e.id),
  ).length;
  const { plan, readings_wanted, confirmation_wanted } = run.state;
  const readingsWanted = Math.max(readings_wanted - unsentReadings, 0);
  const due = readingsWanted > 0 && (confirmation_wanted || (plan !== null && count >= plan.next_count));
  const gone = new Set([...run.state.withdrawn, ...takenBack.keys()]);
  const takeable = [...run.log, ...unsent]
    .filter((e) => (e.kind === "cut" || e.kind === "spoiled" || isLook(e)) && !gone.has(e.id))
    .at(-1);
  return {
    count,
    looks,
    readings,
    due,
    readingsWanted,
    planning: !run.state.plan_is_current || unsentReadings > 0,
    lastTakeable: takeable ? { id: takeable.id, kind: takeable.kind } : null,
  };
}
