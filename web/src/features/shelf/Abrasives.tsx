import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { deleteAbrasive, putAbrasive, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { labelOf } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";

/** The tester's own abrasives beside common compounds; grit scales are read in the reckoner. */
export function Abrasives({ shelf }: { shelf: Schemas["ShelfOut"] }) {
  const [typed, setTyped] = useState({ name: "", kind: "", size: "", grit: "" });
  const [id, setId] = useState(newId);
  const save = useChange(putAbrasive, () => {
    setTyped({ name: "", kind: "", size: "", grit: "" });
    setId(newId());
  });
  const remove = useChange(deleteAbrasive);
  const refused = save.error instanceof Refused ? save.error : null;
  const size = typedNumber(typed.size);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (size === undefined) return;
    save.mutate({
      id,
      name: typed.name,
      kind: typed.kind,
      size_um: size,
      grit: typed.grit,
      standing: "claimed",
    });
  };
  const field = (name: keyof typeof typed, wire: string = name) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    error:
      name === "size" && size === undefined ? `“${typed.size}” is not a number` : refused?.at(wire),
  });
  return (
    <div className="grid gap-x-12 gap-y-6 pt-4 bench:grid-cols-2">
      <section aria-label="Your own">
        <h2 className="text-lead font-bold">Your own</h2>
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
        <form onSubmit={submit} noValidate className="mt-4 grid grid-cols-2 gap-3">
          <Field label="Name" {...field("name")} />
          <Field label="Kind" placeholder="diamond, alumina stone" {...field("kind")} />
          <Field label="Grain size" unit="µm" inputMode="decimal" {...field("size", "size_um")} />
          <Field label="Grit, as it is sold" {...field("grit")} />
          <Button
            kind="next"
            type="submit"
            className="col-span-2 justify-self-start"
            disabled={save.isPending}
          >
            Add to shelf
          </Button>
        </form>
      </section>
      <section aria-label="Sold by size">
        <h2 className="text-lead font-bold">Compounds sold by size</h2>
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
      </section>
    </div>
  );
}
