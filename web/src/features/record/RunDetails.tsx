import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { useChange } from "../../api/changes";
import { api, body, Refused, type Schemas } from "../../api/client";
import type { EventBody, Log } from "../../api/events";
import { runQuery, todayQuery } from "../../api/queries";
import { changeRun } from "../../api/record";
import { localTime, typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { RunLog } from "../../parts/RunLog";
import { TakeAway } from "../../parts/TakeAway";
import { Button, buttonLook } from "../../ui/Button";
import { Choice, Option } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Waiting } from "../../ui/State";
import { Tick } from "../../ui/Tick";
import { useUndo } from "../../ui/Undo";

type Run = Schemas["RecordedRunOut"];
type Record_ = Schemas["TrialRecordOut"];

/** One run opened: its entries, and what is said of it. */
export function RunDetails({ run, record }: { run: Run; record: Record_ }) {
  return (
    <div className="mt-2 mb-4 border-l-4 border-line pl-4">
      <RunFacts key={JSON.stringify(run)} run={run} record={record} />
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
      {send.error ? (
        <p role="alert" className="font-medium text-rust">
          {send.error.message}
        </p>
      ) : null}
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

const blank = { edge_id: "", trial_id: "", block: "", arm: "", check_every: "", note: "" };

/** Where the run belongs and how it is taken; what is changed needs its reason. */
function RunFacts({ run, record }: { run: Run; record: Record_ }) {
  const before = {
    ...blank,
    edge_id: run.edge_id,
    trial_id: record.trial.id,
    block: run.block?.toString() ?? "",
    arm: run.arm,
    check_every: run.check_every?.toString() ?? "",
    note: run.note,
  };
  const [typed, setTyped] = useState(before);
  const [practice, setPractice] = useState(run.practice);
  const [reason, setReason] = useState("");
  const offer = useUndo();
  const save = useChange((change: Schemas["RunPatch"]) => changeRun(run.id, change));
  const refused = save.error instanceof Refused ? save.error : null;
  const change = patchOf(before, typed);
  if (practice !== run.practice) change.practice = practice;
  const isChanged = Object.keys(change).length > 0;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const undo = { ...patchOf(typed, before), practice: run.practice };
    save.mutate(
      { ...change, reason, trace_id: newId() },
      {
        onSuccess: () =>
          offer("The run was changed.", () =>
            save.mutate({ ...undo, reason: "undone", trace_id: newId() }),
          ),
      },
    );
  };
  const field = (name: keyof typeof typed) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    error: refused?.at(name),
  });
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-3 pt-2 bench:grid-cols-4">
      <Choice
        label="Blade and edge"
        value={typed.edge_id}
        onPick={(v) => setTyped({ ...typed, edge_id: v })}
        error={refused?.at("edge_id")}
      >
        {record.edges.map((edge) => (
          <Option key={edge.edge_id} value={edge.edge_id}>
            {`${edge.blade}, edge ${edge.edge}`}
          </Option>
        ))}
      </Choice>
      <OtherTrials
        own={record.trial}
        value={typed.trial_id}
        error={refused?.at("trial_id")}
        onPick={(v) => setTyped({ ...typed, trial_id: v })}
      />
      <Field label="Block" term="block" inputMode="numeric" {...field("block")} />
      <Field label="Arm" {...field("arm")} />
      <Field
        label="Checked every"
        unit={run.count_unit}
        inputMode="decimal"
        {...field("check_every")}
      />
      <Field label="Note" className="bench:col-span-2" {...field("note")} />
      <span className="self-end">
        <Tick label="practice" checked={practice} onTick={setPractice} />
      </span>
      {isChanged ? (
        <>
          <Field
            label="Why"
            className="bench:col-span-3"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            error={refused?.at("reason")}
          />
          <Button kind="next" type="submit" className="self-end" disabled={save.isPending}>
            Save change
          </Button>
        </>
      ) : null}
      {save.error && !AT_FIELDS.includes(refused?.problem.field ?? "") ? (
        <p role="alert" className="font-medium text-rust bench:col-span-4">
          {save.error.message}
        </p>
      ) : null}
    </form>
  );
}

const AT_FIELDS = ["edge_id", "trial_id", "block", "arm", "check_every", "note", "reason"];

function OtherTrials({
  own,
  value,
  error,
  onPick,
}: {
  own: Schemas["TrialOut"];
  value: string;
  error: string | undefined;
  onPick: (trialId: string) => void;
}) {
  const today = useQuery(todayQuery);
  const others = (today.data?.trials ?? []).filter(({ trial }) => trial.id !== own.id);
  return (
    <Choice label="Trial" value={value} onPick={onPick} error={error}>
      <Option value={own.id}>{own.name}</Option>
      {others.map(({ trial }) => (
        <Option key={trial.id} value={trial.id}>
          {trial.name}
        </Option>
      ))}
    </Choice>
  );
}

type Typed = Record<keyof typeof blank, string>;

/** What differs, as it is sent; an emptied number is none. */
function patchOf(before: Typed, after: Typed): Partial<Schemas["RunPatch"]> {
  const found: Record<string, string | number | null> = {};
  for (const name of Object.keys(after) as (keyof Typed)[]) {
    if (before[name] === after[name]) continue;
    const isNumber = name === "block" || name === "check_every";
    const number = typedNumber(after[name]);
    // what is no number is sent as it stands: it is refused at its field, and empties nothing
    found[name] = isNumber && number !== undefined ? number : after[name];
  }
  return found as Partial<Schemas["RunPatch"]>;
}
