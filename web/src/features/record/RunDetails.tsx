import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { useChange } from "../../api/changes";
import { api, body, type Schemas } from "../../api/client";
import type { EventBody, Log } from "../../api/events";
import { runQuery } from "../../api/queries";
import { localTime } from "../../domain/format";
import { newId } from "../../domain/ids";
import { RunLog } from "../../parts/RunLog";
import { TakeAway } from "../../parts/TakeAway";
import { Button, buttonLook } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Notice } from "../../ui/Notice";
import { Waiting } from "../../ui/State";
import { useUndo } from "../../ui/Undo";
import { RunFacts } from "./RunFacts";

type Run = Schemas["RecordedRunOut"];
type Record_ = Schemas["TrialRecordOut"];

/** One run opened: its entries, and what is said of it. */
export function RunDetails({ run, record }: { run: Run; record: Record_ }) {
  return (
    <div className="mt-2 mb-4 border-l-4 border-line pl-4">
      <RunFacts run={run} record={record} />
      <Entries runId={run.id} />
      <p className="mt-3 flex flex-wrap gap-3">
        <Link className={buttonLook("quiet")} to={`/runs/${run.id}`}>
          Open at the bench
        </Link>
        <TakeAway kind="run" ownerId={run.id}>
          Delete run
        </TakeAway>
      </p>
    </div>
  );
}

/** The entries of a run; each can be corrected, excluded with a reason, or included again. */
function Entries({ runId }: { runId: string }) {
  const run = useQuery(runQuery(runId));
  const [device] = useState(() => `record-${newId()}`);
  const [written, setWritten] = useState(0);
  const offer = useUndo();
  const send = useChange(async (event: EventBody & { id: string }) => {
    const { id, ...sent } = event;
    await body(
      api.PUT("/api/runs/{run_id}/events/{event_id}", {
        params: { path: { run_id: runId, event_id: id } },
        body: sent as EventBody,
      }),
    );
  });
  if (!run.data) return <Waiting what="its entries" />;
  const state = run.data.state;
  const write = (kind: string, payload: unknown, id: string, sequence: number) =>
    send.mutateAsync({
      id,
      kind,
      payload,
      device,
      device_sequence: sequence,
      last_seen_position: state.position,
      count_at: state.count,
      client_time: localTime(new Date()),
    } as EventBody & { id: string });
  const log: Log = async (kind, payload) => {
    const id = newId();
    setWritten(written + 2);
    await write(kind, payload, id, written + 1);
    if (["strike", "correction", "abandon"].includes(kind))
      offer("The entry was changed.", () => {
        void write("correction", { target: id, becomes: null }, newId(), written + 2);
      });
  };
  return (
    <>
      <Notice says={send.error?.message} className="font-medium" />
      <RunLog run={run.data} log={log} whole />
      {state.status === "abandoned" ? null : <Abandon onAbandon={(why) => log("abandon", why)} />}
    </>
  );
}

/** A run that came to nothing: it stays in the record, and takes part in nothing. */
function Abandon({ onAbandon }: { onAbandon: (why: { reason: string }) => Promise<void> }) {
  const [reason, setReason] = useState("");
  return (
    <form
      className="mt-3 flex items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim()) void onAbandon({ reason: reason.trim() }).catch(() => undefined);
      }}
    >
      <Field
        label="Why is it abandoned?"
        className="grow"
        value={reason}
        onChange={(e) => setReason(e.target.value)}
      />
      <Button type="submit" disabled={!reason.trim()}>
        Abandon the run
      </Button>
    </form>
  );
}
