import { patchTrial, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { WORDS } from "../../domain/words";
import { Choice, Options } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Heading } from "../../ui/Section";
import { useUndo } from "../../ui/Undo";
import { useForm } from "../../ui/useForm";

type Trial = Schemas["TrialOut"];
type Patch = Schemas["TrialPatch"];

const KINDS = {
  name: "text",
  question: "text",
  factor: { word: "factors" },
  created_on: "day",
  medium: "text",
  reason: "text",
} as const;

const saidOf = (trial: Trial) => ({
  name: trial.name,
  question: trial.question,
  factor: trial.factor,
  created_on: trial.created_utc.slice(0, 10),
  medium: trial.medium,
});

/** What is said of the trial itself, to be corrected with a trace. */
export function TrialFacts({ trial }: { trial: Trial }) {
  const before = saidOf(trial);
  const offer = useUndo();
  const save = useChange(
    (patch: Patch) => patchTrial(trial.id, patch),
    () => {
      form.drop();
    },
  );
  const form = useForm({
    draft: `trial-facts:${trial.id}`,
    kinds: KINDS,
    start: { ...before, reason: "" },
    error: save.error,
  });
  const submit = form.onSubmit(({ reason, ...read }) => {
    const names = Object.keys(before) as (keyof typeof before)[];
    const changed = names.filter((name) => read[name] !== before[name]);
    const some = (from: typeof before): Patch =>
      Object.fromEntries(changed.map((name) => [name, from[name]]));
    save.mutate(
      { ...some(read), reason },
      { onSuccess: () => offer("The trial was changed.", () => save.mutate(some(before))) },
    );
  });
  return (
    <form onSubmit={submit} noValidate className="flex flex-col gap-3">
      <Heading>The trial</Heading>
      <Field label="Name" {...form.field("name")} />
      <LongField label="Question" {...form.field("question")} />
      <div className="grid grid-cols-2 gap-3">
        <Choice label="What varies" {...form.choice("factor")}>
          <Options of={WORDS.factors} />
        </Choice>
        <DayField label="Begun" {...form.field("created_on")} />
      </div>
      <Field label="Medium" {...form.field("medium")} />
      {form.isChanged ? (
        <>
          <Field label="Why it is changed" {...form.field("reason")} />
          <FormFoot form={form} isSaving={save.isPending}>
            Save change
          </FormFoot>
        </>
      ) : (
        <>
          <Note>Tolerances are changed in the line-up. Every change is listed here.</Note>
          <Notice says={form.notice} />
        </>
      )}
    </form>
  );
}
