import type { Schemas } from "../../api/client";
import type { Look } from "../../charts/LooksChart";
import { type CheckRows, FORCE, rowOf } from "../../domain/checks";
import type { QueuedEvent } from "../../domain/tapQueue";

type Run = Schemas["RunOut"];

const isLook = (e: { kind: string }) => e.kind === "reading" || e.kind === "outcome";

function unsentLook(e: QueuedEvent, rows: CheckRows): Look {
  const said = e.kind === "outcome" ? String(e.payload.outcome) : null;
  const kind = String(e.payload.check ?? FORCE.key);
  const { result } = rowOf(rows, kind);
  const lamp = result === "damage";
  return {
    id: e.id,
    kind,
    count: e.count_at,
    outcome: lamp && said ? (said === "clean" ? "pass" : "fail") : said,
    seen: (lamp || result === "scale") && said ? said : "",
    value: e.kind === "reading" ? Number(e.payload.value) : null,
    struck: false,
  };
}

/** What the bench shows: the server's state, and on top of it what this device has not sent yet. */
export interface Shown {
  readonly count: number;
  readonly looks: readonly Look[];
  readonly readings: readonly {
    eventId: string;
    count: number;
    forceGf: number;
    struck: boolean;
    waiting: boolean;
  }[];
  readonly due: boolean;
  readonly confirming: boolean;
  readonly nextAt: number | null;
  readonly readingsWanted: number;
  readonly planning: boolean;
  /** Where on the edge the next reading is taken, mm from the heel; null without stations. */
  readonly placeMm: number | null;
  readonly lastTakeable: { id: string; kind: string } | null;
  /** Whether this device's taps count, or are proposals to the one that holds the count. */
  readonly holds: boolean;
  readonly proposals: {
    readonly ids: readonly string[];
    readonly amount: number;
    readonly own: number;
  };
  readonly pausedSince: string | null;
}

/** The run with one event acknowledged; an answer that was overtaken changes nothing. */
export function acknowledged(known: Run, event: QueuedEvent, ack: Schemas["AckOut"]): Run {
  if (known.state.position > ack.state.position) return known;
  const { id, kind, device, count_at, client_time, payload } = event;
  const log = known.log.some((e) => e.id === id)
    ? known.log
    : [
        ...known.log,
        {
          id,
          kind,
          device,
          count_at,
          client_time,
          payload,
          position: ack.position,
          not_understood: "",
        },
      ];
  return { ...known, state: withReasons(known, whole(known, ack.state)), log };
}

type State = Run["state"];

/**
 * Whether a state told in part begins behind what is known, so that something is missing in
 * between.
 */
export const lacks = (known: Run, state: State): boolean =>
  state.checks_since > known.state.position;

/** A state told in part, with the checks that were known before. */
function whole(known: Run, state: State): State {
  if (state.checks_since === 0) return state;
  const come = new Set(state.checks.map((c) => c.event_id));
  const before = known.state.checks.filter(
    (c) => c.position <= state.checks_since && !come.has(c.event_id),
  );
  const checks = [...before, ...state.checks].sort(
    (a, b) => a.count - b.count || a.position - b.position,
  );
  return { ...state, checks, checks_since: 0 };
}

/**
 * An acknowledgement does not say why a check is planned; what was said before stands while the
 * plan does.
 */
function withReasons(known: Run, state: Run["state"]): Run["state"] {
  const before = known.state.plan;
  return before && state.plan?.next_count === before.next_count
    ? { ...state, plan: before }
    : state;
}

/**
 * The run with what was pushed: other devices' events, stages and plans of the server, card and
 * pace.
 */
export function told(known: Run, news: Schemas["NewsOut"]): Run {
  if (known.state.position > news.state.position) return { ...known, pace: news.pace };
  const logged = new Set(known.log.map((e) => e.id));
  const log = [...known.log, ...news.log.filter((e) => !logged.has(e.id))].sort(
    (a, b) => a.position - b.position,
  );
  return {
    ...known,
    state: whole(known, news.state),
    log,
    card: news.card,
    pace: news.pace,
    paused_since: news.paused_since,
  };
}

const amountOf = (e: { payload: Record<string, unknown> }) => Number(e.payload.amount);

