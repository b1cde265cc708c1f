import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../../api/client";
import { inPractice } from "../../api/folder";
import { todayQuery } from "../../api/queries";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { day, plural, unbroken } from "../../domain/format";
import { cutLanes, fullCuts } from "../../domain/strips";
import { Button, buttonLook } from "../../ui/Button";
import { Mark } from "../../ui/Mark";
import { Note } from "../../ui/Note";
import { Page } from "../../ui/Page";
import { Sheet } from "../../ui/Sheet";
import { Failed, Waiting, WorkingOut } from "../../ui/State";
import { EnterResults } from "./EnterResults";
import { FinishedTrials } from "./FinishedTrials";
import { FirstTime, PracticeSheet } from "./FirstTime";
import { NewTrial } from "./NewTrial";
import { PracticeUnderWay } from "./PracticeUnderWay";

/** Trials in full at once; `/` finds any other by its name. */
const SHOWN = 20;

type TrialToday = Schemas["TrialTodayOut"];

/** The front door: what is under way, what to do next, and each trial's answer so far. */
export function Today() {
  const today = useQuery(todayQuery);
  const [search, setSearch] = useSearchParams();
  const [shown, setShown] = useState(SHOWN);
  const asked = search.get("new");
  const ask = (what: string | null) => setSearch(what ? { new: what } : {});
  if (today.isPending) return <Waiting what="today" />;
  if (today.isError) return <Failed error={today.error} onRetry={() => void today.refetch()} />;
  const { trials, archived } = today.data;
  const open = trials.filter(({ trial, is_finished }) => !is_finished && !archived[trial.id]);
  return (
    <Page>
      {trials.length + today.data.failed.length === 0 ? (
        <FirstTime onNew={() => ask("trial")} onResults={() => ask("results")} />
      ) : null}
      {trials.length > 0 ? (
        <div className="flex flex-wrap items-start justify-between gap-x-10 gap-y-4">
          <h1 className="answer max-w-3xl">{unbroken(doNow(open))}</h1>
          <div className="flex flex-wrap gap-3">
            <Button onClick={() => ask("results")}>Enter results</Button>
            <Button onClick={() => ask("trial")}>New trial</Button>
          </div>
        </div>
      ) : null}
      {inPractice ? null : <PracticeUnderWay />}
      <WorkingOut left={today.data.working_out} />
      <Waits due={today.data.due} />
      {today.data.failed.map((t) => (
        <p
          key={t.trial_id}
          role="alert"
          className="mt-7 border-t-[1.5px] border-rust pt-4 text-rust"
        >
          <b>{t.name}</b>: {t.why}
        </p>
      ))}
      {open.slice(0, shown).map((t) => (
        <TrialEntry key={t.trial.id} entry={t} />
      ))}
      {open.length > shown ? (
        <p className="mt-7 border-t-[1.5px] border-ink py-5">
          <Button onClick={() => setShown(shown + SHOWN)}>
            Show {Math.min(SHOWN, open.length - shown)} more of {open.length} trials
          </Button>
        </p>
      ) : null}
      <FinishedTrials trials={trials} archived={archived} />
      <Sheet
        open={asked === "trial"}
        onOpenChange={(o) => ask(o ? "trial" : null)}
        title="New trial"
        note="One question, put to several blades. Everything but the factor is to be held equal."
      >
        <NewTrial />
      </Sheet>
      <Sheet
        open={asked === "results" || asked === "import"}
        onOpenChange={(o) => ask(o ? "results" : null)}
        title="Enter results"
        note="Results that exist already: from a file, a spreadsheet, or paper."
      >
        <EnterResults
          trials={trials}
          archived={archived}
          onNew={() => setSearch({ new: "trial", for: "paper" })}
        />
      </Sheet>
      <Sheet
        open={asked === "practice"}
        onOpenChange={(o) => ask(o ? "practice" : null)}
        title="Guided practice"
        note="From two virtual blades to a verdict, in five minutes."
      >
        <PracticeSheet />
      </Sheet>
    </Page>
  );
}

function whereTo(due: Schemas["DueOut"]): string {
  if (due.kind === "shots" || due.kind === "batch") return "/assay";
  if (due.kind === "backup") return "/backups";
  if (due.soak_id) return `/soak/${due.soak_id}`;
  if (due.kind === "assay") return `/assay/blades/${due.blade_id}`;
  if (due.trial_id) return `/trials/${due.trial_id}/plan`;
  return due.blade_id ? `/blades/${due.blade_id}` : "/shelf?part=lots";
}

