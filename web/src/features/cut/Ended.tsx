import { useQuery } from "@tanstack/react-query";
import { type RefObject, useEffect, useRef } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { folderAddress } from "../../api/folder";
import { lineUpQuery, runQuery } from "../../api/queries";
import { type CheckRow, FORCE } from "../../domain/checks";
import { buttonLook } from "../../ui/Button";
import type { Log } from "./bench";
import { CutOn } from "./CutOn";
import { NextRun } from "./NextRun";
import { StropBack } from "./StropBack";
import type { Hand } from "./useHand";

/** After the stop: what was found, in one sentence, and the next thing to do. */
export function Ended({
  run,
  hand,
  field,
  log,
  onVirtual,
}: {
  run: Schemas["RunOut"];
  hand: Hand;
  field: RefObject<HTMLInputElement | null>;
  log: Log;
  onVirtual: () => void;
}) {
  const found = useQuery({ ...runQuery(run.id), refetchOnMount: "always" });
  const lineUp = useQuery({ ...lineUpQuery(run.trial.id), refetchOnMount: "always" });
  const step = lineUp.data?.next_step;
  const nextThing = useRef<HTMLParagraphElement>(null);
  // an older line-up would name another thing to do next
  const ready = Boolean(step) && lineUp.isFetchedAfterMount;
  useEffect(() => {
    // never out of a hand that types strokes
    const typing = document.activeElement instanceof HTMLInputElement;
    if (ready && !typing)
      nextThing.current?.querySelector<HTMLElement>("a, button")?.focus({ preventScroll: true });
  }, [ready]);
  const words = found.data?.found ?? run.found;
  return (
    <section aria-label="Result" className="mt-4 border-t-2 border-next pt-4 pb-6">
      <p className="text-lead" data-testid="found">
        {words ?? "Reading the result …"}
      </p>
      {run.practice ? (
        <p className="mt-1 text-ink-2">A practice run: no comparison uses it.</p>
      ) : null}
      <p ref={nextThing} className="mt-4 flex flex-wrap gap-3">
        {step?.kind === "start_run" ? (
          <NextRun key={step.arm_id} trialId={run.trial.id} step={step} />
        ) : null}
        {step?.kind === "go_on" && step.run_id !== run.id ? (
          <Link className={buttonLook("next")} to={`/runs/${step.run_id}`}>
            {step.says}
          </Link>
        ) : null}
        <Link
          className={buttonLook(step?.kind === "read_verdict" ? "next" : "plain")}
          to={`/trials/${run.trial.id}/verdict`}
        >
          Read the verdict
        </Link>
        {run.state.strokes > 0 && run.strop_back.length > 0 && !run.practice ? (
          <CutOn run={run} />
        ) : null}
        <Link className={buttonLook("quiet")} to={`/trials/${run.trial.id}/record`}>
          Correct an entry
        </Link>
        <a
          className={buttonLook("quiet")}
          href={folderAddress(`/api/runs/${run.id}/log.csv`)}
          download
        >
          Save the log
        </a>
      </p>
      {run.state.status === "stopped" && run.method.check_rows.some(canBeStropped) ? (
        <StropBack run={run} hand={hand} field={field} log={log} onVirtual={onVirtual} />
      ) : null}
    </section>
  );
}

const canBeStropped = (row: CheckRow) => row.key === FORCE.key || row.is_judged;
