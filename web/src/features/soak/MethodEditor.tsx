import type { ReactNode } from "react";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { CellError, CellField } from "../../ui/CellField";
import { CellChoice, Choice, Options } from "../../ui/Choice";
import { Field, LongField } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Tick } from "../../ui/Tick";
import type { InterventionRows, PhaseRows, SoakFields } from "./soakForm";

const HOURS = [
  ["every_h", "every"],
  ["from_h", "from"],
  ["until_h", "until"],
] as const;

/**
 * Everything of a method, to be changed: what the blades are in, read in which stages, and what is
 * done again and again.
 */
export function MethodEditor({
  form,
  interventions,
  phases,
}: {
  form: SoakFields;
  interventions: InterventionRows;
  phases: PhaseRows;
}) {
  return (
    <fieldset className="grid grid-cols-1 gap-3 border-l-4 border-line pl-4 bench:grid-cols-6">
      <legend className="sr-only">Edit method</legend>
      <Field
        label="Name of the method"
        className="bench:col-span-2"
        {...form.field("method_name", "method.name")}
      />
      <Field label="Medium" className="bench:col-span-2" {...form.field("immersed_in", "medium")} />
      <Field label="Salt, by mass" unit="%" {...form.field("salt_percent")} />
      <Choice label="Read on" {...form.choice("scale")}>
        <Options of={WORDS.rustScales} />
      </Choice>
      <Stages form={form} />
      <Phases rows={phases} error={form.at("phases")} />
      <Interventions rows={interventions} error={form.at("tending")} />
      <LongField label="Steps, a line each" className="bench:col-span-6" {...form.field("steps")} />
    </fieldset>
  );
}

/** The stages in which each look is made, in their order. */
function Stages({ form }: { form: SoakFields }) {
  const chosen = form.typed.stages.split(" ");
  const turn = (stage: string, on: boolean) => {
    const stages = WORDS.inspectionStages.map(([each]) => each as string);
    const kept = stages.filter((each) => (each === stage ? on : chosen.includes(each)));
    form.set({ stages: kept.join(" ") });
  };
  return (
    <div className="bench:col-span-6">
      <Note className="font-medium">Stages of each round</Note>
      <div className="flex flex-wrap gap-x-6">
        {WORDS.inspectionStages.map(([stage, name]) => (
          <Tick
            key={stage}
            label={name}
            checked={chosen.includes(stage)}
            onTick={(on) => turn(stage, on)}
          />
        ))}
      </div>
      <CellError says={form.at("stages")} />
    </div>
  );
}

/** Stretches of the soak, each in a medium of its own. */
function Phases({ rows, error }: { rows: PhaseRows; error: string | undefined }) {
  return (
    <div className="bench:col-span-6">
      <Note className="font-medium">Phases, where the medium changes on the way</Note>
      {rows.rows.map((row, place) => (
        <div key={row.id} className="mt-1 flex flex-wrap items-start gap-2">
          <span className="w-64">
            <CellField says={`Phase ${place + 1}, medium`} {...rows.cell(row, "medium")} />
          </span>
          <Cell label="until" unit="h">
            <CellField
              says={`Phase ${place + 1}, until, h`}
              inputMode="decimal"
              className="w-20"
              {...rows.cell(row, "until_h")}
            />
          </Cell>
          <Cell label="salt" unit="%">
            <CellField
              says={`Phase ${place + 1}, salt, %`}
              inputMode="decimal"
              className="w-20"
              {...rows.cell(row, "salt_percent")}
            />
          </Cell>
          <Cell label="side">
            <CellChoice says={`Phase ${place + 1}, side`} {...rows.choice(row, "side")}>
              <Options of={WORDS.sides} />
            </CellChoice>
          </Cell>
          <Cell label="read on">
            <CellChoice says={`Phase ${place + 1}, read on`} {...rows.choice(row, "scale")}>
              <Options of={WORDS.rustScales} />
            </CellChoice>
          </Cell>
          <Button
            kind="quiet"
            aria-label={`Delete phase ${place + 1}`}
            onClick={() => rows.remove(row.id)}
          >
            delete
          </Button>
        </div>
      ))}
      <CellError says={error} />
      <Button
        className="mt-2"
        onClick={() =>
          rows.add({ medium: "", until_h: "", side: "both", scale: "rust", salt_percent: "" })
        }
      >
        Add a phase
      </Button>
    </div>
  );
}

/** A field of a row with its label before it, and its unit after it. */
function Cell({
  label,
  unit = "",
  children,
}: {
  label: string;
  unit?: string;
  children: ReactNode;
}) {
  return (
    <span className="flex items-baseline gap-2">
      {label}
      <span>{children}</span>
      {unit}
    </span>
  );
}

/** What is done to the coupons again and again. */
function Interventions({ rows, error }: { rows: InterventionRows; error: string | undefined }) {
  return (
    <div className="bench:col-span-6">
      <Note className="font-medium">Repeated interventions</Note>
      {rows.rows.map((row, place) => (
        <div key={row.id} className="mt-1 flex flex-wrap items-start gap-2">
          <span className="min-w-52">
            <CellChoice says={`Intervention ${place + 1}`} {...rows.choice(row, "kind")}>
              <Options of={WORDS.tendings} />
            </CellChoice>
          </span>
          {HOURS.map(([name, label]) => (
            <Cell key={name} label={label} unit="h">
              <CellField
                says={`Intervention ${place + 1}, ${label}, h`}
                inputMode="decimal"
                className="w-20"
                {...rows.cell(row, name)}
              />
            </Cell>
          ))}
          <Button
            kind="quiet"
            aria-label={`Delete intervention ${place + 1}`}
            onClick={() => rows.remove(row.id)}
          >
            delete
          </Button>
        </div>
      ))}
      <CellError says={error} />
      <Button
        className="mt-2"
        onClick={() => rows.add({ kind: "sprayed", every_h: "12", from_h: "0", until_h: "" })}
      >
        Add a repeated intervention
      </Button>
    </div>
  );
}
