import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { putBlade, useChange } from "../../api/changes";
import { Refused } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { useDraft } from "../../ui/useDraft";

const BLANK = { code: "", grade: "", length: "", owner: "", loan_from: "", loan_due: "" };

/** A blade onto the shelf; it gets its mark and goes on to its own page. */
export function NewBlade() {
  const navigate = useNavigate();
  const [id] = useState(newId);
  const [typed, setTyped, drop] = useDraft("new-blade", BLANK);
  const length = typedNumber(typed.length);
  const save = useChange(putBlade, () => {
    drop();
    navigate(`/blades/${id}`);
  });
  const refused = save.error instanceof Refused ? save.error : null;
  const field = (name: keyof typeof BLANK, wire: string = name) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    error:
      name === "length" && length === undefined
        ? `“${typed.length}” is not a number`
        : refused?.at(wire),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (length === undefined) return;
    save.mutate({
      id,
      code: typed.code,
      claimed_grade: typed.grade.trim() || null,
      edge_length_mm: length,
      owner: typed.owner,
      loan_from: typed.loan_from,
      loan_due: typed.loan_due,
    });
  };
  return (
    <form onSubmit={submit} className="grid grid-cols-2 gap-4" noValidate>
      <Field label="Code" {...field("code")} autoFocus />
      <Field label="Claimed steel, by its designation" {...field("grade", "claimed_grade")} />
      <Field
        label="Edge length"
        unit="mm"
        inputMode="decimal"
        {...field("length", "edge_length_mm")}
      />
      <Field label="Maker or owner" {...field("owner")} />
      <Field label="On loan from" {...field("loan_from")} />
      <Field label="Due back" type="date" {...field("loan_due")} />
      {save.error && !refused?.problem.field ? (
        <p role="alert" className="col-span-2 text-rust">
          {save.error.message}
        </p>
      ) : null}
      <Button kind="next" type="submit" className="col-span-2" disabled={save.isPending}>
        Put it on the shelf
      </Button>
    </form>
  );
}
