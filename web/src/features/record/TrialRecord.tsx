import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { archiveTrial, recordQuery } from "../../api/record";
import { counted, day } from "../../domain/format";
import { TakeAway } from "../../parts/TakeAway";
import { Button, buttonLook } from "../../ui/Button";
import { Mark } from "../../ui/Mark";
import { Page } from "../../ui/Page";
import { Failed, Waiting } from "../../ui/State";
import { RunDetails } from "./RunDetails";
import { Traces } from "./Traces";
import { TrialFacts } from "./TrialFacts";

type Run = Schemas["RecordedRunOut"];

/** What was cut in a trial, entry by entry, and everything that was put right since. */
export function TrialRecord() {
  const { trialId = "" } = useParams();
  const record = useQuery(recordQuery(trialId));
  const [open, setOpen] = useState<string | null>(null);
  if (record.isPending) return <Waiting what="the record" />;
  if (record.isError) return <Failed error={record.error} onRetry={() => void record.refetch()} />;
  const { data } = record;
  return (
    <Page width="wide">
      <div className="flex flex-wrap items-start justify-between gap-x-8 gap-y-3">
        <h1 className="answer">The record</h1>
        <div className="flex flex-wrap gap-3">
          <Link className={buttonLook("next")} to={`/trials/${trialId}/paper`}>
            Results on paper
          </Link>
          <Link className={buttonLook()} to={`/sheets?trial=${trialId}`}>
            From a spreadsheet
          </Link>
          <Archive trialId={trialId} archived={Boolean(data.archived_utc)} />
          <TrialAway trialId={trialId} />
        </div>
      </div>
      {data.sealed ? <p className="mt-1 text-ink-2">{data.sealed}</p> : null}
      <div className="mt-4 grid gap-x-12 gap-y-8 bench:grid-cols-[minmax(0,1fr)_minmax(0,380px)]">
        <section aria-label="Runs">
          {data.runs.length === 0 ? (
            <p className="border-t border-line pt-3 text-ink-2">
              Nothing has been cut. Enter results from paper, or start a run in the line-up.
            </p>
          ) : null}
          <ol>
            {data.runs.map((run) => (
              <li key={run.id} className="border-t border-line py-1.5">
                <RunLine
                  run={run}
                  open={open === run.id}
                  onOpen={() => setOpen(open === run.id ? null : run.id)}
                />
                {open === run.id ? <RunDetails run={run} record={data} /> : null}
              </li>
            ))}
          </ol>
        </section>
        <div>
          <TrialFacts key={data.trial.name} trial={data.trial} />
          <Traces traces={data.traces} />
        </div>
      </div>
    </Page>
  );
}

function RunLine({ run, open, onOpen }: { run: Run; open: boolean; onOpen: () => void }) {
  const aside = [
    run.arm,
    run.block ? `block ${run.block}` : "",
    run.practice ? "practice" : "",
    run.from_paper ? `from paper, entered ${day(run.from_paper)}` : "",
    run.verifies_run_id ? "a verification" : "",
    run.operator,
    run.note,
  ].filter(Boolean);
  return (
    <div
      className={`grid grid-cols-[24px_minmax(0,1fr)_auto] items-center gap-x-3 bench:grid-cols-[24px_9rem_6rem_minmax(0,1fr)_auto]`}
    >
      <Mark mark={run.mark} size={18} />
      <span>
        <b>{run.blade}</b>, edge {run.edge}
        {run.number > 1 ? `, run ${run.number}` : ""}
      </span>
      <span className="text-note max-bench:hidden">
        {counted(run.count)} {run.count_unit}
      </span>
      <span className="text-note text-ink-2 max-bench:col-span-2 max-bench:col-start-2 max-bench:row-start-2">
        {[day(run.started_utc), run.status === "stopped" ? "" : run.status, ...aside]
          .filter(Boolean)
          .join(" · ")}
        {run.put_right_after_stop ? (
          <b className="block font-medium text-ink">corrected after the stop</b>
        ) : null}
      </span>
      <Button kind="quiet" aria-expanded={open} onClick={onOpen}>
        {open ? "Close" : "Open"}
        <span className="sr-only">
          {" "}
          {run.blade}, edge {run.edge}
        </span>
      </Button>
    </div>
  );
}

function Archive({ trialId, archived }: { trialId: string; archived: boolean }) {
  const change = useChange((to: boolean) => archiveTrial(trialId, to));
  return (
    <Button onClick={() => change.mutate(!archived)}>
      {archived ? "Restore from archive" : "Archive trial"}
    </Button>
  );
}

function TrialAway({ trialId }: { trialId: string }) {
  const navigate = useNavigate();
  return (
    <TakeAway kind="trial" ownerId={trialId} onGone={() => navigate("/")}>
      Delete trial
    </TakeAway>
  );
}
