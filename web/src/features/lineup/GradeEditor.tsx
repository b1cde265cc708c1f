import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { patchBlade, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { WORDS } from "../../domain/words";
import { AssayWord } from "../../parts/AssayWord";
import { Button } from "../../ui/Button";
import { Choice, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Pop } from "../../ui/Pop";
import { takeFromShelf } from "./changes";

type Blade = Schemas["BladeOut"];

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
  const [typed, setTyped] = useState({
    code: blade.own_code,
    arms: blade.arms.join(", "),
    grade: blade.claimed_grade ?? "",
    low: blade.usual_hardness_low_hrc?.toString() ?? "",
    high: blade.usual_hardness_high_hrc?.toString() ?? "",
    role: blade.role,
  });
  const numbers = [typed.low, typed.high].map(typedNumber);
  const save = useChange(
    async () => {
      await patchBlade(blade.id, {
        code: typed.code,
        claimed_grade: typed.grade.trim() || null,
        usual_hardness_low_hrc: numbers[0] ?? null,
        usual_hardness_high_hrc: numbers[1] ?? null,
      });
      // untouched they are not sent: a file may have named an arm with a comma in it
      const stated = typed.arms === blade.arms.join(", ") ? null : named(typed.arms);
      if (typed.role !== blade.role || stated)
        await takeFromShelf(trialId, blade.id, typed.role, stated);
    },
    () => setOpen(false),
  );
  const refused = save.error instanceof Refused ? save.error : null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!numbers.includes(undefined)) save.mutate(undefined);
  };
  const field = (
    name: "code" | "arms" | "grade" | "low" | "high",
    wire: string,
    number?: number,
  ) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    error:
      number !== undefined && numbers[number] === undefined
        ? `“${typed[name]}” is not a number`
        : refused?.at(wire),
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
        <span className="cond text-note text-ink-2">{blade.role.replace("_", " ")}</span>
      ) : null}
    </button>
  );
  return (
    <Pop open={open} onOpenChange={setOpen} trigger={trigger} tip={cell?.says ?? ""}>
      <div className="mb-3 border-b border-line pb-3">
        {cell?.says ? <p className="mb-1 text-note font-medium">{cell.says}</p> : null}
        <AssayWord bladeId={blade.id} />
      </div>
      <form onSubmit={submit} className="flex flex-col gap-3" noValidate>
        <Field label="Steel, by its designation" {...field("grade", "claimed_grade")} autoFocus />
        <Field label="Blade code" {...field("code", "code")} />
        <Choice
          label="Role"
          value={typed.role}
          onPick={(picked) => setTyped({ ...typed, role: picked as Blade["role"] })}
        >
          <Options of={WORDS.trialRoles} />
        </Choice>
        <Field
          label="Preparations compared"
          term="arm"
          hint="Empty: the blade as it is. Else such as: coarse, polished"
          {...field("arms", "arms")}
        />
        <div className="grid grid-cols-2 gap-3">
          <Field
            label="Usually hardened from"
            unit="HRC"
            inputMode="decimal"
            {...field("low", "usual_hardness_low_hrc", 0)}
          />
          <Field
            label="to"
            unit="HRC"
            inputMode="decimal"
            {...field("high", "usual_hardness_high_hrc", 1)}
          />
        </div>
        <p className="text-note text-ink-2">Empty: the range of its grade on the shelf.</p>
        {save.error && !refused?.problem.field ? (
          <p className="text-rust">{save.error.message}</p>
        ) : null}
        <Button kind="next" type="submit" disabled={save.isPending}>
          Save
        </Button>
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
