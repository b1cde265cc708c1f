import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { shelfQuery } from "../../api/queries";
import { newId } from "../../domain/ids";
import { LIMITS } from "../../domain/limits.gen";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Mark } from "../../ui/Mark";
import { Notice } from "../../ui/Notice";
import { useForm } from "../../ui/useForm";
import { putBladeInTrial, takeFromShelf } from "./changes";

const KINDS = {
  code: "text",
  claimed_grade: "text",
  edge_length_mm: "number",
  hardness_hrc: "number",
  number: LIMITS.edge_number,
  side_angle_deg: "number",
  thickness_behind_edge_mm: "number",
} as const;
const BLANK = {
  code: "",
  claimed_grade: "",
  edge_length_mm: "",
  hardness_hrc: "",
  number: "",
  side_angle_deg: "",
  thickness_behind_edge_mm: "",
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
              <span className="ml-auto text-note text-ink-2">{blade.origin || "add it"}</span>
            </button>
          </li>
        ))}
      </ul>
      <Notice says={take.error?.message} />
    </section>
  );
}

function NewBlade({ lineUp, onDone }: { lineUp: Schemas["LineUpOut"]; onDone: () => void }) {
  const [ids] = useState(() => ({ blade: newId(), edge: newId() }));
  const add = useChange(
    (body: Parameters<typeof putBladeInTrial>[1]) => putBladeInTrial(lineUp.trial.id, body),
    () => {
      form.drop();
      onDone();
    },
  );
  const form = useForm({
    draft: `add-blade:${lineUp.trial.id}`,
    kinds: KINDS,
    start: BLANK,
    error: add.error,
  });
  const { typed } = form;
  const needsNumber =
    (typed.side_angle_deg || typed.thickness_behind_edge_mm) && !typed.number
      ? "give the number of the edge, counted since new"
      : undefined;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const read = form.read();
    if (needsNumber || !read) return;
    const { number, side_angle_deg, thickness_behind_edge_mm, claimed_grade, ...facts } = read;
    const edge = { id: ids.edge, side_angle_deg, thickness_behind_edge_mm };
    add.mutate({
      ...facts,
      id: ids.blade,
      claimed_grade: claimed_grade.trim() || null,
      edges: number ? [{ ...edge, number }] : [],
    });
  };
  return (
    <form onSubmit={submit} className="grid grid-cols-2 gap-4" noValidate aria-label="A new blade">
      <h3 className="col-span-2 font-semibold">A new blade</h3>
      <Field label="Code" {...form.field("code")} autoFocus />
      <Field label="Steel, by its designation" {...form.field("claimed_grade")} />
      <Field label="Edge length" unit="mm" {...form.field("edge_length_mm")} />
      <Field label="Hardness, if measured" unit="HRC" {...form.field("hardness_hrc")} />
      <Field
        label="Edge in use, number since new"
        hint={`Empty: no edge yet. Here, ${lineUp.trial.settled_rule}.`}
        {...form.field("number")}
        {...(needsNumber ? { error: needsNumber } : {})}
      />
      <Field label="Angle per side" unit="°" {...form.field("side_angle_deg")} />
      <Field
        label="Thickness behind the edge"
        unit="mm"
        {...form.field("thickness_behind_edge_mm")}
      />
      <Notice says={form.notice} className="col-span-2" />
      <Button kind="next" type="submit" className="col-span-2" disabled={add.isPending}>
        Add blade
      </Button>
    </form>
  );
}
