import { patchBlade, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { shownNumber } from "../../domain/typed";
import { WORDS } from "../../domain/words";
import { Choice, Options } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { useForm } from "../../ui/useForm";

type Blade = Schemas["BladeOut"];

const KINDS = {
  code: "text",
  claimed_grade: "text",
  owner: "text",
  price: "text",
  loan_from: "text",
  lent_to: "text",
  loan_due: "day",
  loan_returned: "day",
  note: "text",
  austenitising_c: "number",
  soak_minutes: "number",
  quench: "text",
  sub_zero_c: "number",
  tempers_c: "numbers",
  standing: { word: "standings" },
  heat_note: "text",
} as const;

const typedOf = (blade: Blade) => ({
  code: blade.code,
  claimed_grade: blade.claimed_grade ?? "",
  owner: blade.owner,
  price: blade.price,
  loan_from: blade.loan_from,
  lent_to: blade.lent_to,
  loan_due: blade.loan_due,
  loan_returned: blade.loan_returned,
  note: blade.note,
  austenitising_c: shownNumber(blade.heat_treatment.austenitising_c),
  soak_minutes: shownNumber(blade.heat_treatment.soak_minutes),
  quench: blade.heat_treatment.quench ?? "",
  sub_zero_c: shownNumber(blade.heat_treatment.sub_zero_c),
  tempers_c: blade.heat_treatment.tempers_c?.join(" ") ?? "",
  standing: blade.heat_treatment.standing ?? "claimed",
  heat_note: blade.heat_treatment.note ?? "",
});

/** What is said of a blade, and how it was hardened, to change. */
export function AboutForm({ blade, onDone }: { blade: Blade; onDone: () => void }) {
  const save = useChange(
    (change: Schemas["BladePatch"]) => patchBlade(blade.id, change),
    () => {
      form.drop();
      onDone();
    },
  );
  const form = useForm({
    draft: `about:${blade.id}`,
    kinds: KINDS,
    start: typedOf(blade),
    error: save.error,
  });
  const submit = form.onSubmit((read) => {
    const { austenitising_c, soak_minutes, quench, sub_zero_c, tempers_c, standing, ...own } = read;
    const { heat_note: note, ...said } = own;
    save.mutate({
      ...said,
      claimed_grade: said.claimed_grade.trim() || null,
      heat_treatment: {
        austenitising_c,
        soak_minutes,
        quench,
        sub_zero_c,
        tempers_c,
        standing,
        note,
      },
    });
  });
  return (
    <form className="mt-2 grid grid-cols-2 gap-3" noValidate onSubmit={submit}>
      <Field label="Code" {...form.field("code")} />
      <Field label="Claimed steel, by its designation" {...form.field("claimed_grade")} />
      <Field label="Maker or owner" {...form.field("owner")} />
      <Field label="Price" {...form.field("price")} />
      <Field label="On loan from" {...form.field("loan_from")} />
      <Field label="Lent to" {...form.field("lent_to")} />
      <DayField label="Due back" {...form.field("loan_due")} />
      <DayField label="Returned" {...form.field("loan_returned")} />
      <Field label="Austenitised at" unit="°C" {...form.field("austenitising_c")} />
      <Field label="Soaked for" unit="min" {...form.field("soak_minutes")} />
      <Field label="Quench" {...form.field("quench")} />
      <Field label="Sub-zero" unit="°C" {...form.field("sub_zero_c")} />
      <Field label="Tempers" unit="°C" {...form.field("tempers_c")} />
      <Choice label="How is that known?" {...form.choice("standing")}>
        <Options of={WORDS.standings} />
      </Choice>
      <Field label="More on the heat treatment" {...form.field("heat_note")} />
      <LongField label="Note" className="col-span-2" {...form.field("note")} />
      <FormFoot className="col-span-2" form={form} isSaving={save.isPending} onCancel={onDone} />
    </form>
  );
}
