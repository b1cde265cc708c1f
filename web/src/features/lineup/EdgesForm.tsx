import type { Schemas } from "../../api/client";
import { LIMITS } from "../../domain/limits.gen";
import { shownNumber } from "../../domain/typed";
import { WORDS } from "../../domain/words";
import { useTrialPatch } from "../../parts/useTrialPatch";
import { Choice, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { useForm } from "../../ui/useForm";

const KINDS = {
  edges_per_blade: LIMITS.edges_per_blade,
  settled_kind: { word: "settledRules" },
  settled_edge_number: LIMITS.settled_edge_number,
  settled_steel_removed_mm: "number",
} as const;

/** How many edges are cut of each blade, and which of them count. */
export function EdgesForm({ trial, onDone }: { trial: Schemas["TrialOut"]; onDone: () => void }) {
  const save = useTrialPatch(trial, () => {
    form.drop();
    onDone();
  });
  const form = useForm({
    draft: `edges:${trial.id}`,
    kinds: KINDS,
    start: {
      edges_per_blade: shownNumber(trial.edges_per_blade),
      settled_kind: trial.settled_kind,
      settled_edge_number: shownNumber(trial.settled_edge_number),
      settled_steel_removed_mm: shownNumber(trial.settled_steel_removed_mm),
    },
    error: save.error,
  });
  const { settled_kind: kind } = form.typed;
  return (
    <form onSubmit={form.onSubmit(save.change)} className="mt-3 grid grid-cols-2 gap-3" noValidate>
      <Field label="Edges a blade" {...form.field("edges_per_blade")} />
      <Choice
        label="Which edges count"
        term="settled edge"
        {...form.choice("settled_kind")}
        hint="Fixed before the first cut; results are shown with and without the rest."
      >
        <Options of={WORDS.settledRules} />
      </Choice>
      {kind === "edge_number" ? (
        <Field label="From edge number" {...form.field("settled_edge_number")} />
      ) : kind === "steel_removed" ? (
        <Field label="Steel removed" unit="mm" {...form.field("settled_steel_removed_mm")} />
      ) : (
        <span />
      )}
      <FormFoot className="col-span-2" form={form} isSaving={save.isPending} />
    </form>
  );
}