/** Lay the unsent events over the server's state: only counting and listing, no rule of the job. */
export function show(run: Run, pending: readonly QueuedEvent[], me: string, away = false): Shown {
  const logged = new Set(run.log.map((e) => e.id));
  const unsent = pending.filter((e) => !logged.has(e.id));
  const takenBack = new Map(
    unsent.filter((e) => e.kind === "correction").map((e) => [String(e.payload.target), true]),
  );
  const { count, holds, proposals, pausedSince } = counted(run, unsent, me);
  const readings = [
    ...run.state.checks.flatMap((c) =>
      c.force_gf === null
        ? []
        : [
            {
              eventId: c.event_id,
              count: c.count,
              forceGf: c.force_gf,
              struck: c.struck,
              waiting: false,
            },
          ],
    ),
    ...unsent
      .filter(
        (e) =>
          e.kind === "reading" &&
          !e.payload.stage &&
          String(e.payload.check ?? FORCE.key) === FORCE.key,
      )
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
    ...unsent
      .filter((e) => isLook(e) && !e.payload.stage)
      .map((e) => unsentLook(e, run.method.check_rows)),
  ].filter((l) => l.kind !== FORCE.key && !takenBack.has(l.id));
  const own = unsent.filter(
    (e) =>
      isLook(e) && String(e.payload.check ?? FORCE.key) === run.state.asked && !takenBack.has(e.id),
  );
  const gone = new Set([...run.state.withdrawn, ...takenBack.keys()]);
  const takeable = [...run.log, ...unsent]
    .filter(
      (e) =>
        (["cut", "spoiled", "accept", "strop"].includes(e.kind) || isLook(e)) && !gone.has(e.id),
    )
    .at(-1);
  return {
    count,
    looks,
    readings,
    ...(away && own.length ? fromCard(run, count, own) : fromPlan(run, count, own.length)),
    placeMm: placeAfter(run, own.length),
    planning: !away && (!run.state.plan_is_current || own.length > 0),
    lastTakeable: takeable ? { id: takeable.id, kind: takeable.kind } : null,
    holds,
    proposals,
    pausedSince,
  };
}

/** The station of the reading after those that this device has not sent yet. */
function placeAfter(run: Run, unsent: number): number | null {
  const places = run.state.places_mm;
  return places[unsent % Math.max(places.length, 1)] ?? null;
}

function counted(run: Run, unsent: readonly QueuedEvent[], me: string) {
  const amounts = new Map(
    [...run.log, ...unsent].filter((e) => e.kind === "cut").map((e) => [e.id, amountOf(e)]),
  );
  const waiting = new Map(
    run.state.proposals.map((p) => [p.event_id, { amount: p.amount, own: p.device === me }]),
  );
  let { count, holder } = run.state;
  // Until this device's name is read from its disk, nothing says that another holds the count.
  const mine = (who: string | null) => who === null || who === me || me === "";
  let pausedSince = run.state.status === "paused" ? run.paused_since : null;
  for (const e of unsent) {
    if (e.kind === "cut") {
      pausedSince = null;
      holder ??= me;
      if (mine(holder)) count += amountOf(e);
      else waiting.set(e.id, { amount: amountOf(e), own: true });
    } else if (e.kind === "takeover") holder = me;
    else if (e.kind === "pause") {
      holder = null;
      pausedSince = e.client_time;
    } else if (e.kind === "resume") pausedSince = null;
    else if (e.kind === "accept") {
      for (const id of e.payload.targets as string[]) {
        count += waiting.get(id)?.amount ?? 0;
        waiting.delete(id);
      }
    } else if (e.kind === "correction") {
      const target = String(e.payload.target);
      if (waiting.has(target)) waiting.delete(target);
      else count -= amounts.get(target) ?? 0;
    }
  }
  const each = [...waiting.values()];
  const proposals = {
    ids: [...waiting.keys()],
    amount: each.reduce((sum, p) => sum + p.amount, 0),
    own: each.reduce((sum, p) => sum + (p.own ? p.amount : 0), 0),
  };
  return { count, holds: mine(holder), proposals, pausedSince };
}

function fromPlan(run: Run, count: number, unsent: number) {
  const { plan, readings_wanted, confirmation_wanted } = run.state;
  const readingsWanted = Math.max(readings_wanted - unsent, 0);
  const due =
    readingsWanted > 0 && (confirmation_wanted || (plan !== null && count >= plan.next_count));
  return { due, readingsWanted, confirming: confirmation_wanted, nextAt: plan?.next_count ?? null };
}

/**
 * The server is away: the bench card says what to look at next, and when one more look is wanted.
 */
function fromCard(run: Run, count: number, own: readonly QueuedEvent[]) {
  const { card } = run;
  const last = own.at(-1) as QueuedEvent;
  const here =
    own.filter((e) => e.count_at === last.count_at).length +
    run.state.checks.filter(
      (c) => c.kind === run.state.asked && c.count === last.count_at && !c.struck,
    ).length;
  const beyond =
    (card.confirm_above_gf !== null && Number(last.payload.value) > card.confirm_above_gf) ||
    (card.confirm_on_fail && last.payload.outcome === "fail");
  const confirming = beyond && here < 2;
  const missing = confirming ? 1 : Math.max(card.readings - here, 0);
  const nextAt = missing
    ? last.count_at
    : (card.checks_at.find((at) => at > last.count_at) ?? null);
  const due = nextAt !== null && count >= nextAt;
  return { due, readingsWanted: missing || card.readings, confirming, nextAt };
}
