import { type FormEvent, useState } from "react";
import { Refused, type Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Pop } from "../../ui/Pop";
import { patchBlade, useLineUpChange } from "./changes";

/** The blade's code, claimed steel and edge length, changed in place. */
export function GradeEditor({ trialId, blade }: { trialId: string; blade: Schemas["BladeOut"] }) {
  const [open, setOpen] = useState(false);
  const [code, setCode] = useState(blade.code);
  const [grade, setGrade] = useState(blade.claimed_grade ?? "");
  const [length, setLength] = useState(blade.edge_length_mm?.toString() ?? "");
  const save = useLineUpChange(
    () =>
      patchBlade(trialId, blade.id, {
        code,
        claimed_grade: grade.trim() || null,
        edge_length_mm: typedNumber(length) ?? null,
      }),
    () => setOpen(false),
  );
  const refused = save.error instanceof Refused ? save.error : null;
  const wrong = typedNumber(length) === undefined ? `“${length}” is not a number` : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!wrong) save.mutate(undefined);
  };
  const trigger = (
    <button
      type="button"
      aria-label={`${blade.code}, steel: ${blade.claimed_grade ?? "not named"}. Change it`}
      className="min-h-16 w-full cursor-pointer px-2 text-left font-bold hover:underline hover:decoration-line hover:underline-offset-4"
    >
      {blade.claimed_grade ?? <span className="font-normal text-ink-2">not named</span>}
    </button>
  );
  return (
    <Pop open={open} onOpenChange={setOpen} trigger={trigger}>
      <form onSubmit={submit} className="flex flex-col gap-3" noValidate>
        <Field label="Steel, by its designation" value={grade} onChange={(e) => setGrade(e.target.value)} autoFocus />
        <Field label="Blade code" value={code} onChange={(e) => setCode(e.target.value)} error={refused?.at("code")} />
        <Field
          label="Edge length"
          unit="mm"
          inputMode="decimal"
          value={length}
          onChange={(e) => setLength(e.target.value)}
          error={wrong ?? refused?.at("edge_length_mm")}
        />
        <Button kind="next" type="submit" disabled={save.isPending}>
          Keep
        </Button>
      </form>
    </Pop>
  );
}
