import { type FormEvent, useState } from "react";
import { useChange } from "../../api/changes";
import { Refused, type Schemas } from "../../api/client";
import { putAct } from "../../api/soaks";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { WORDS } from "../../domain/words";
import { Button } from "../../ui/Button";
import { Choice, Option, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { type ActKind, moment, type Soak, typedMoment } from "./soak";

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
  const [at, setAt] = useState(() => typedMoment(new Date()));
  const [coupon, setCoupon] = useState("");
  const [typed, setTyped] = useState({ amount: "", ph: "", salt: "", temperature: "", said: "" });
  const save = useChange((act: Schemas["ActBody"]) => putAct(soak.id, id, act), onDone);
  const refused = save.error instanceof Refused ? save.error : null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate({
      ...moment(at),
      kind,
      coupon_id: kind === "worn" ? coupon : "",
      amount: typedNumber(typed.amount) ?? null,
      ph: typedNumber(typed.ph) ?? null,
      salt_percent: typedNumber(typed.salt) ?? null,
      temperature_c: typedNumber(typed.temperature) ?? null,
      said: typed.said,
    });
  };
  const field = (name: keyof typeof typed, at: string) => ({
    value: typed[name],
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [name]: e.target.value }),
    error: refused?.at(at) ?? (name === "said" ? undefined : wrong(typed[name])),
  });
  return (
    <form onSubmit={submit} noValidate className="grid grid-cols-2 gap-3">
      <Choice
        label="What"
        className="col-span-2"
        value={kind}
        onPick={(v) => setKind(v as ActKind)}
      >
        <Options of={WORDS.acts} />
      </Choice>
      <Field
        label="When"
        type="datetime-local"
        className="col-span-2"
        value={at}
        onChange={(e) => setAt(e.target.value)}
        error={refused?.at("at")}
      />
      {kind === "worn" ? (
        <Choice label="Which" value={coupon} onPick={setCoupon} error={refused?.at("coupon_id")}>
          {soak.coupons.map((each) => (
            <Option key={each.id} value={each.id}>
              {each.called}
            </Option>
          ))}
        </Choice>
      ) : null}
      {kind === "worn" ? (
        <Field label="How many" inputMode="decimal" {...field("amount", "amount")} />
      ) : null}
      {kind === "prolonged" ? (
        <Field label="In all" unit="h" inputMode="decimal" {...field("amount", "amount")} />
      ) : null}
      {kind === "measured" ? (
        <>
          <Field label="pH" inputMode="decimal" {...field("ph", "ph")} />
          <Field
            label="Salt"
            unit="% by mass"
            inputMode="decimal"
            {...field("salt", "salt_percent")}
          />
          <Field
            label="Temperature"
            unit="°C"
            inputMode="decimal"
            {...field("temperature", "temperature_c")}
          />
        </>
      ) : null}
      <Field
        label={kind === "worn" ? "Of what" : kind === "ended" || kind === "dried" ? "Why" : "Note"}
        hint={
          kind === "worn" ? "cuts in board, splits of wood, scratches across the flat" : undefined
        }
        className="col-span-2"
        {...field("said", "said")}
      />
      {save.error && !refused?.problem.field ? (
        <p role="alert" className="col-span-2 text-rust">
          {save.error.message}
        </p>
      ) : null}
      <Button kind="next" type="submit" className="col-span-2" disabled={save.isPending}>
        Keep it
      </Button>
    </form>
  );
}

const wrong = (text: string) =>
  typedNumber(text) === undefined ? `“${text}” is not a number` : undefined;
