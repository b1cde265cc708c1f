import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { deleteBatch, patchBatch, putBatch, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { shelfQuery } from "../../api/queries";
import { newId } from "../../domain/ids";
import { Button } from "../../ui/Button";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { Tick } from "../../ui/Tick";

const EMPTY = {
  name: "",
  owner: "",
  sent_on: "",
  back_on: "",
  analyser: "",
  operator: "",
  note: "",
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
  const [typed, setTyped] = useState<typeof EMPTY>({ ...EMPTY, ...(batch ? plain(batch) : {}) });
  const [inIt, setInIt] = useState<readonly string[]>(batch?.blade_ids ?? []);
  const save = useChange(
    (body: Schemas["BatchBody"]) => (batch ? patchBatch(id, body) : putBatch(id, body)),
    onDone,
  );
  const remove = useChange(() => deleteBatch(id), onDone);
  const refused = save.error instanceof Refused ? save.error : null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate({ ...typed, blade_ids: [...inIt] });
  };
  const field = (name: keyof typeof EMPTY) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    error: refused?.at(name),
  });
  const here = shelf.data?.blades.filter(({ blade }) => !blade.archived_utc) ?? [];
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-3">
      <Field label="Name of the batch" className="col-span-2" {...field("name")} />
      <Field label="Owner of the blades" className="col-span-2" {...field("owner")} />
      <DayField label="Sent on" {...field("sent_on")} />
      <DayField label="Back on" {...field("back_on")} />
      <Field label="Analyser" {...field("analyser")} />
      <Field label="Operator" {...field("operator")} />
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
      <LongField label="Note" className="col-span-2" {...field("note")} />
      {save.error && !refused?.problem.field ? (
        <p role="alert" className="col-span-2 text-rust">
          {save.error.message}
        </p>
      ) : null}
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
      {batch ? (
        <p className="col-span-2 text-note text-ink-2">The blades and their shots stay.</p>
      ) : null}
    </form>
  );
}

function plain(batch: Schemas["BatchOut"]): Partial<typeof EMPTY> {
  const names = Object.keys(EMPTY) as (keyof typeof EMPTY)[];
  return Object.fromEntries(names.map((name) => [name, batch[name] ?? ""]));
}
