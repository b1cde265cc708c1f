import { useState } from "react";
import { Link } from "react-router";
import { deleteAbrasive, putAbrasive, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { newId } from "../../domain/ids";
import { labelOf } from "../../domain/words";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Section } from "../../ui/Section";
import { useForm } from "../../ui/useForm";

const KINDS = { name: "text", kind: "text", size_um: "number", grit: "text" } as const;
const BLANK = { name: "", kind: "", size_um: "", grit: "" };

/** The tester's own abrasives beside common compounds; grit scales are read in the reckoner. */
export function Abrasives({ shelf }: { shelf: Schemas["ShelfOut"] }) {
  const [id, setId] = useState(newId);
  const save = useChange(putAbrasive, () => {
    form.drop();
    setId(newId());
  });
  const form = useForm({ draft: "new-abrasive", kinds: KINDS, start: BLANK, error: save.error });
  const remove = useChange(deleteAbrasive);
  return (
    <div className="grid gap-x-12 gap-y-6 pt-4 bench:grid-cols-2">
      <Section title="Your abrasives">
        <ul className="mt-1">
          {shelf.abrasives.map((a) => (
            <li key={a.id} className="flex min-h-11 items-center gap-3 border-b border-line">
              <b>{a.name}</b>
              <span className="text-ink-2">
                {[
                  a.kind,
                  a.size_um ? `${a.size_um} µm` : "",
                  a.grit,
                  labelOf("standings", a.standing ?? "claimed"),
                ]
                  .filter(Boolean)
                  .join(", ")}
              </span>
              <button
                type="button"
                aria-label={`Delete ${a.name}`}
                className="ml-auto min-h-11 min-w-11 cursor-pointer"
                onClick={() => remove.mutate(a.id)}
              >
                ×
              </button>
            </li>
          ))}
          {shelf.abrasives.length === 0 ? <li className="text-ink-2">None is named yet.</li> : null}
        </ul>
        <form
          onSubmit={form.onSubmit((read) => save.mutate({ id, ...read, standing: "claimed" }))}
          noValidate
          className="mt-4 grid grid-cols-2 gap-3"
        >
          <Field label="Name" {...form.field("name")} />
          <Field label="Kind" placeholder="diamond, alumina stone" {...form.field("kind")} />
          <Field label="Grain size" unit="µm" {...form.field("size_um")} />
          <Field label="Grit, as it is sold" {...form.field("grit")} />
          <FormFoot className="col-span-2" form={form} isSaving={save.isPending}>
            Add to shelf
          </FormFoot>
        </form>
      </Section>
      <Section title="Compounds sold by size">
        <ul className="mt-1">
          {shelf.compounds.map((c) => (
            <li key={c.name} className="flex min-h-9 items-center gap-3 border-b border-line">
              {c.name}
              <span className="ml-auto text-note text-ink-2">
                {c.size_um} µm, {labelOf("standings", c.standing)}
              </span>
            </li>
          ))}
        </ul>
        <p className="mt-3">
          Grits of paper, stone and plate are turned into µm, and back, in the{" "}
          <Link className="font-semibold underline underline-offset-4" to="/reckoner#abrasive">
            reckoner
          </Link>
          .
        </p>
      </Section>
    </div>
  );
}
