import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { deleteBatch, patchBatch, putBatch, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { shelfQuery } from "../../api/queries";
import { newId } from "../../domain/ids";
import { Button } from "../../ui/Button";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { Note } from "../../ui/Note";
import { Notice } from "../../ui/Notice";
import { Tick } from "../../ui/Tick";
import { type Typed, useForm } from "../../ui/useForm";
import { alloyRead, alloyTyped, ReferenceAlloy } from "./ReferenceAlloy";

const KINDS = {
  name: "text",
  owner: "text",
  sent_on: "day",
  back_on: "day",
  analyser: "text",
  operator: "text",
  note: "text",
  alloy: "text",
  certificate: "text",
  shot: "text",
} as const;
const EMPTY: Typed<typeof KINDS> = {
  name: "",
  owner: "",
  sent_on: "",
  back_on: "",
  analyser: "",
  operator: "",
  note: "",
  ...alloyTyped(null),
};

/** What is said of a batch, and which blades are in it. */
export function BatchForm({
  batch,
  onDone,
}: {
  batch: Schemas["BatchOut"] | undefined;
  onDone: () => void;
}) {
  const shelf = useQuery(shelfQuery);
  const [id] = useState(() => batch?.id ?? newId());
  const [inIt, setInIt] = useState<readonly string[]>(batch?.blade_ids ?? []);
  const save = useChange(
    (body: Schemas["BatchBody"]) => (batch ? patchBatch(id, body) : putBatch(id, body)),
    () => {
      form.drop();
      onDone();
    },
  );
  const form = useForm({
    draft: `batch:${batch?.id ?? ""}`,
    kinds: KINDS,
    start: batch ? { ...batch, ...alloyTyped(batch.reference) } : EMPTY,
    error: save.error,
  });
  const remove = useChange(() => deleteBatch(id), onDone);
  const here = shelf.data?.blades.filter(({ blade }) => !blade.archived_utc) ?? [];
  return (
    <form
      onSubmit={form.onSubmit(({ alloy, certificate, shot, ...read }) => {
        const { sent, wrong } = alloyRead({ alloy, certificate, shot });
        if (!wrong) save.mutate({ ...read, blade_ids: [...inIt], reference: sent });
      })}
      noValidate
      className="grid grid-cols-2 gap-3"
    >
      <Field label="Name of the batch" className="col-span-2" {...form.field("name")} />
      <Field label="Owner of the blades" className="col-span-2" {...form.field("owner")} />
      <DayField label="Sent on" {...form.field("sent_on")} />
      <DayField label="Back on" {...form.field("back_on")} />
      <Field label="Analyser" {...form.field("analyser")} />
      <Field label="Operator" {...form.field("operator")} />
      <fieldset className="col-span-2">
        <legend className="text-note font-medium text-ink-2">Blades in it</legend>
        <div className="grid max-h-64 grid-cols-2 overflow-y-auto">
          {here.map(({ blade }) => (
            <Tick
              key={blade.id}
              label={`${blade.code}${blade.claimed_grade ? `, ${blade.claimed_grade}` : ""}`}
              checked={inIt.includes(blade.id)}
              onTick={(on) =>
                setInIt(on ? [...inIt, blade.id] : inIt.filter((other) => other !== blade.id))
              }
            />
          ))}
        </div>
      </fieldset>
      <ReferenceAlloy
        typed={form.typed}
        onTyped={({ alloy, certificate, shot }) => form.set({ alloy, certificate, shot })}
        errorAt={(field) => refusedInside(save.error, field)}
      />
      <LongField label="Note" className="col-span-2" {...form.field("note")} />
      <Notice
        says={isAtAlloy(save.error) ? undefined : (form.notice ?? form.at("blade_ids"))}
        className="col-span-2"
      />
      <span className="col-span-2 flex justify-between">
        <Button kind="next" type="submit" disabled={save.isPending}>
          Save batch
        </Button>
        {batch ? (
          <Button kind="danger" onClick={() => remove.mutate(undefined)}>
            Delete batch
          </Button>
        ) : null}
      </span>
      {batch ? <Note className="col-span-2">The blades and their shots stay.</Note> : null}
    </form>
  );
}

/** What was refused at a field of the wire, or at one inside of it. */
function refusedInside(error: Error | null, field: string): string | undefined {
  const at = error instanceof Refused ? (error.problem.field ?? "") : "";
  return at === field || at.startsWith(`${field}.`) ? error?.message : undefined;
}

const isAtAlloy = (error: Error | null) => refusedInside(error, "reference") !== undefined;
