import { type FormEvent, useState } from "react";
import { putGrade, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Options } from "../../ui/Choice";
import { Field, LongField } from "../../ui/Field";
import { type ReadRange, readRanges, typedRanges } from "./ranges";

type Route = NonNullable<Schemas["GradeBody"]["route"]>;

/** A grade as the tester has it; what is left open stays as the library says. */
export function GradeForm({
  grade,
  onDone,
}: {
  grade: Schemas["GradeOut"] | undefined;
  onDone: () => void;
}) {
  const [typed, setTyped] = useState({
    name: grade?.name ?? "",
    standard: grade?.standard ?? "",
    low: String(grade?.usual_low_hrc ?? ""),
    high: String(grade?.usual_high_hrc ?? ""),
    source: grade?.source ?? "",
    ranges: typedRanges(grade?.ranges ?? []),
  });
  const [route, setRoute] = useState<Route>(grade?.route ?? "");
  const save = useChange(putGrade, onDone);
  const refused = save.error instanceof Refused ? save.error : null;
  const numbers = { low: typedNumber(typed.low), high: typedNumber(typed.high) };
  const ranges = readRanges(typed.ranges, grade?.ranges ?? []);
  const wrong = ranges.find((read) => read.wrong)?.wrong;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (Object.values(numbers).includes(undefined) || wrong) return;
    save.mutate({
      name: typed.name.trim(),
      grade: {
        standard: typed.standard,
        route,
        usual_low_hrc: numbers.low ?? null,
        usual_high_hrc: numbers.high ?? null,
        source: typed.source,
        standing: grade?.standing ?? "measured_elsewhere",
        also: grade?.also ?? [],
        equivalents: grade?.equivalents ?? [],
        ranges: ranges.map((read) => read.range),
      },
    });
  };
  const field = (name: keyof typeof typed, wire: string = name) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    error:
      name in numbers && numbers[name as "low" | "high"] === undefined
        ? `“${typed[name]}” is not a number`
        : refused?.at(wire),
  });
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-3">
      <Field
        label="Grade, by its designation"
        className="col-span-2"
        disabled={grade !== undefined}
        {...field("name")}
      />
      <Field label="Standard" {...field("standard")} />
      <Choice label="Made by" value={route} onPick={(v) => setRoute(v as Route)}>
        <Options of={WORDS.routes} />
      </Choice>
      <LongField
        label="Ranges, an element a line, mass per cent"
        hint="Cr 11.0-13.0; at most: Si -0.60; at least: V 0.15-"
        className="col-span-2"
        rows={10}
        {...field("ranges")}
        error={wrong ?? rangeRefusal(refused, ranges)}
      />
      <Field
        label="Usually from"
        unit="HRC"
        inputMode="decimal"
        {...field("low", "usual_low_hrc")}
      />
      <Field label="to" unit="HRC" inputMode="decimal" {...field("high", "usual_high_hrc")} />
      <Field label="Where the hardness is from" className="col-span-2" {...field("source")} />
      {save.error && !refused?.problem.field ? (
        <p role="alert" className="col-span-2 text-rust">
          {save.error.message}
        </p>
      ) : null}
      <Button
        kind="next"
        type="submit"
        className="col-span-2 justify-self-start"
        disabled={save.isPending || typed.name.trim() === ""}
      >
        Save
      </Button>
    </form>
  );
}

function rangeRefusal(refused: Refused | null, ranges: readonly ReadRange[]): string | undefined {
  const field = refused?.problem.field ?? "";
  if (!refused || !field.startsWith("ranges")) return undefined;
  const place = /^ranges\.(\d+)\./.exec(field);
  const line = place ? ranges[Number(place[1])] : undefined;
  return line ? `line ${line.line}: ${refused.message}` : refused.message;
}
