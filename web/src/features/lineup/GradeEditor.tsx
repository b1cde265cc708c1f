import { useState } from "react";
import { Link } from "react-router";
import { patchBlade, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { shownNumber } from "../../domain/typed";
import { labelOf, WORDS } from "../../domain/words";
import { AssayWord } from "../../parts/AssayWord";
import { Choice, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Note } from "../../ui/Note";
import { Pop } from "../../ui/Pop";
import { useForm, type Values } from "../../ui/useForm";
import { takeFromShelf } from "./changes";

type Blade = Schemas["BladeOut"];

const KINDS = {
  code: "text",
  arms: "text",
  claimed_grade: "text",
  usual_hardness_low_hrc: "number",
  usual_hardness_high_hrc: "number",
  role: { word: "trialRoles" },
} as const;

/**
 * The blade's code, claimed steel, how that is usually hardened, and what it is in the trial for.
 */
export function GradeEditor({
  trialId,
  blade,
  cell,
}: {
  trialId: string;
  blade: Blade;
  cell: Schemas["CellOut"] | undefined;
}) {
  const [open, setOpen] = useState(false);
  const save = useChange(
    async (read: Values<typeof KINDS>) => {
      await patchBlade(blade.id, {
        code: read.code,
        claimed_grade: read.claimed_grade.trim() || null,
        usual_hardness_low_hrc: read.usual_hardness_low_hrc,
        usual_hardness_high_hrc: read.usual_hardness_high_hrc,
      });
      // untouched they are not sent: a file may have named an arm with a comma in it
      const stated = read.arms === blade.arms.join(", ") ? null : named(read.arms);
      if (read.role !== blade.role || stated)
        await takeFromShelf(trialId, blade.id, read.role, stated);
    },
    () => {
      form.drop();
      setOpen(false);
    },
  );
  const form = useForm({
    draft: `steel:${trialId}:${blade.id}`,
    kinds: KINDS,
    start: {
      code: blade.own_code,
      arms: blade.arms.join(", "),
      claimed_grade: blade.claimed_grade ?? "",
      usual_hardness_low_hrc: shownNumber(blade.usual_hardness_low_hrc),
      usual_hardness_high_hrc: shownNumber(blade.usual_hardness_high_hrc),
      role: blade.role,
    },
    error: save.error,
  });
  const trigger = (
    <button
      type="button"
      aria-label={`${blade.code}, steel: ${blade.claimed_grade ?? "not named"}. Edit`}
      className={`flex min-h-16 w-full cursor-pointer flex-col justify-center px-2 text-left
        hover:underline hover:decoration-line hover:underline-offset-4`}
    >
      {blade.claimed_grade ?? <span className="text-ink-2">not named</span>}
      {blade.role ? (
        <span className="cond text-note text-ink-2">{labelOf("trialRoles", blade.role)}</span>
      ) : null}
    </button>
  );
  return (
    <Pop open={open} onOpenChange={setOpen} trigger={trigger} tip={cell?.says ?? ""}>
      <div className="mb-3 border-b border-line pb-3">
        {cell?.says ? <p className="mb-1 text-note font-medium">{cell.says}</p> : null}
        <AssayWord bladeId={blade.id} />
      </div>
      <form
        onSubmit={form.onSubmit((read) => save.mutate(read))}
        className="flex flex-col gap-3"
        noValidate
      >
        <Field label="Steel, by its designation" {...form.field("claimed_grade")} autoFocus />
        <Field label="Blade code" {...form.field("code")} />
        <Choice label="Role" {...form.choice("role")}>
          <Options of={WORDS.trialRoles} />
        </Choice>
        <Field
          label="Preparations compared"
          term="arm"
          hint="Empty: the blade as it is. Else such as: coarse, polished"
          {...form.field("arms")}
        />
        <div className="grid grid-cols-2 gap-3">
          <Field
            label="Usually hardened from"
            unit="HRC"
            {...form.field("usual_hardness_low_hrc")}
          />
          <Field label="to" unit="HRC" {...form.field("usual_hardness_high_hrc")} />
        </div>
        <Note>Empty: the range of its grade on the shelf.</Note>
        <FormFoot form={form} isSaving={save.isPending} />
        <Link
          className="text-note font-semibold underline underline-offset-4"
          to={`/blades/${blade.id}`}
        >
          {blade.own_code}'s page
        </Link>
      </form>
    </Pop>
  );
}

const named = (list: string) => (list.trim() ? list.split(",").map((name) => name.trim()) : []);
