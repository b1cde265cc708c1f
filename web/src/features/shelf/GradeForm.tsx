import { putGrade, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { shownNumber } from "../../domain/typed";
import { WORDS } from "../../domain/words";
import { Choice, Options } from "../../ui/Choice";
import { Field, LongField } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { useForm } from "../../ui/useForm";
import { type ReadRange, readRanges, typedRanges } from "./ranges";

const KINDS = {
  name: "text",
  standard: "text",
  route: { word: "routes" },
  usual_low_hrc: "number",
  usual_high_hrc: "number",
  source: "text",
  ranges: "text",
} as const;

/** A grade as the tester has it; what is left open stays as the library says. */
export function GradeForm({
  grade,
  name = "",
  onDone,
}: {
  grade: Schemas["GradeOut"] | undefined;
  name?: string;
  onDone: () => void;
}) {
  const save = useChange(putGrade, () => {
    form.drop();
    onDone();
  });
  const form = useForm({
    draft: `grade:${grade?.name ?? name}`,
    kinds: KINDS,
    start: {
      name: grade?.name ?? name,
      standard: grade?.standard ?? "",
      route: grade?.route ?? "",
      usual_low_hrc: shownNumber(grade?.usual_low_hrc),
      usual_high_hrc: shownNumber(grade?.usual_high_hrc),
      source: grade?.source ?? "",
      ranges: typedRanges(grade?.ranges ?? []),
    },
    error: save.error,
  });
  const refused = save.error instanceof Refused ? save.error : null;
  const ranges = readRanges(form.typed.ranges, grade?.ranges ?? []);
  const wrong = ranges.find((read) => read.wrong)?.wrong;
  const submit = form.onSubmit(({ name, ...said }) => {
    if (wrong) return;
    save.mutate({
      name: name.trim(),
      grade: {
        ...said,
        standing: grade?.standing ?? "measured_elsewhere",
        also: grade?.also ?? [],
        equivalents: grade?.equivalents ?? [],
        ranges: ranges.map((read) => read.range),
      },
    });
  });
  const atRanges = rangeRefusal(refused, ranges);
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-3">
      <Field
        label="Grade, by its designation"
        className="col-span-2"
        disabled={grade !== undefined}
        {...form.field("name")}
      />
      <Field label="Standard" {...form.field("standard")} />
      <Choice label="Made by" {...form.choice("route")}>
        <Options of={WORDS.routes} />
      </Choice>
      <LongField
        label="Ranges, an element a line, mass per cent"
        hint="Cr 11.0-13.0; at most: Si -0.60; at least: V 0.15-; a nominal figure: Mo 1.0"
        className="col-span-2"
        rows={10}
        {...form.field("ranges")}
        error={wrong ?? atRanges}
      />
      <Field label="Usually from" unit="HRC" {...form.field("usual_low_hrc")} />
      <Field label="to" unit="HRC" {...form.field("usual_high_hrc")} />
      <Field label="Where the hardness is from" className="col-span-2" {...form.field("source")} />
      <FormFoot
        className="col-span-2"
        form={form}
        isSaid={Boolean(atRanges)}
        isSaving={save.isPending}
        disabled={form.typed.name.trim() === ""}
      />
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
