import { useState } from "react";
import type { Schemas } from "../../api/client";
import { labelOf } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Section } from "../../ui/Section";
import { AboutForm } from "./AboutForm";

type Blade = Schemas["BladeOut"];

/** Whose it is, the loan, the price, what its maker says of it, and how it was hardened. */
export function AboutBlade({ blade }: { blade: Blade }) {
  const [editing, setEditing] = useState(false);
  const heat = blade.heat_treatment;
  return (
    <Section title="Owner, price, maker's claims">
      {editing ? (
        <AboutForm blade={blade} onDone={() => setEditing(false)} />
      ) : (
        <>
          <dl className="mt-1 grid grid-cols-[8rem_1fr] gap-x-4 gap-y-1">
            <Row name="maker or owner" value={blade.owner} />
            <Row name="loan" value={blade.loan_says} />
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
    </Section>
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

function Row({ name, value }: { name: string; value: string }) {
  return (
    <>
      <dt className="text-ink-2">{name}</dt>
      <dd className={value ? "" : "text-ink-2"}>{value || "not recorded"}</dd>
    </>
  );
}
