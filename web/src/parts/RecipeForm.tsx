import { useState } from "react";
import { putRecipe, useChange } from "../api/changes";
import type { Schemas } from "../api/client";
import { newId } from "../domain/ids";
import { Field, LongField } from "../ui/Field";
import { FormFoot } from "../ui/FormFoot";
import { Note } from "../ui/Note";
import { useForm } from "../ui/useForm";
import { StepsEditor } from "./StepsEditor";
import { NEW_STEP, stepsSent, useSteps } from "./steps";

const KINDS = { id: "text", name: "text", note: "text" } as const;

/** A named regime: made, or changed; edges made by it before keep the steps they were made with. */
export function RecipeForm({
  recipe,
  onDone,
}: {
  recipe?: Schemas["RecipeBody"] | undefined;
  onDone: (id: string) => void;
}) {
  const [start] = useState(() => ({
    id: recipe?.id ?? newId(),
    name: recipe?.name ?? "",
    note: recipe?.note ?? "",
  }));
  const draft = `recipe:${recipe?.id ?? "new"}`;
  const save = useChange(putRecipe, () => {
    const { id } = form.typed;
    form.drop();
    steps.drop();
    onDone(id);
  });
  const form = useForm({ draft, kinds: KINDS, start, error: save.error });
  const steps = useSteps(`${draft}:steps`, recipe?.steps ?? [NEW_STEP]);
  const submit = form.onSubmit((said) => {
    const read = steps.read();
    if (!read) return;
    form.set({ id: said.id }); // the same recipe after a reload, too
    save.mutate({ ...said, steps: stepsSent(read) });
  });
  for (const field of steps.fields("steps")) form.at(field);
  return (
    <form onSubmit={submit} className="flex flex-col gap-4" noValidate>
      <Field label="What is the recipe called?" {...form.field("name")} autoFocus />
      <StepsEditor steps={steps} error={save.error} />
      <LongField label="Note" {...form.field("note")} />
      <Note>
        Grinding and stropping make dust: wet, or with a mask. Your own workshop's rules come first.
      </Note>
      <FormFoot form={form} isSaving={save.isPending}>
        Save recipe
      </FormFoot>
    </form>
  );
}
