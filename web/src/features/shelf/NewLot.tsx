import { useState } from "react";
import { putLot, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import { Choice, Option } from "../../ui/Choice";
import { DayField } from "../../ui/DayField";
import { Field, LongField } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Section } from "../../ui/Section";
import { Tick } from "../../ui/Tick";
import { useDraft } from "../../ui/useDraft";
import { type Typed, useForm } from "../../ui/useForm";

type KindOfLot = Schemas["LotKindOut"];
type Details = Record<string, string>;

const KINDS = {
  kind: { word: "lots" },
  name: "text",
  unit: "text",
  bought_amount: "number",
  bought_on: "day",
  price: "number",
  currency: "text",
  humidity_percent: "number",
  damp: "yes",
  direction: "text",
  avoided: "text",
  note: "text",
} as const;
const BLANK: Typed<typeof KINDS> = {
  kind: "rope",
  name: "",
  unit: "m",
  bought_amount: "",
  bought_on: "",
  price: "",
  currency: "kr",
  humidity_percent: "",
  damp: "",
  direction: "",
  avoided: "",
  note: "",
};
const NO_DETAILS: Details = {};

/** A delivery onto the shelf. */
export function NewLot({ kinds }: { kinds: KindOfLot[] }) {
  const [id, setId] = useState(newId);
  const [details, setDetails, dropDetails] = useDraft("new-lot-details", NO_DETAILS);
  const save = useChange(putLot, () => {
    form.drop();
    dropDetails();
    setId(newId());
  });
  const form = useForm({ draft: "new-lot", kinds: KINDS, start: BLANK, error: save.error });
  const kind = kinds.find((each) => each.kind === form.typed.kind) ?? (kinds[0] as KindOfLot);
  const submit = form.onSubmit(({ damp, humidity_percent, direction, avoided, ...own }) =>
    save.mutate({
      ...own,
      id,
      unit: kind.units.includes(own.unit) ? own.unit : (kind.units[0] ?? "m"),
      details: detailsOf(kind, details),
      state: { damp, humidity_percent, direction, avoided },
    }),
  );
  return (
    <Section title="New lot">
      <form onSubmit={submit} noValidate className="mt-2 grid grid-cols-2 gap-3">
        <Choice
          label="Kind"
          {...form.choice("kind")}
          onPick={(picked) => {
            form.choice("kind").onPick(picked);
            dropDetails();
          }}
        >
          {kinds.map((each) => (
            <Option key={each.kind} value={each.kind}>
              {each.label}
            </Option>
          ))}
        </Choice>
        <Field label="Name of the lot" {...form.field("name")} placeholder="hemp, lot 8" />
        <Field
          label="Bought"
          unit={kind.units.length === 1 ? (kind.units[0] ?? "") : ""}
          {...form.field("bought_amount")}
        />
        {kind.units.length > 1 ? (
          <Choice label="in" {...form.choice("unit")}>
            {kind.units.map((unit) => (
              <Option key={unit} value={unit}>
                {unit}
              </Option>
            ))}
          </Choice>
        ) : (
          <DayField label="Bought on" {...form.field("bought_on")} />
        )}
        <Field label="Price of it all" {...form.field("price")} />
        <Field label="Currency" {...form.field("currency")} />
        {kind.details.map(({ name, label, unit }) => (
          <Field
            key={name}
            label={label}
            unit={unit ?? ""}
            value={details[name] ?? ""}
            onChange={(e) => setDetails({ ...details, [name]: e.target.value })}
            error={form.at(name)}
          />
        ))}
        {kind.takes_up_damp ? (
          <>
            <Field label="Humidity, if known" unit="%" {...form.field("humidity_percent")} />
            <Field
              label="Direction of cut"
              {...form.field("direction")}
              placeholder="across the flutes"
            />
            <Field label="Avoided" {...form.field("avoided")} placeholder="seams and tape" />
            <div className="self-end">
              <Tick label="damp" {...form.tick("damp")} />
            </div>
          </>
        ) : null}
        <LongField className="col-span-2" label="Note" {...form.field("note")} />
        <FormFoot className="col-span-2" form={form} isSaving={save.isPending}>
          Add to shelf
        </FormFoot>
      </form>
    </Section>
  );
}

/** What was said of a lot; what is no number where one belongs is sent as it stands, and refused. */
function detailsOf(kind: KindOfLot, typed: Details): Schemas["LotBody"]["details"] {
  const said = kind.details.flatMap(({ name, unit }) => {
    const text = typed[name]?.trim();
    return text ? [[name, unit === null ? text : (typedNumber(text) ?? text)] as const] : [];
  });
  return Object.fromEntries(said);
}
