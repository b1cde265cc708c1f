import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, body, type Schemas } from "../api/client";
import type { Log } from "../api/events";
import { clock, counted, typedNumber } from "../domain/format";
import { LIMITS } from "../domain/limits.gen";
import { OUTCOMES, SEEN } from "../domain/outcomes";
import { Tick } from "../ui/Tick";

type Run = Schemas["RunOut"];
type Event = Schemas["EventOut"];
const ENDS = new Set(["stop", "abandon"]);
const CORRECTABLE = new Set(["cut", "reading", "outcome", "note", "spoiled", "accept", "strop"]);

/**
 * Every event, newest first; an earlier one can be corrected or struck out, and the old value stays
 * to be seen.
 */
export function RunLog({
  run,
  log,
  whole: shownWhole = false,
}: {
  run: Run;
  log: Log;
  /** On a page of its own, at its full height. */
  whole?: boolean;
}) {
  const [open, setOpen] = useState<string | null>(null);
  const [all, setAll] = useState(shownWhole);
  const [showsCuts, setShowsCuts] = useState(!shownWhole);
  const whole = useQuery({
    queryKey: ["run-log", run.id],
    queryFn: () =>
      body(api.GET("/api/runs/{run_id}/log", { params: { path: { run_id: run.id } } })),
    enabled: all,
  });
  const first = run.log[0]?.position ?? 0;
  const every = [...(whole.data ?? []).filter((e) => e.position < first), ...run.log];
  const events = every.filter((e) => showsCuts || e.kind !== "cut");
  const withdrawn = new Set(run.state.withdrawn);
  const struckNow = run.state.checks.filter((c) => c.struck).map((c) => c.event_id);
  const inForce = every.filter((e) => !run.put_right[e.id]);
  const strikes = inForce.filter((e) => e.kind === "strike").map((e) => String(e.payload.target));
  const struck = new Set([...struckNow, ...strikes]);
  const now = new Map(run.state.checks.map((c) => [c.event_id, c.force_gf ?? c.value]));
  const righted = new Map(
    inForce.filter((e) => e.kind === "correction").map((e) => [String(e.payload.target), e]),
  );
  return (
    <section
      aria-label="List of events"
      className={`flex flex-col pt-2 ${shownWhole ? "" : "h-[372px] overflow-y-auto"}`}
    >
      <div className="flex items-baseline justify-between gap-4">
        <h2 className="font-semibold">Events, newest first</h2>
        {shownWhole ? (
          <span className="text-note">
            <Tick label="cuts, too" checked={showsCuts} onTick={setShowsCuts} />
          </span>
        ) : null}
        <a
          className="text-note underline underline-offset-4"
          href={`/api/runs/${run.id}/log.csv`}
          download
        >
          Save as a table
        </a>
      </div>
      <ol>
        {events.reverse().map((e) => {
          const gone = withdrawn.has(e.id) || struck.has(e.id);
          const changeable = (CORRECTABLE.has(e.kind) || e.not_understood !== "") && !gone;
          return (
            <li key={e.id} className="border-b border-line py-1.5">
              <div className="flex items-center gap-3">
                <span className="w-17 shrink-0 text-note text-ink-2">{clock(e.client_time)}</span>
                <span className={`flex-1 ${gone ? "text-ink-2 line-through" : ""}`}>
                  {said(e, now.get(e.id))}
                  {rightedTo(e, righted.get(e.id))} <Picture event={e} />
                </span>
                {changeable ? (
                  <button
                    type="button"
                    className="min-h-8 cursor-pointer text-note underline underline-offset-4"
                    onClick={() => setOpen(open === e.id ? null : e.id)}
                  >
                    Correct
                  </button>
                ) : null}
                {ENDS.has(e.kind) && !gone && run.state.status !== "cutting" ? (
                  <button
                    type="button"
                    className="min-h-8 cursor-pointer text-note underline underline-offset-4"
                    onClick={() => void log("correction", { target: e.id, becomes: null })}
                  >
                    Reopen the run
                  </button>
                ) : null}
                {run.put_right[e.id] ? (
                  <button
                    type="button"
                    className="min-h-8 cursor-pointer text-note underline underline-offset-4"
                    onClick={() =>
                      void log("correction", { target: run.put_right[e.id] ?? "", becomes: null })
                    }
                  >
                    Put back
                  </button>
                ) : null}
              </div>
              {open === e.id ? <Correct event={e} log={log} onDone={() => setOpen(null)} /> : null}
            </li>
          );
        })}
      </ol>
      {run.earlier_events > 0 && !whole.data ? (
        <button
          type="button"
          className="min-h-11 cursor-pointer self-start underline underline-offset-4"
          onClick={() => setAll(true)}
        >
          Show {run.earlier_events} earlier events
        </button>
      ) : null}
    </section>
  );
}

/** What a later correction made of an event; its old value stays to be seen beside it. */
function rightedTo(e: Event, correction: Event | undefined): string {
  const becomes = correction?.payload.becomes as Record<string, unknown> | null | undefined;
  if (!becomes || e.kind === "reading" || becomes.picture) return "";
  return `, corrected to ${Object.values(becomes).join(", ")}`;
}

function pictureOf(e: Event): string {
  const becomes = e.payload.becomes as Record<string, unknown> | null | undefined;
  return String(e.payload.picture ?? becomes?.picture ?? "");
}

