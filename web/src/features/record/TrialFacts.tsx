import { type FormEvent, useState } from "react";
import { patchTrial, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Options } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { useUndo } from "../../ui/Undo";

type Trial = Schemas["TrialOut"];
type Patch = Schemas["TrialPatch"];

/** What is said of the trial itself, to be put right with a trace. */
export function TrialFacts({ trial }: { trial: Trial }) {
  const before = {
    name: trial.name,
    question: trial.question,
    medium: trial.medium,
    created_on: trial.created_utc.slice(0, 10),
  };
  const [typed, setTyped] = useState({ ...before, reason: "" });
  const [factor, setFactor] = useState(trial.factor);
  const offer = useUndo();
  const save = useChange((patch: Patch) => patchTrial(trial.id, patch));
  const refused = save.error instanceof Refused ? save.error : null;
  const changed: Patch = { ...(factor === trial.factor ? {} : { factor }) };
  for (const name of Object.keys(before) as (keyof typeof before)[])
    if (typed[name] !== before[name]) changed[name] = typed[name];
  const isChanged = Object.keys(changed).length > 0;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const undo = Object.fromEntries(
      Object.keys(changed).map((k) => [k, { ...before, factor: trial.factor }[k as "name"]]),
    );
    save.mutate(
      { ...changed, reason: typed.reason },
      { onSuccess: () => offer("The trial was changed.", () => save.mutate(undo)) },
    );
  };
  const field = (name: keyof typeof typed) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    error: refused?.at(name),
  });
  return (
    <form onSubmit={submit} noValidate className="flex flex-col gap-3">
      <h2 className="text-lead font-bold">The trial</h2>
      <Field label="Name" {...field("name")} />
      <LongField label="Question" {...field("question")} />
      <div className="grid grid-cols-2 gap-3">
        <Choice
          label="What varies"
          value={factor}
          onPick={(v) => setFactor(v as Trial["factor"])}
          error={refused?.at("factor")}
        >
          <Options of={WORDS.factors} />
        </Choice>
        <DayField label="Begun" {...field("created_on")} />
      </div>
      <Field label="What is cut" {...field("medium")} />
      {isChanged ? (
        <>
          <Field label="Why it is changed" {...field("reason")} />
          <Button kind="next" type="submit" disabled={save.isPending}>
            Save change
          </Button>
        </>
      ) : (
        <p className="text-note text-ink-2">
          Tolerances are changed in the line-up. Every change is listed here.
        </p>
      )}
      {save.error && !refused?.problem.field ? (
        <p role="alert" className="font-medium text-rust">
          {save.error.message}
        </p>
      ) : null}
    </form>
  );
}
