import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, body, type Schemas } from "../api/client";
import type { Log } from "../api/events";
import { folderAddress } from "../api/folder";
import { clock, counted } from "../domain/format";
import { EVENTS } from "../domain/words.gen";
import { TextButton } from "../ui/TextButton";
import { Tick } from "../ui/Tick";
import { CorrectEntry } from "./CorrectEntry";

type Run = Schemas["RunOut"];
type Event = Schemas["EventOut"];
const facts = (kind: string) => EVENTS[kind as keyof typeof EVENTS];

/**
 * Every event, newest first; an earlier one can be corrected or excluded, and the old value stays
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
          href={folderAddress(`/api/runs/${run.id}/log.csv`)}
          download
        >
          Save as a table
        </a>
      </div>
      <ol>
        {events.reverse().map((e) => {
          const gone = withdrawn.has(e.id) || struck.has(e.id);
          const changeable = (facts(e.kind)?.correctable || e.not_understood !== "") && !gone;
          return (
            <li key={e.id} className="border-b border-line py-1.5">
              <div className="flex items-center gap-3">
                <span className="w-17 shrink-0 text-note text-ink-2">{clock(e.client_time)}</span>
                <span className={`flex-1 ${gone ? "text-ink-2 line-through" : ""}`}>
                  {said(e, now.get(e.id))}
                  {rightedTo(e, righted.get(e.id))} <Picture event={e} />
                </span>
                {changeable ? (
                  <TextButton small onClick={() => setOpen(open === e.id ? null : e.id)}>
                    Correct
                  </TextButton>
                ) : null}
                {facts(e.kind)?.ends && !gone && run.state.status !== "cutting" ? (
                  <TextButton
                    small
                    onClick={() => void log("correction", { target: e.id, becomes: null })}
                  >
                    Reopen the run
                  </TextButton>
                ) : null}
                {run.put_right[e.id] ? (
                  <TextButton
                    small
                    onClick={() =>
                      void log("correction", { target: run.put_right[e.id] ?? "", becomes: null })
                    }
                  >
                    Include again
                  </TextButton>
                ) : null}
              </div>
              {open === e.id ? (
                <CorrectEntry
                  event={e}
                  rows={run.method.check_rows}
                  log={log}
                  onDone={() => setOpen(null)}
                />
              ) : null}
            </li>
          );
        })}
      </ol>
      {run.earlier_events > 0 && !whole.data ? (
        <TextButton className="self-start" onClick={() => setAll(true)}>
          Show {run.earlier_events} earlier events
        </TextButton>
      ) : null}
    </section>
  );
}

/** What a later correction made of an event; its old value stays to be seen beside it. */
function rightedTo(e: Event, correction: Event | undefined): string {
  const becomes = correction?.payload.becomes as Record<string, unknown> | null | undefined;
  if (!becomes || becomes.picture) return "";
  const rest = Object.entries(becomes).filter(([name]) => e.kind !== "reading" || name !== "value");
  return rest.length ? `, corrected to ${rest.map(become).join(", ")}` : "";
}

/** One field of a correction: its count and its place say what they are. */
function become([name, value]: [string, unknown]): string {
  if (name === "count_at") return `count ${value}`;
  return name === "position_mm" ? `${value} mm from the heel` : String(value);
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
      href={folderAddress(`/api/pictures/${picture}`)}
      target="_blank"
      rel="noreferrer"
      className="underline underline-offset-4"
    >
      see it
    </a>
  );
}

const placed = (p: Event["payload"]) =>
  typeof p.position_mm === "number" ? `, ${counted(p.position_mm)} mm from the heel` : "";

function said(e: Event, now: number | null | undefined): string {
  const p = e.payload;
  if (e.not_understood) return `${e.kind}: not understood (${e.not_understood}); not counted`;
  if (e.kind === "cut")
    return `${Number(p.amount) === 1 ? "cut" : `${p.amount} cuts`} after ${counted(e.count_at)}`;
  if (e.kind === "reading") {
    const unit = p.unit ? ` ${p.unit}` : "";
    const changed =
      now !== undefined && now !== null && now !== Number(p.value)
        ? `, corrected to ${now}${unit}`
        : "";
    const what = (p.check ?? "force") === "force" ? "" : `${p.check} `;
    return `${what}${p.value}${unit}${placed(p)} at ${counted(e.count_at)}${changed}`;
  }
  if (e.kind === "check_planned") return `next check planned at ${p.next_count}`;
  if (e.kind === "stage")
    return typeof p.count === "number"
      ? `${p.stage} lost at ${p.count}`
      : `${p.stage} not lost after all`;
  if (e.kind === "note") return `note: ${p.text}`;
  if (e.kind === "strike") return `an entry excluded: ${p.reason}`;
  if (e.kind === "correction" && pictureOf(e)) return "a picture of the look before";
  if (e.kind === "correction")
    return p.becomes
      ? `corrected: ${Object.entries(p.becomes).map(become).join(", ")}`
      : "an entry undone";
  if (e.kind === "stop") return `stopped${p.reason ? `: ${p.reason}` : ""}`;
  return (
    {
      start: "run started",
      spoiled: `spoiled cut at ${counted(e.count_at)}${p.cause ? `, ${p.cause}` : ""}`,
      pause: "break",
      resume: "resumed",
      abandon: `abandoned: ${p.reason}`,
      outcome:
        `${String(p.check).replace("_", " ")}: ${p.outcome}${placed(p)}, ` +
        `at ${counted(e.count_at)}`,
      takeover: "this device took over the count",
      accept: `cuts of the other device accepted`,
      strop: `${p.strokes} strokes on the strop`,
    }[e.kind] ?? e.kind
  );
}
