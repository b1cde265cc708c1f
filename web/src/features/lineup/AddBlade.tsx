import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { shelfQuery } from "../../api/queries";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Mark } from "../../ui/Mark";
import { useDraft } from "../../ui/useDraft";
import { putBladeInTrial, takeFromShelf } from "./changes";

const BLANK = {
  code: "",
  grade: "",
  length: "",
  hardness: "",
  number: "",
  angle: "",
  thickness: "",
};

/** A blade of the shelf, or a new one with its edge here; what is not known yet stays open. */
export function AddBlade({ lineUp, onDone }: { lineUp: Schemas["LineUpOut"]; onDone: () => void }) {
  return (
    <div className="flex flex-col gap-6">
      <FromTheShelf lineUp={lineUp} />
      <NewBlade lineUp={lineUp} onDone={onDone} />
    </div>
  );
}

function FromTheShelf({ lineUp }: { lineUp: Schemas["LineUpOut"] }) {
  const shelf = useQuery(shelfQuery);
  const take = useChange((bladeId: string) => takeFromShelf(lineUp.trial.id, bladeId));
  const free = (shelf.data?.blades ?? []).filter(
    ({ blade }) => !blade.archived_utc && !lineUp.blades.some((b) => b.id === blade.id),
  );
  if (free.length === 0) return null;
  return (
    <section aria-label="From the shelf">
      <h3 className="font-semibold">From the shelf</h3>
      <ul className="mt-1">
        {free.map(({ blade }) => (
          <li key={blade.id}>
            <button
              type="button"
              onClick={() => take.mutate(blade.id)}
              className={`flex min-h-11 w-full cursor-pointer items-center gap-3 border-b
                border-line text-left hover:bg-sheet`}
            >
              <Mark mark={blade.mark} />
              <b>{blade.code}</b>
              <span className="text-ink-2">{blade.claimed_grade ?? "steel not named"}</span>
              <span className="ml-auto text-note text-ink-2">{blade.origin || "take it in"}</span>
            </button>
          </li>
        ))}
      </ul>
      {take.error ? (
        <p role="alert" className="text-rust">
          {take.error.message}
        </p>
      ) : null}
    </section>
  );
}

function NewBlade({ lineUp, onDone }: { lineUp: Schemas["LineUpOut"]; onDone: () => void }) {
  const [ids] = useState(() => ({ blade: newId(), edge: newId() }));
  const [typed, setTyped, drop] = useDraft(`add-blade:${lineUp.trial.id}`, BLANK);
  const value = {
    length: typedNumber(typed.length),
    hardness: typedNumber(typed.hardness),
    number: typedNumber(typed.number),
    angle: typedNumber(typed.angle),
    thickness: typedNumber(typed.thickness),
  };
  const add = useChange(
    () =>
      putBladeInTrial(lineUp.trial.id, {
        id: ids.blade,
        code: typed.code,
        claimed_grade: typed.grade.trim() || null,
        edge_length_mm: value.length ?? null,
        hardness_hrc: value.hardness ?? null,
        edges: value.number
          ? [
              {
                id: ids.edge,
                number: value.number,
                side_angle_deg: value.angle ?? null,
                thickness_behind_edge_mm: value.thickness ?? null,
              },
            ]
          : [],
      }),
    () => {
      drop();
      onDone();
    },
  );
  const refused = add.error instanceof Refused ? add.error : null;
  const needsNumber =
    (value.angle || value.thickness) && !value.number
      ? "say which edge since new it is"
      : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!needsNumber && !Object.values(value).includes(undefined)) add.mutate(undefined);
  };
  const field = (name: keyof typeof BLANK, wireName: string) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    error:
      name in value && value[name as keyof typeof value] === undefined
        ? `“${typed[name]}” is not a number`
        : refused?.at(wireName),
  });
  return (
    <form onSubmit={submit} className="grid grid-cols-2 gap-4" noValidate aria-label="A new blade">
      <h3 className="col-span-2 font-semibold">A new blade</h3>
      <Field label="Code" {...field("code", "code")} autoFocus />
      <Field label="Steel, by its designation" {...field("grade", "claimed_grade")} />
      <Field
        label="Edge length"
        unit="mm"
        inputMode="decimal"
        {...field("length", "edge_length_mm")}
      />
      <Field
        label="Hardness, if measured"
        unit="HRC"
        inputMode="decimal"
        {...field("hardness", "hardness_hrc")}
      />
      <Field
        label="Edge in use, number since new"
        inputMode="numeric"
        hint={`Empty: no edge yet. Here, ${lineUp.trial.settled_rule}.`}
        {...field("number", "number")}
        {...(needsNumber ? { error: needsNumber } : {})}
      />
      <Field
        label="Angle per side"
        unit="°"
        inputMode="decimal"
        {...field("angle", "side_angle_deg")}
      />
      <Field
        label="Thickness behind the edge"
        unit="mm"
        inputMode="decimal"
        {...field("thickness", "thickness_behind_edge_mm")}
      />
      {add.error && !refused?.problem.field ? (
        <p role="alert" className="col-span-2 text-rust">
          {add.error.message}
        </p>
      ) : null}
      <Button kind="next" type="submit" className="col-span-2" disabled={add.isPending}>
        Add the blade
      </Button>
    </form>
  );
}
