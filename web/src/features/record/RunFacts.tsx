import { useQuery } from "@tanstack/react-query";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { todayQuery } from "../../api/queries";
import { changeRun } from "../../api/record";
import { newId } from "../../domain/ids";
import { shownNumber, yesNo } from "../../domain/typed";
import { Choice, Option } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Notice } from "../../ui/Notice";
import { Tick } from "../../ui/Tick";
import { useUndo } from "../../ui/Undo";
import { useForm } from "../../ui/useForm";

type Run = Schemas["RecordedRunOut"];
type Patch = Omit<Schemas["RunPatch"], "trace_id" | "reason">;

const KINDS = {
  edge_id: "text",
  trial_id: "text",
  block: "number",
  arm: "text",
  check_every: "number",
  note: "text",
  practice: "yes",
  reason: "text",
} as const;

/** Where a run belongs and how it is taken; what is changed needs its reason. */
export function RunFacts({ run, record }: { run: Run; record: Schemas["TrialRecordOut"] }) {
  const before = { ...run, trial_id: record.trial.id };
  const offer = useUndo();
  const save = useChange(
    ({ reason, ...change }: Patch & { reason: string }) =>
      changeRun(run.id, { ...change, reason, trace_id: newId() }),
    () => {
      form.drop();
    },
  );
  const form = useForm({
    draft: `run:${run.id}`,
    kinds: KINDS,
    start: {
      edge_id: before.edge_id,
      trial_id: before.trial_id,
      block: shownNumber(before.block),
      arm: before.arm,
      check_every: shownNumber(before.check_every),
      note: before.note,
      practice: yesNo(before.practice),
      reason: "",
    },
    error: save.error,
  });
  const submit = form.onSubmit(({ reason, ...read }) => {
    const names = Object.keys(read) as (keyof typeof read)[];
    const changed = names.filter((name) => read[name] !== before[name]);
    const some = (from: Pick<typeof before, keyof typeof read>): Patch =>
      Object.fromEntries(changed.map((name) => [name, from[name]]));
    const undo = () => save.mutate({ ...some(before), reason: "undone" });
    save.mutate(
      { ...some(read), reason },
      { onSuccess: () => offer("The run was changed.", undo) },
    );
  });
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-3 pt-2 bench:grid-cols-4">
      <Choice label="Blade and edge" {...form.choice("edge_id")}>
        {record.edges.map((edge) => (
          <Option key={edge.edge_id} value={edge.edge_id}>
            {`${edge.blade}, edge ${edge.edge}`}
          </Option>
        ))}
      </Choice>
      <OtherTrials own={record.trial} {...form.choice("trial_id")} />
      <Field label="Block" term="block" {...form.field("block")} />
      <Field label="Arm" {...form.field("arm")} />
      <Field label="Checked every" unit={run.count_unit} {...form.field("check_every")} />
      <Field label="Note" className="bench:col-span-2" {...form.field("note")} />
      <span className="self-end">
        <Tick label="practice" {...form.tick("practice")} />
      </span>
      {form.isChanged ? (
        <>
          <Field label="Why" className="bench:col-span-3" {...form.field("reason")} />
          <FormFoot className="self-end" form={form} isSaving={save.isPending}>
            Save change
          </FormFoot>
        </>
      ) : (
        <Notice says={form.notice} className="bench:col-span-4" />
      )}
    </form>
  );
}

function OtherTrials({
  own,
  ...picking
}: {
  own: Schemas["TrialOut"];
  value: string;
  error: string | undefined;
  onPick: (trialId: string) => void;
}) {
  const today = useQuery(todayQuery);
  const others = (today.data?.trials ?? []).filter(({ trial }) => trial.id !== own.id);
  return (
    <Choice label="Trial" {...picking}>
      <Option value={own.id}>{own.name}</Option>
      {others.map(({ trial }) => (
        <Option key={trial.id} value={trial.id}>
          {trial.name}
        </Option>
      ))}
    </Choice>
  );
}