/** Planned work, loans to give back, lots running low, and facts still to be found out. */
function Waits({ due }: { due: Schemas["DueOut"][] }) {
  if (due.length === 0) return null;
  return (
    <ul aria-label="Due" className="mt-3 flex flex-wrap gap-x-7 gap-y-1">
      {due.map((d) => (
        <li key={`${d.kind}${d.blade_id}${d.trial_id}${d.says}`}>
          <Link
            to={whereTo(d)}
            className={`flex min-h-9 items-center gap-2 underline decoration-line
              underline-offset-4 hover:decoration-ink ${d.overdue ? "font-bold text-rust" : ""}`}
          >
            {d.mark === null ? null : <Mark mark={d.mark} size={16} />}
            {unbroken(d.says)}
          </Link>
        </li>
      ))}
    </ul>
  );
}

function doNow(trials: readonly TrialToday[]): string {
  const open = trials.flatMap((t) => (t.next_step.kind === "go_on" ? [t] : []));
  if (open.length === 1)
    return `${plural(open.length, "run")} under way: ${lower(open[0]?.next_step.says ?? "")}.`;
  if (open.length > 1) return `${plural(open.length, "run")} under way.`;
  const next = trials.find((t) => t.next_step.kind !== "read_verdict");
  return next ? `${next.next_step.says}, in ${next.trial.name}.` : "Every planned run is cut.";
}

const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

function stepAddress(t: TrialToday): string {
  const { kind, run_id, arm_id } = t.next_step;
  if (kind === "go_on" && run_id) return `/runs/${run_id}`;
  if (kind === "read_verdict") return `/trials/${t.trial.id}/verdict`;
  const start = kind === "start_run" ? `?start=${encodeURIComponent(arm_id ?? "")}` : "";
  return `/trials/${t.trial.id}/line-up${start}`;
}

function TrialEntry({ entry }: { entry: TrialToday }) {
  const { trial, blades, runs, lives } = entry;
  return (
    <section
      aria-labelledby={`trial-${trial.id}`}
      className="mt-7 border-t-[1.5px] border-ink pt-4"
    >
      <div className="grid gap-x-12 gap-y-5 bench:grid-cols-[1fr_600px]">
        <div>
          <Note>
            begun {day(trial.created_utc)} · {trial.ends_when}
            {trial.source === "import" ? " · imported" : ""}
          </Note>
          <h2 id={`trial-${trial.id}`} className="text-lead font-bold">
            <Link
              to={`/trials/${trial.id}/verdict`}
              className="underline decoration-line underline-offset-4 hover:decoration-ink"
            >
              {trial.name}
            </Link>
          </h2>
          {trial.question ? <p className="text-ink-2">{trial.question}</p> : null}
          <p className="mt-3 max-w-prose text-lead">{unbroken(entry.headline)}</p>
          <Note className="mt-2 max-w-prose">{entry.standing}</Note>
          <p className="mt-4 flex flex-wrap gap-3">
            <Link to={stepAddress(entry)} className={buttonLook("next")}>
              {entry.next_step.says}
            </Link>
            {entry.next_step.kind === "read_verdict" ? null : (
              <Link to={`/trials/${trial.id}/verdict`} className={buttonLook("plain")}>
                Read the verdict so far
              </Link>
            )}
          </p>
        </div>
        <ul className="flex flex-col">
          {blades.map((blade) => (
            <li
              key={blade.arm_id}
              className={`grid grid-cols-[26px_minmax(0,84px)_minmax(0,1fr)] items-center gap-x-2
                border-b border-line py-1.5`}
            >
              <Mark mark={blade.mark} />
              <div className="leading-tight">
                <span className="font-bold">{blade.code}</span>
                <span className="cond block text-note text-ink-2">
                  {blade.claimed_grade ?? "grade not named"}
                </span>
                <span className="cond block text-note">
                  {lives[blade.code]?.words ??
                    (runs.some((r) => r.arm_id === blade.arm_id) ? "cut" : "not cut yet")}
                </span>
              </div>
              <EdgeStrip
                mark={blade.mark}
                title={blade.code}
                edgeLengthMm={blade.edge_length_mm ?? null}
                edges={cutLanes(runs, blade)}
                fullCuts={fullCuts(runs)}
                width={470}
                detail
              />
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}
