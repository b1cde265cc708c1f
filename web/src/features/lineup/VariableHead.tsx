import { type FormEvent, useState } from "react";
import { Refused, type Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { useTrialPatch } from "../../parts/useTrialPatch";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Pop } from "../../ui/Pop";
import { Tick } from "../../ui/Tick";

type Variable = Schemas["VariableOut"];
type Trial = Schemas["TrialOut"];

/**
 * The head of a column: what is held equal and how closely; explained and changed where it stands.
 */
export function VariableHead({ trial, variable }: { trial: Trial; variable: Variable }) {
  const [open, setOpen] = useState(false);
  const isFactor = variable.factors.includes(trial.factor) && variable.kind !== "settled";
  const changed = variable.tolerance !== variable.usual_tolerance;
  const trigger = (
    <button
      type="button"
      className={`cursor-pointer text-left underline decoration-transparent underline-offset-4
        hover:decoration-line`}
      aria-label={
        `${variable.label}, ${isFactor ? "the factor" : variable.allowed}. ` +
        "Explain or change it"
      }
    >
      {variable.label}
      <span className={`block ${changed ? "font-bold text-ink" : ""}`}>
        {isFactor ? <b className="text-ink">the factor</b> : variable.allowed}
      </span>
    </button>
  );
  return (
    <th
      scope="col"
      className={`px-3 py-2 font-medium
        ${isFactor ? "border-x-2 border-t-2 border-ink bg-sheet" : ""}`}
    >
      <Pop open={open} onOpenChange={setOpen} trigger={trigger}>
        <p className="font-semibold">{variable.label}</p>
        <p className="mt-1 mb-3 text-note">
          {variable.explained} Where it differs, {variable.consequence}.
        </p>
        <ToleranceForm trial={trial} variable={variable} onDone={() => setOpen(false)} />
      </Pop>
    </th>
  );
}

function ToleranceForm({
  trial,
  variable,
  onDone,
}: {
  trial: Trial;
  variable: Variable;
  onDone: () => void;
}) {
  const [tolerance, setTolerance] = useState(String(variable.tolerance));
  const [effect, setEffect] = useState(
    variable.effect_percent === null ? "" : String(variable.effect_percent),
  );
  const save = useTrialPatch(trial, onDone);
  const refused = save.error instanceof Refused ? save.error : null;
  const numeric = !["alike", "settled"].includes(variable.kind);
  const numbers = [tolerance, effect].map(typedNumber);
  const wrong = (i: number, typed: string) =>
    numbers[i] === undefined ? `“${typed}” is not a number` : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (numbers.includes(undefined)) return;
    const tolerances = { ...trial.tolerances };
    const effects = { ...trial.effects };
    if (numbers[0] === null || numbers[0] === variable.usual_tolerance)
      delete tolerances[variable.name];
    else tolerances[variable.name] = numbers[0] as number;
    if (numbers[1] === null) delete effects[variable.name];
    else if (numbers[1] !== variable.effect_percent) effects[variable.name] = numbers[1] as number;
    save.change({ tolerances, effects });
  };
  const unit = variable.tolerance_unit;
  return (
    <form onSubmit={submit} className="flex flex-col gap-3" noValidate>
      {numeric ? (
        <>
          <Field
            label="Held equal within"
            unit={unit}
            inputMode="decimal"
            value={tolerance}
            onChange={(e) => setTolerance(e.target.value)}
            error={wrong(0, tolerance) ?? refused?.at("tolerances")}
            hint={`usually ${variable.usual_tolerance} ${unit}`}
          />
          <Field
            label="A mismatch is assumed to make"
            unit={`% of life for each ${variable.unit || "unit"}`}
            inputMode="decimal"
            value={effect}
            onChange={(e) => setEffect(e.target.value)}
            error={wrong(1, effect) ?? refused?.at("effects")}
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
      {save.error && !refused?.problem.field ? (
        <p className="text-rust">{save.error.message}</p>
      ) : null}
      {numeric ? (
        <Button kind="next" type="submit" disabled={save.isPending}>
          Save
        </Button>
      ) : null}
      {variable.kind === "settled" ? (
        <p className="text-note">
          Which edges count is set under “How it is cut”, before the first cut.
        </p>
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
