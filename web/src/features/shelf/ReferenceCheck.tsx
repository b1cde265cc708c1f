import { useState } from "react";
import { putReferenceCheck, useChange } from "../../api/changes";
import { newId } from "../../domain/ids";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Notice } from "../../ui/Notice";
import { useForm } from "../../ui/useForm";
import type { Instrument, News } from "./instrumentKinds";

const CHECK = { readings: "numbers", reference: "text" } as const;

/** The day's check: readings typed with strokes between them, or sent by the instrument itself. */
export function ReferenceCheck({
  instrument,
  news,
}: {
  instrument: Instrument;
  news: News | undefined;
}) {
  const [id, setId] = useState(newId);
  const [heard, setHeard] = useState("");
  const record = useChange(putReferenceCheck, () => {
    form.drop();
    setId(newId());
  });
  const form = useForm({
    draft: `reference-check:${instrument.id}`,
    kinds: CHECK,
    start: { readings: "", reference: instrument.reference },
    error: record.error,
  });
  if (news?.what === "reading" && news.reading_id !== heard) {
    setHeard(news.reading_id);
    const before = form.typed.readings;
    form.set({ readings: [before, String(news.value)].filter(Boolean).join("/") });
  }
  const submit = form.onSubmit(({ readings, reference }) =>
    record.mutate({
      instrumentId: instrument.id,
      check: { id, readings, reference, note: "" },
    }),
  );
  return (
    <form onSubmit={submit} noValidate className="grid max-w-96 grow grid-cols-2 gap-3">
      <Field
        label="On its reference"
        unit={instrument.unit}
        placeholder="201/199/200"
        {...form.field("readings")}
      />
      <Field label="Reference" {...form.field("reference")} />
      <Notice says={form.notice} className="col-span-2" />
      <Button type="submit" className="col-span-2 justify-self-start" disabled={record.isPending}>
        Record the check
      </Button>
    </form>
  );
}
