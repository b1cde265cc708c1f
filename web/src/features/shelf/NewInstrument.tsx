import { useState } from "react";
import { putInstrument, useChange } from "../../api/changes";
import { newId } from "../../domain/ids";
import { LIMITS } from "../../domain/limits.gen";
import { WORDS } from "../../domain/words";
import { Choice, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { FormFoot } from "../../ui/FormFoot";
import { Heading } from "../../ui/Section";
import { useForm } from "../../ui/useForm";
import { INSTRUMENT_KINDS, type Instrument } from "./instrumentKinds";

const FORM = {
  name: "text",
  address: "text",
  baud: LIMITS.baud,
  range_low: "number",
  range_high: "number",
  reference: "text",
} as const;
const EMPTY = {
  name: "",
  address: "",
  baud: String(LIMITS.baud.default),
  range_low: "",
  range_high: "",
  reference: "",
};

/** An instrument to connect. */
export function NewInstrument() {
  const [kind, setKind] = useState<Instrument["kind"]>("force");
  const [id, setId] = useState(newId);
  const save = useChange(putInstrument, () => {
    form.drop();
    setId(newId());
  });
  const form = useForm({ draft: "new-instrument", kinds: FORM, start: EMPTY, error: save.error });
  const of = INSTRUMENT_KINDS[kind];
  const submit = form.onSubmit((read) =>
    save.mutate({ ...read, id, kind, baud: read.baud ?? LIMITS.baud.default, in_use: true }),
  );
  return (
    <form onSubmit={submit} noValidate aria-label="New instrument" className="flex flex-col gap-3">
      <Heading>Connect an instrument</Heading>
      <Choice label="Kind" value={kind} onPick={(picked) => setKind(picked as Instrument["kind"])}>
        <Options of={WORDS.instruments} />
      </Choice>
      <Field label="Name" {...form.field("name")} />
      <Field label={of.where} hint={`for example ${of.example}`} {...form.field("address")} />
      {kind === "xrf" || kind === "camera" ? null : (
        <Field label="Speed" unit="baud" {...form.field("baud")} />
      )}
      {of.reads ? (
        <>
          <div className="grid grid-cols-2 gap-3">
            <Field label="Reads from" {...form.field("range_low")} />
            <Field label="to" {...form.field("range_high")} />
          </div>
          <Field
            label="Reference"
            placeholder={kind === "force" ? "new utility edge, plain test line" : "test block, HRC"}
            {...form.field("reference")}
          />
        </>
      ) : null}
      <FormFoot form={form} isSaving={save.isPending}>
        Connect
      </FormFoot>
    </form>
  );
}
