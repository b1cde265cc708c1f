import type { Schemas } from "../../api/client";
import { shownNumber } from "../../domain/typed";
import { useTrialPatch } from "../../parts/useTrialPatch";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Notice } from "../../ui/Notice";
import { Tick } from "../../ui/Tick";
import { useForm } from "../../ui/useForm";

type Variable = Schemas["VariableOut"];
type Trial = Schemas["TrialOut"];

const KINDS = { tolerance: "number", effect: "number" } as const;
const WITHOUT_TOLERANCE: readonly Variable["kind"][] = ["alike", "steel", "settled"];

/** How closely a variable is held equal, and what a mismatch is assumed to do. */
export function ToleranceForm({
  trial,
  variable,
  onDone,
}: {
  trial: Trial;
  variable: Variable;
  onDone: () => void;
}) {
  const save = useTrialPatch(trial, () => {
    form.drop();
    onDone();
  });
  const form = useForm({
    draft: `tolerance:${trial.id}:${variable.name}`,
    kinds: KINDS,
    start: {
      tolerance: shownNumber(variable.tolerance),
      effect: shownNumber(variable.effect_percent),
    },
    error: save.error,
  });
  const submit = form.onSubmit((read) => {
    const tolerances = { ...trial.tolerances };
    const effects = { ...trial.effects };
    if (read.tolerance === null || read.tolerance === variable.usual_tolerance)
      delete tolerances[variable.name];
    else tolerances[variable.name] = read.tolerance;
    if (read.effect === null) delete effects[variable.name];
    else if (read.effect !== variable.effect_percent) effects[variable.name] = read.effect;
    save.change({ tolerances, effects });
  });
  const unit = variable.tolerance_unit;
  const hasTolerance = !WITHOUT_TOLERANCE.includes(variable.kind);
  return (
    <form onSubmit={submit} className="flex flex-col gap-3" noValidate>
      {hasTolerance ? (
        <>
          <Field
            label="Held equal within"
            unit={unit}
            {...form.field("tolerance", "tolerances")}
            hint={`usually ${variable.usual_tolerance} ${unit}`}
          />
          <Field
            label="A mismatch is assumed to make"
            unit={`% of life for each ${variable.unit || "unit"}`}
            {...form.field("effect", "effects")}
            hint="An assumption, only said beside a mismatch; no result is corrected by it."
          />
        </>
      ) : null}
      {variable.kind === "length" ? (
        <Tick
          label="Scale counts to one edge length"
          checked={trial.scale_edge_length}
          onTick={(on) => save.change({ scale_edge_length: on })}
        />
      ) : null}
      {hasTolerance ? (
        <FormFoot form={form} isSaving={save.isPending} />
      ) : (
        <Notice says={form.notice} />
      )}
      {variable.kind === "settled" ? (
        <p className="text-note">Which edges count is set under “Method”, before the first cut.</p>
      ) : (
        <Button
          kind="quiet"
          className="self-start px-0"
          onClick={() => save.change({ let_go: [...trial.let_go, variable.name] })}
        >
          Accept it as different
        </Button>
      )}
    </form>
  );
}
