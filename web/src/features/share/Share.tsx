import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useChange } from "../../api/changes";
import { nameTesterHere, savePackage, testersQuery } from "../../api/packages";
import { todayQuery } from "../../api/queries";
import { saveReport } from "../../api/reports";
import { day, plural } from "../../domain/format";
import { newId } from "../../domain/ids";
import { leftOut, toggled } from "../../domain/leftOut";
import { ImportProgress } from "../../parts/ImportProgress";
import { LeaveOut } from "../../parts/LeaveOut";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Page } from "../../ui/Page";
import { Heading } from "../../ui/Section";
import { Failed, Waiting } from "../../ui/State";
import { Tick } from "../../ui/Tick";
import { BladeQuestions } from "./BladeQuestions";
import { ReceivePackage } from "./ReceivePackage";

/** Trials sent to other testers as one file, and theirs brought in. */
export function Share() {
  const testers = useQuery(testersQuery);
  const today = useQuery(todayQuery);
  if (testers.isPending || today.isPending) return <Waiting what="the trials" />;
  if (testers.isError)
    return <Failed error={testers.error} onRetry={() => void testers.refetch()} />;
  if (today.isError) return <Failed error={today.error} onRetry={() => void today.refetch()} />;
  const { here, others } = testers.data;
  return (
    <Page width="narrow">
      <h1 className="answer max-w-3xl">Send trials to other testers, and bring theirs in</h1>
      <div className="mt-5 grid gap-x-12 gap-y-8 bench:grid-cols-2">
        <SendPackage here={here} trials={today.data.trials.map((each) => each.trial)} />
        <div className="flex flex-col gap-8">
          <section aria-label="Bring in">
            <Heading>Bring in</Heading>
            <ReceivePackage isNobodys={!here} />
            {others.length ? (
              <ul className="mt-4">
                {others.map((tester) => (
                  <li key={tester.id} className="border-t border-line py-2">
                    <b>{tester.name}</b>{" "}
                    <span className="text-ink-2">{plural(tester.trials, "trial")}</span>
                  </li>
                ))}
              </ul>
            ) : null}
          </section>
          <BladeQuestions />
        </div>
      </div>
    </Page>
  );
}

interface Trial {
  readonly id: string;
  readonly name: string;
  readonly created_utc: string;
}

function SendPackage({ here, trials }: { here: string; trials: readonly Trial[] }) {
  const [name, setName] = useState(here);
  const [typed, setTyped] = useState("");
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [out, setOut] = useState(leftOut);
  const [pictures, setPictures] = useState(false);
  const send = useChange(async () => {
    if (name.trim() !== here) await nameTesterHere(name.trim());
    await savePackage({ trials: chosen, leaveOut: out, pictures });
  });
  const [workId, setWorkId] = useState(newId);
  const report = useChange(() =>
    saveReport({
      work_id: workId,
      trials: chosen.length ? [...chosen] : trials.map((trial) => trial.id),
      kind: "pdf",
      leave_out: [...out],
      with_standings: true,
    }).finally(() => setWorkId(newId())),
  );
  const shown = trials.filter((t) => t.name.toLowerCase().includes(typed.toLowerCase()));
  return (
    <section aria-label="Send" className="flex flex-col gap-3">
      <Heading>Send</Heading>
      <Field
        label="Your name"
        value={name}
        hint="Whoever gets the file sees whose trials these are."
        onChange={(event) => setName(event.target.value)}
      />
      {trials.length > 8 ? (
        <Field label="Find trials" value={typed} onChange={(e) => setTyped(e.target.value)} />
      ) : null}
      <ul className="max-h-48 overflow-y-auto border-y border-line">
        {shown.map((trial) => (
          <li key={trial.id}>
            <Tick
              label={
                <>
                  {trial.name}{" "}
                  <span className="text-note text-ink-2">{day(trial.created_utc)}</span>
                </>
              }
              checked={chosen.includes(trial.id)}
              onTick={() => setChosen(toggled(chosen, trial.id))}
            />
          </li>
        ))}
      </ul>
      <LeaveOut out={out} onPick={setOut} />
      <Tick label="With pictures" checked={pictures} onTick={setPictures} />
      <div>
        <Button
          kind="next"
          disabled={send.isPending || !name.trim() || trials.length === 0}
          onClick={() => send.mutate()}
        >
          {send.isPending ? "Gathering …" : `Save ${saved(chosen.length, trials.length)}`}
        </Button>{" "}
        <Button disabled={report.isPending || trials.length === 0} onClick={() => report.mutate()}>
          {report.isPending ? "Writing …" : "Print as one report"}
        </Button>
      </div>
      {report.isPending ? (
        <ImportProgress id={workId} stop="Cancel" cancelled="Cancelling" />
      ) : null}
      <Notice says={send.error?.message ?? report.error?.message} />
      <Note>
        One file with blades, edges, methods, assays and soaks: tables that any spreadsheet opens,
        and all that Kessik needs to give the same verdicts elsewhere. Where owners and lenders are
        left out, the other tester does not see what is on loan.
      </Note>
    </section>
  );
}

const saved = (chosen: number, all: number) =>
  chosen ? plural(chosen, "trial") : `all ${plural(all, "trial")}`;