function Picture({ event }: { event: Event }) {
  const picture = pictureOf(event);
  if (!picture) return null;
  return (
    <a
      href={`/api/pictures/${picture}`}
      target="_blank"
      rel="noreferrer"
      className="underline underline-offset-4"
    >
      see it
    </a>
  );
}

function said(e: Event, now: number | null | undefined): string {
  const p = e.payload;
  if (e.not_understood)
    return `${e.kind}: not understood (${e.not_understood}); left out of every sum`;
  if (e.kind === "cut")
    return `${Number(p.amount) === 1 ? "cut" : `${p.amount} cuts`} after ${counted(e.count_at)}`;
  if (e.kind === "reading") {
    const unit = p.unit ? ` ${p.unit}` : "";
    const changed =
      now !== undefined && now !== null && now !== Number(p.value)
        ? `, corrected to ${now}${unit}`
        : "";
    const what = (p.check ?? "force") === "force" ? "" : `${p.check} `;
    return `${what}${p.value}${unit} at ${counted(e.count_at)}${changed}`;
  }
  if (e.kind === "check_planned") return `told to check at ${p.next_count}`;
  if (e.kind === "stage")
    return typeof p.count === "number"
      ? `${p.stage} lost at ${p.count}`
      : `${p.stage} not lost after all`;
  if (e.kind === "note") return `note: ${p.text}`;
  if (e.kind === "strike") return `an entry struck out: ${p.reason}`;
  if (e.kind === "correction" && pictureOf(e)) return "a picture of the look before";
  if (e.kind === "correction")
    return p.becomes ? `put right: ${Object.values(p.becomes).join(", ")}` : "a step taken back";
  if (e.kind === "stop") return `stopped${p.reason ? `: ${p.reason}` : ""}`;
  return (
    {
      start: "run started",
      spoiled: `spoiled cut at ${counted(e.count_at)}${p.cause ? `, ${p.cause}` : ""}`,
      pause: "break",
      resume: "went on",
      abandon: `abandoned: ${p.reason}`,
      outcome: `${String(p.check).replace("_", " ")}: ${p.outcome}, at ${counted(e.count_at)}`,
      takeover: "the count was taken over",
      accept: `accepted what the other device proposed`,
      strop: `${p.strokes} strokes on the strop`,
    }[e.kind] ?? e.kind
  );
}

const FIELD = "min-h-11 min-w-0 rounded-edge border-[1.5px] border-line bg-sheet px-2";
const LINK = "min-h-11 cursor-pointer px-2 font-semibold underline underline-offset-4";

/** Put an earlier event right, strike a reading out with a reason, or take any other step back. */
function Correct({ event, log, onDone }: { event: Event; log: Log; onDone: () => void }) {
  const [reason, setReason] = useState("");
  const strike = (e: FormEvent) => {
    e.preventDefault();
    if (reason.trim()) void log("strike", { target: event.id, reason: reason.trim() }).then(onDone);
  };
  const become = (becomes: Record<string, unknown> | null) =>
    void log("correction", { target: event.id, becomes }).then(onDone);
  return (
    <div className="mt-2 flex flex-col gap-2 pl-20">
      <RightValue event={event} onRight={become} />
      {event.kind === "reading" || event.kind === "outcome" || event.not_understood ? (
        <form onSubmit={strike} className="flex gap-2">
          <input
            aria-label="Reason to strike it out"
            placeholder="reason"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            className={`${FIELD} flex-1`}
          />
          <button type="submit" className={`${LINK} text-rust`}>
            Strike it out
          </button>
        </form>
      ) : (
        <button
          type="button"
          className={`${LINK} self-start text-rust`}
          onClick={() => become(null)}
        >
          Take it back
        </button>
      )}
    </div>
  );
}

function RightValue({
  event,
  onRight,
}: {
  event: Event;
  onRight: (becomes: Record<string, unknown>) => void;
}) {
  const { kind, payload } = event;
  const name = {
    reading: "value",
    cut: "amount",
    note: "text",
    outcome: "outcome",
    strop: "strokes",
  }[kind];
  const [typed, setTyped] = useState(String(name ? (payload[name] ?? "") : ""));
  if (!name || event.not_understood) return null;
  if (kind === "outcome") {
    const known = (payload.check === "inspect" ? SEEN : OUTCOMES).filter(
      ([, outcome]) => outcome !== payload.outcome,
    );
    return (
      <div className="flex flex-wrap gap-2">
        {known.map(([, outcome, words]) => (
          <button key={outcome} type="button" className={LINK} onClick={() => onRight({ outcome })}>
            {words}
          </button>
        ))}
      </div>
    );
  }
  const number = typedNumber(typed);
  const most =
    { reading: LIMITS.force_gf, cut: LIMITS.cuts_at_once, strop: LIMITS.strokes }[kind as "reading"]
      ?.most ?? 0;
  const fits =
    kind === "note"
      ? typed.trim() !== ""
      : typeof number === "number" && number > 0 && number <= most;
  const labels: Record<string, string> = {
    reading: "Right reading, gf",
    cut: "Right amount",
    note: "Right words",
    strop: "Right number of strokes",
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (fits) onRight({ [name]: kind === "note" ? typed.trim() : number });
      }}
      className="flex gap-2"
    >
      <input
        aria-label={labels[kind]}
        inputMode={kind === "note" ? "text" : "decimal"}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        aria-invalid={!fits}
        className={`${FIELD} ${kind === "note" ? "flex-1" : "w-24"} aria-invalid:border-rust`}
      />
      <button type="submit" className={LINK}>
        Correct it
      </button>
    </form>
  );
}
