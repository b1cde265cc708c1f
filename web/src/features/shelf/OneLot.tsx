import { useState } from "react";
import { putCorrection, putLotAway, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { day } from "../../domain/format";
import { newId } from "../../domain/ids";
import { TakeAway } from "../../parts/TakeAway";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Notice } from "../../ui/Notice";
import { Pop } from "../../ui/Pop";
import { TextButton } from "../../ui/TextButton";
import { useForm } from "../../ui/useForm";

type Lot = Schemas["LotOut"];

/** A lot: what it is, what is left of it, and what took of it. */
export function OneLot({ lot }: { lot: Lot }) {
  const archive = useChange((archived: boolean) => putLotAway(lot.id, archived));
  const bought = lot.bought_amount;
  const left = lot.left === null || !bought ? null : Math.max(0, Math.min(1, lot.left / bought));
  return (
    <li className="border-b border-line py-3">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <b className="text-lead">{lot.name}</b>
        <span className="text-note text-ink-2">{about(lot)}</span>
        <span className={`ml-auto font-bold ${lot.is_low ? "text-rust" : ""}`}>
          {lot.left === null
            ? "amount not named"
            : `${amountOf(Math.max(lot.left, 0))} ${lot.unit} left`}
          {lot.is_low ? ", low" : ""}
        </span>
      </div>
      {left === null ? null : (
        <svg width="100%" height="10" aria-hidden="true" className="mt-1.5 block">
          <rect width="100%" height="10" fill="none" stroke="var(--line)" />
          <rect
            width={`${100 * left}%`}
            height="10"
            fill={lot.is_low ? "var(--rust)" : "var(--hemp)"}
          />
        </svg>
      )}
      <div className="mt-1 flex flex-wrap items-center gap-x-4 text-note text-ink-2">
        <span>
          {lot.runs
            ? `${amountOf(lot.used)} ${lot.unit} by ${lot.runs} ${lot.runs === 1 ? "run" : "runs"}`
            : "no run has used it yet"}
        </span>
        {lot.corrections.map((c) => (
          <span key={c.made_utc + c.reason}>
            {c.amount > 0 ? "" : "less by "}
            {amountOf(Math.abs(c.amount))} {lot.unit}: {c.reason}
          </span>
        ))}
        <span className="ml-auto flex gap-4">
          <CorrectStock lot={lot} />
          <TextButton onClick={() => archive.mutate(!lot.archived)}>
            {lot.archived ? "Restore" : "Archive"}
          </TextButton>
          <TakeAway kind="lot" ownerId={lot.id}>
            Delete
          </TakeAway>
          <Notice says={archive.error?.message} />
        </span>
      </div>
    </li>
  );
}

const amountOf = (n: number) => n.toFixed(n < 10 ? 1 : 0);

function about(lot: Lot): string {
  return [
    lot.about,
    lot.bought_on ? `bought ${day(lot.bought_on)}` : "",
    lot.price === null ? "" : `${lot.price} ${lot.currency}`,
  ]
    .filter(Boolean)
    .join(", ");
}

const CORRECTION = { amount: { needed: "say how much" }, reason: "text" } as const;

/** What was used otherwise, or is more than is shown. */
function CorrectStock({ lot }: { lot: Lot }) {
  const [open, setOpen] = useState(false);
  const [id, setId] = useState(newId);
  const correct = useChange(
    (sent: Schemas["CorrectionBody"]) => putCorrection(lot.id, id, sent),
    () => {
      form.drop();
      setOpen(false);
      setId(newId());
    },
  );
  const form = useForm({
    draft: `stock:${lot.id}`,
    kinds: CORRECTION,
    start: { amount: "", reason: "" },
    error: correct.error,
  });
  return (
    <Pop open={open} onOpenChange={setOpen} trigger={<TextButton>Correct the stock</TextButton>}>
      <form
        noValidate
        className="flex flex-col gap-3 text-ink"
        onSubmit={form.onSubmit((read) => correct.mutate(read))}
      >
        <Field
          label="Other use"
          unit={lot.unit}
          {...form.field("amount")}
          hint="negative if more is left than shown"
        />
        <Field label="Why" {...form.field("reason")} />
        <FormFoot form={form} isSaving={correct.isPending} />
      </form>
    </Pop>
  );
}
