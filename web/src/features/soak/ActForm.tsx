import { type FormEvent, useState } from "react";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { putAct } from "../../api/soaks";
import { momentOf } from "../../domain/days";
import { newId } from "../../domain/ids";
import { LIMITS } from "../../domain/limits.gen";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Option, Options } from "../../ui/Choice";
import { MomentField } from "../../ui/DayField";
import { Field } from "../../ui/Field";
import { Notice } from "../../ui/Notice";
import { useForm } from "../../ui/useForm";
import { type ActKind, moment, type Soak } from "./soak";

const KINDS = {
  at: "moment",
  amount: "number",
  ph: LIMITS.ph,
  salt_percent: LIMITS.percent,
  temperature_c: "number",
  humidity_percent: LIMITS.percent,
  scratch_grade: "number",
  said: "text",
} as const;
const BLANK = {
  amount: "",
  ph: "",
  salt_percent: "",
  temperature_c: "",
  humidity_percent: "",
  scratch_grade: "",
  said: "",
};

const isOfOne = (kind: ActKind) => WORDS.actsOfOne.some(([one]) => one === kind);

/** Something done to the soak, at its true time. */
export function ActForm({
  soak,
  first,
  onDone,
}: {
  soak: Soak;
  first: ActKind;
  onDone: () => void;
}) {
  const [id] = useState(newId);
  const [kind, setKind] = useState<ActKind>(first);
  const [coupon, setCoupon] = useState("");
  const save = useChange(
    (act: Schemas["ActBody"]) => putAct(soak.id, id, act),
    () => {
      form.drop();
      onDone();
    },
  );
  const form = useForm({
    draft: `intervention:${soak.id}`,
    kinds: KINDS,
    start: { ...BLANK, at: momentOf(new Date()) },
    error: save.error,
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const read = form.read();
    if (!read) return;
    const { at, ...rest } = read;
    save.mutate({ ...moment(at), kind, coupon_id: isOfOne(kind) ? coupon : "", ...rest });
  };
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-3">
      <Choice
        label="Intervention"
        className="col-span-2"
        value={kind}
        onPick={(v) => setKind(v as ActKind)}
      >
        <Options of={WORDS.acts} />
      </Choice>
      <MomentField label="When" className="col-span-2" {...form.field("at")} />
      {isOfOne(kind) ? (
        <Choice label="Coupon" value={coupon} onPick={setCoupon} error={form.at("coupon_id")}>
          {soak.coupons.map((each) => (
            <Option key={each.id} value={each.id}>
              {each.called}
            </Option>
          ))}
        </Choice>
      ) : null}
      {kind === "worn" ? <Wear form={form} /> : null}
      {kind === "prolonged" ? (
        <Field label="Hours in all" unit="h" {...form.field("amount")} />
      ) : null}
      {kind === "weighed" || kind === "cleaned" ? (
        <Field label="Mass" unit="g" {...form.field("amount")} />
      ) : null}
      {kind === "blank" ? (
        <Field
          label="Taken off bare steel"
          unit="mg/cm²"
          hint="what an unexposed piece lost in the same cleaning, over its area"
          {...form.field("amount")}
        />
      ) : null}
      {kind === "measured" ? (
        <>
          <Field label="pH" {...form.field("ph")} />
          <Field label="Salt" unit="% by mass" {...form.field("salt_percent")} />
          <Field label="Temperature" unit="°C" {...form.field("temperature_c")} />
          <Field label="Relative humidity" unit="%" {...form.field("humidity_percent")} />
        </>
      ) : null}
      <Field
        label={kind === "worn" ? "Of what" : kind === "ended" || kind === "dried" ? "Why" : "Note"}
        hint={
          kind === "worn" ? "cuts in board, splits of wood, scratches across the flat" : undefined
        }
        className="col-span-2"
        {...form.field("said")}
      />
      <Notice says={form.notice} className="col-span-2" />
      <Button kind="next" type="submit" className="col-span-2" disabled={save.isPending}>
        Save
      </Button>
    </form>
  );
}

/** How much wear, and how scratched the coating is after it. */
function Wear({
  form,
}: {
  form: Pick<ReturnType<typeof useForm<typeof KINDS>>, "field" | "choice">;
}) {
  return (
    <>
      <Field label="Number" {...form.field("amount")} />
      <Choice label="Scratches after it" {...form.choice("scratch_grade")}>
        <Option value="">not graded</Option>
        {WORDS.scratches.map(([grade, looks]) => (
          <Option key={grade} value={grade}>
            {grade}: {looks}
          </Option>
        ))}
      </Choice>
    </>
  );
}
