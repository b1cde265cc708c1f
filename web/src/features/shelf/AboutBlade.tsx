import { useState } from "react";
import { patchBlade, useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { typedNumbers } from "../../domain/quantities";
import { labelOf, WORDS, type WordOf } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Options } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { useDraft } from "../../ui/useDraft";

type Blade = Schemas["BladeOut"];

/** Whose it is, the loan, the price, what its maker says of it, and how it was hardened. */
export function AboutBlade({ blade }: { blade: Blade }) {
  const [editing, setEditing] = useState(false);
  const heat = blade.heat_treatment;
  return (
    <section aria-label="Owner and price">
      <h2 className="text-lead font-bold">Owner, price, maker's claims</h2>
      {editing ? (
        <AboutForm blade={blade} onDone={() => setEditing(false)} />
      ) : (
        <>
          <dl className="mt-1 grid grid-cols-[8rem_1fr] gap-x-4 gap-y-1">
            <Row name="maker or owner" value={blade.owner} />
            <Row name="loan" value={loanWords(blade)} />
            <Row name="price" value={blade.price} />
            <Row
              name="heat treatment"
              value={`${heatWords(heat)} (${labelOf("standings", heat.standing ?? "claimed")})`}
            />
            <Row name="note" value={blade.note} />
            {blade.origin ? <Row name="came from" value={blade.origin} /> : null}
          </dl>
          <Button kind="quiet" className="px-0" onClick={() => setEditing(true)}>
            Edit
          </Button>
        </>
      )}
    </section>
  );
}

/** How a blade was hardened, as far as it is told. */
export function heatWords(heat: Blade["heat_treatment"]): string {
  const told = [
    heat.austenitising_c ? `${heat.austenitising_c} °C` : "",
    heat.soak_minutes ? `${heat.soak_minutes} min` : "",
    heat.quench ?? "",
    typeof heat.sub_zero_c === "number" ? `sub-zero ${heat.sub_zero_c} °C` : "",
    heat.tempers_c?.length ? `tempered ${heat.tempers_c.join(", ")} °C` : "",
    heat.note ?? "",
  ];
  return told.filter(Boolean).join(", ") || "not recorded";
}

export function loanWords(blade: Blade): string {
  if (!blade.loan_from && !blade.loan_due) return "";
  const from = blade.loan_from ? `from ${blade.loan_from}` : "on loan";
  if (blade.loan_returned) return `${from}, returned ${blade.loan_returned}`;
  return blade.loan_due ? `${from}, due back ${blade.loan_due}` : from;
}

function Row({ name, value }: { name: string; value: string }) {
  return (
    <>
      <dt className="text-ink-2">{name}</dt>
      <dd className={value ? "" : "text-ink-2"}>{value || "not recorded"}</dd>
    </>
  );
}

function AboutForm({ blade, onDone }: { blade: Blade; onDone: () => void }) {
  const heat = blade.heat_treatment;
  const [start] = useState(() => ({
    code: blade.code,
    grade: blade.claimed_grade ?? "",
    owner: blade.owner,
    price: blade.price,
    loan_from: blade.loan_from,
    loan_due: blade.loan_due,
    loan_returned: blade.loan_returned,
    note: blade.note,
    austenitising: heat.austenitising_c?.toString() ?? "",
    soak: heat.soak_minutes?.toString() ?? "",
    quench: heat.quench ?? "",
    subZero: heat.sub_zero_c?.toString() ?? "",
    tempers: heat.tempers_c?.join(" ") ?? "",
    heatStanding: (heat.standing ?? "claimed") as WordOf<"standings">,
    heatNote: heat.note ?? "",
  }));
  const [typed, setTyped, drop] = useDraft(`about:${blade.id}`, start);
  const save = useChange(
    (change: Schemas["BladePatch"]) => patchBlade(blade.id, change),
    () => {
      drop();
      onDone();
    },
  );
  const refused = save.error instanceof Refused ? save.error : null;
  const numbers = {
    austenitising: typedNumber(typed.austenitising),
    soak: typedNumber(typed.soak),
    subZero: typedNumber(typed.subZero),
  };
  const tempers = typedNumbers(typed.tempers);
  const field = (name: keyof typeof typed, wire: string = name) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    error:
      name in numbers && numbers[name as keyof typeof numbers] === undefined
        ? `“${typed[name]}” is not a number`
        : refused?.at(wire),
  });
  const submit = () => {
    if (Object.values(numbers).includes(undefined) || !tempers) return;
    save.mutate({
      code: typed.code,
      claimed_grade: typed.grade.trim() || null,
      owner: typed.owner,
      price: typed.price,
      loan_from: typed.loan_from,
      loan_due: typed.loan_due,
      loan_returned: typed.loan_returned,
      note: typed.note,
      heat_treatment: {
        austenitising_c: numbers.austenitising ?? null,
        soak_minutes: numbers.soak ?? null,
        quench: typed.quench,
        sub_zero_c: numbers.subZero ?? null,
        tempers_c: tempers,
        standing: typed.heatStanding,
        note: typed.heatNote,
      },
    });
  };
  return (
    <form
      className="mt-2 grid grid-cols-2 gap-3"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        submit();
      }}
    >
      <Field label="Code" {...field("code")} />
      <Field label="Claimed steel, by its designation" {...field("grade", "claimed_grade")} />
      <Field label="Maker or owner" {...field("owner")} />
      <Field label="Price" {...field("price")} />
      <Field label="On loan from" {...field("loan_from")} />
      <DayField label="Due back" {...field("loan_due")} />
      <DayField label="Returned" {...field("loan_returned")} />
      <Field label="Austenitised at" unit="°C" inputMode="decimal" {...field("austenitising")} />
      <Field label="Soaked for" unit="min" inputMode="decimal" {...field("soak")} />
      <Field label="Quench" {...field("quench")} />
      <Field label="Sub-zero" unit="°C" {...field("subZero")} />
      <Field
        label="Tempers"
        unit="°C"
        {...field("tempers")}
        error={tempers ? undefined : "numbers with spaces between them can be read here"}
      />
      <Choice
        label="How is that known?"
        value={typed.heatStanding}
        onPick={(picked) =>
          setTyped({ ...typed, heatStanding: picked as typeof typed.heatStanding })
        }
        error={field("heatStanding").error}
      >
        <Options of={WORDS.standings} />
      </Choice>
      <Field label="More on the heat treatment" {...field("heatNote")} />
      <LongField label="Note" className="col-span-2" {...field("note")} />
      {save.error && !refused?.problem.field ? (
        <p role="alert" className="col-span-2 text-rust">
          {save.error.message}
        </p>
      ) : null}
      <div className="col-span-2 flex gap-3">
        <Button kind="next" type="submit" disabled={save.isPending}>
          Save
        </Button>
        <Button kind="quiet" onClick={onDone}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
