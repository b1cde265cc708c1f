import { useState } from "react";
import { putShot, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { newId } from "../../domain/ids";
import { WORDS } from "../../domain/words";
import { Choice, Options } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { useForm } from "../../ui/useForm";
import { SimulatedShot } from "./SimulatedShot";
import { type ReadLine, readLines } from "./typed";

const KINDS = {
  name: "text",
  surface: { word: "surfaces" },
  normalised: { word: "normalised" },
  lines: "text",
  on: "day",
  analyser: "text",
  operator: "text",
} as const;

/** A shot typed or pasted, an element a line; or one of the simulated analyser. */
export function ShotForm({
  bladeId,
  claim,
  number,
  onDone,
}: {
  bladeId: string;
  claim: string;
  number: number;
  onDone: () => void;
}) {
  const [id] = useState(newId);
  const save = useChange(
    (shot: Schemas["ShotBody"]) => putShot(bladeId, id, shot),
    () => {
      form.drop();
      onDone();
    },
  );
  const form = useForm({
    draft: `shot:${bladeId}`,
    kinds: KINDS,
    start: {
      name: String(number),
      surface: "",
      normalised: "unknown",
      lines: "",
      on: "",
      analyser: "",
      operator: "",
    },
    error: save.error,
  });
  const refused = save.error instanceof Refused ? save.error : null;
  const lines = readLines(form.typed.lines);
  const wrong = lines.find((line) => line.wrong)?.wrong;
  const atLines = lineRefusal(refused, lines);
  const submit = form.onSubmit(({ lines: _, ...said }) => {
    if (!wrong) save.mutate({ ...said, readings: lines.map(reading) });
  });
  return (
    <>
      <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-3">
        <Field label="Shot" {...form.field("name")} />
        <Choice label="On" {...form.choice("surface")}>
          <Options of={WORDS.surfaces} />
        </Choice>
        <Choice label="Normalised to 100 %" className="col-span-2" {...form.choice("normalised")}>
          <Options of={WORDS.normalised} />
        </Choice>
        <LongField
          label="Elements, one a line: symbol, per cent, ±"
          hint="Cr 12.10 0.08; below the limit of detection: V <0.02"
          className="col-span-2"
          rows={9}
          {...form.field("lines")}
          error={wrong ?? atLines}
        />
        <DayField label="Day" {...form.field("on")} />
        <Field label="Operator" {...form.field("operator")} />
        <Field
          label="Analyser, or another method"
          hint="Carbon by combustion or spark emission is a shot of its own"
          className="col-span-2"
          {...form.field("analyser")}
        />
        <FormFoot
          className="col-span-2"
          form={form}
          isSaid={Boolean(atLines)}
          isSaving={save.isPending}
        >
          Save shot
        </FormFoot>
      </form>
      <SimulatedShot bladeId={bladeId} claim={claim} name={form.typed.name} onDone={onDone} />
    </>
  );
}

function reading(line: ReadLine): Schemas["ReadingBody"] {
  return {
    element: line.element,
    percent: line.percent,
    plus_minus_percent: line.plusMinus,
    detected: line.detected,
  };
}

/** A refusal names the reading by its place; what was typed is named by its line. */
function lineRefusal(refused: Refused | null, lines: readonly ReadLine[]): string | undefined {
  const place = /^readings\.(\d+)\./.exec(refused?.problem.field ?? "");
  const isOurs = place !== null || refused?.problem.field === "readings";
  if (!refused || !isOurs) return undefined;
  const line = place ? lines[Number(place[1])] : undefined;
  return line ? `line ${line.line}: ${refused.message}` : refused.message;
}
