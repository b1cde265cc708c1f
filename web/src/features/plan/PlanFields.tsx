import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { lotsQuery } from "../../api/queries";
import { FORCE } from "../../domain/checks";
import { WORDS } from "../../domain/words";
import { Choice, Option, Options } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { Notice } from "../../ui/Notice";
import { Tick } from "../../ui/Tick";
import { PlannedLives } from "./PlannedLives";
import type { PlanForm } from "./planForm";

/** What is decided of a plan. */
export function PlanFields({ form, found }: { form: PlanForm; found: Schemas["TrialPlanOut"] }) {
  const unit = found.method.count_unit ?? "cuts";
  const byForce = found.method.check_rows.some((row) => row.key === FORCE.key);
  const byRope = found.method.medium === "rope";
  return (
    <>
      <Field label="Edges a blade" {...form.field("edges_per_blade")} />
      <Field label="Difference wanted" unit="%" {...form.field("wanted_percent")} />
      <Field
        label="Expected life of an uncut blade"
        unit={unit}
        hint="empty: estimated"
        {...form.field("expected_life")}
      />
      <PlannedLives blades={found.blades} unit={unit} />
      <Choice label="Order inside blocks" term="block" {...form.choice("order_kind")}>
        <Options of={WORDS.orders} />
      </Choice>
      <LotChoice
        label="Medium from"
        kinds={["rope", "board", "card"]}
        {...form.choice("medium_lot_id")}
      />
      <LotChoice
        label="Checked with"
        kinds={["test_line", "paper"]}
        {...form.choice("check_lot_id")}
      />
      {form.typed.medium_lot_id || !byRope ? null : (
        <Field
          label="Rope left"
          unit="m"
          hint="empty: not counted"
          {...form.field("rope_left_m")}
        />
      )}
      {form.typed.check_lot_id || !byForce ? null : (
        <Field
          label="Test line left"
          unit="m"
          hint="empty: not counted"
          {...form.field("line_left_m")}
        />
      )}
      {byRope ? <Field label="Rope a cut" unit="mm" {...form.field("advance_mm")} /> : null}
      {byForce ? <Field label="Test line a reading" unit="mm" {...form.field("line_mm")} /> : null}
      <Field label="Cuts a day for one hand" {...form.field("cuts_a_day")} />
      <Field label="A sharpening takes" unit="min" {...form.field("sharpening_min")} />
      <DayField
        label="Work begins on"
        {...form.field("starts_on")}
        hint="empty: no days are planned"
      />
      <Field label="Hours of work a day" unit="h" {...form.field("hours_a_day")} />
      <div className="col-span-2">
        <Tick label="Spread heel, middle and tip over the blades" {...form.tick("balance_zones")} />
      </div>
      <LongField
        label="Prediction: order of the blades, and why"
        className="col-span-2"
        {...form.field("prediction")}
        hint="Recorded before the first cut, and shown unchanged beside the answer."
      />
      <Notice says={form.notice} className="col-span-2" />
    </>
  );
}

/** The lots of some kinds that are on hand, and the one that is chosen. */
function LotChoice({
  kinds,
  ...choice
}: {
  label: string;
  kinds: readonly Schemas["LotOut"]["kind"][];
  value: string;
  onPick: (value: string) => void;
  error: string | undefined;
}) {
  const found = useQuery(lotsQuery);
  const lots = (found.data ?? []).filter(
    (lot) => kinds.includes(lot.kind) && (!lot.archived || lot.id === choice.value),
  );
  return (
    <Choice {...choice} hint={lots.length ? undefined : "no such lot on the shelf yet"}>
      <Option value="">no lot named</Option>
      {lots.map((lot) => (
        <Option key={lot.id} value={lot.id}>
          {lot.name}
          {lot.left === null ? "" : `, ${Math.max(lot.left, 0).toFixed(1)} ${lot.unit} left`}
        </Option>
      ))}
    </Choice>
  );
}
