import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Pop } from "../../ui/Pop";
import { ToleranceForm } from "./ToleranceForm";

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
