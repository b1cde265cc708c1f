import { type FormEvent, useState } from "react";
import { putRecipe, useChange } from "../api/changes";
import { Refused, type Schemas } from "../api/client";
import { newId } from "../domain/ids";
import { Button } from "../ui/Button";
import { Field, LongField } from "../ui/Field";
import { useDraft } from "../ui/useDraft";
import { readSteps, StepsEditor, type TypedStep, typedStep } from "./StepsEditor";

type Recipe = Schemas["RecipeBody"];
interface Typed {
  name: string;
  note: string;
  steps: TypedStep[];
}

/** A named regime: made, or changed; edges made by it before keep the steps they were made with. */
export function RecipeForm({
  recipe,
  onDone,
}: {
  recipe?: Recipe | undefined;
  onDone: (id: string) => void;
}) {
  const [id] = useState(() => recipe?.id ?? newId());
  const [start] = useState<Typed>(() => ({
    name: recipe?.name ?? "",
    note: recipe?.note ?? "",
    steps: recipe ? recipe.steps.map(typedStep) : [typedStep()],
  }));
  const [typed, setTyped, drop] = useDraft<Typed>(`recipe:${recipe?.id ?? "new"}`, start);
  const steps = readSteps(typed.steps);
  const save = useChange(putRecipe, () => {
    drop();
    onDone(id);
  });
  const refused = save.error instanceof Refused ? save.error : null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (steps) save.mutate({ id, name: typed.name, note: typed.note, steps });
  };
  const atStep = refused?.problem.field?.startsWith("steps.") ? refused.problem.field : null;
  return (
    <form onSubmit={submit} className="flex flex-col gap-4" noValidate>
      <Field
        label="What is the recipe called?"
        value={typed.name}
        onChange={(e) => setTyped({ ...typed, name: e.target.value })}
        error={refused?.at("name")}
        autoFocus
      />
      <StepsEditor
        steps={typed.steps}
        onChange={(next) => setTyped({ ...typed, steps: next })}
        refusedField={atStep}
        refusal={refused?.message ?? ""}
      />
      <LongField
        label="Note"
        value={typed.note}
        onChange={(e) => setTyped({ ...typed, note: e.target.value })}
      />
      {save.error && !atStep && refused?.problem.field !== "name" ? (
        <p role="alert" className="text-rust">
          {save.error.message}
        </p>
      ) : null}
      <p className="text-note text-ink-2">
        Grinding and stropping make dust: wet, or with a mask. Your own workshop's rules come first.
      </p>
      <Button kind="next" type="submit" className="self-start" disabled={save.isPending}>
        Save recipe
      </Button>
    </form>
  );
}
