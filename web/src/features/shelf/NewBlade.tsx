import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { putBlade, useChange } from "../../api/changes";
import { newId } from "../../domain/ids";
import { Button } from "../../ui/Button";
import { DayField } from "../../ui/DayField";
import { Field } from "../../ui/Field";
import { Notice } from "../../ui/Notice";
import { useForm } from "../../ui/useForm";

const KINDS = {
  code: "text",
  claimed_grade: "text",
  edge_length_mm: "number",
  owner: "text",
  loan_from: "text",
  loan_due: "day",
} as const;
const BLANK = {
  code: "",
  claimed_grade: "",
  edge_length_mm: "",
  owner: "",
  loan_from: "",
  loan_due: "",
};

/** A blade onto the shelf; it gets its mark and goes on to its own page. */
export function NewBlade() {
  const navigate = useNavigate();
  const [id] = useState(newId);
  const save = useChange(putBlade, () => {
    form.drop();
    navigate(`/blades/${id}`);
  });
  const form = useForm({ draft: "new-blade", kinds: KINDS, start: BLANK, error: save.error });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const read = form.read();
    if (read) save.mutate({ id, ...read, claimed_grade: read.claimed_grade.trim() || null });
  };
  return (
    <form onSubmit={submit} className="grid grid-cols-2 gap-4" noValidate>
      <Field label="Code" {...form.field("code")} autoFocus />
      <Field label="Claimed steel, by its designation" {...form.field("claimed_grade")} />
      <Field label="Edge length" unit="mm" {...form.field("edge_length_mm")} />
      <Field label="Maker or owner" {...form.field("owner")} />
      <Field label="On loan from" {...form.field("loan_from")} />
      <DayField label="Due back" {...form.field("loan_due")} />
      <Notice says={form.notice} className="col-span-2" />
      <Button kind="next" type="submit" className="col-span-2" disabled={save.isPending}>
        Add to shelf
      </Button>
    </form>
  );
}
