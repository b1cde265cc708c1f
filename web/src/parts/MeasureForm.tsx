import { useState } from "react";
import { putMeasurement, useChange } from "../api/changes";
import type { Schemas } from "../api/client";
import { useFollow } from "../api/follow";
import { newId } from "../domain/ids";
import { isThatSo } from "../domain/quantities";
import { WORDS } from "../domain/words";
import { Button } from "../ui/Button";
import { Choice, Options } from "../ui/Choice";
import { DayField } from "../ui/DayField";
import { Field, LongField } from "../ui/Field";
import { FormFoot } from "../ui/FormFoot";
import { Note } from "../ui/Note";
import { Tick } from "../ui/Tick";
import { useForm } from "../ui/useForm";
import {
  BLANK_MEASUREMENT,
  type MeasureForm as Form,
  measured,
  measureKinds,
  wrongStations,
} from "./measureForm";

type Quantity = Schemas["QuantityOut"];
type Measurement = Schemas["MeasurementBody"];

const TESTERS: Readonly<Record<string, "rockwell" | "force">> = {
  hardness_hrc: "rockwell",
  start_gf: "force",
};

/** One more measurement of a fact; earlier ones stay, and the best standing counts. */
export function MeasureForm({
  bladeId,
  edgeId,
  quantity,
  label,
  onDone,
  onUnknown,
}: {
  bladeId: string;
  edgeId?: string;
  quantity: Quantity;
  label?: string;
  onDone: () => void;
  /** Where given, the fact can be marked as not known. */
  onUnknown?: (() => void) | undefined;
}) {
  const [id] = useState(newId);
  const save = useChange(
    (made: Measurement) => putMeasurement(bladeId, made),
    () => {
      form.drop();
      onDone();
    },
  );
  const form: Form = useForm({
    draft: `measure:${edgeId ?? bladeId}:${quantity.name}`,
    kinds: measureKinds(quantity),
    start: BLANK_MEASUREMENT,
    error: save.error,
  });
  const stationsAre = wrongStations(form.typed.stations, form.typed.unit);
  const tester = TESTERS[quantity.name];
  useFollow(tester ? () => "/api/instruments/follow" : null, ({ instrument: news }) => {
    const isReading = news?.what === "reading" && news.kind === tester && !news.run_id;
    if (isReading)
      form.set({
        readings: `${form.typed.readings} ${news.value}`.trim(),
        instrument: news.name,
      });
  });
  const submit = form.onSubmit((read) => {
    if (stationsAre) return;
    const made = measured(read, quantity);
    save.mutate({ id, quantity: quantity.name, edge_id: edgeId ?? null, ...made });
  });
  return (
    <form onSubmit={submit} className="flex flex-col gap-3" noValidate>
      <Value form={form} quantity={quantity} label={label ?? quantity.label} />
      {quantity.name === "thickness_behind_edge_mm" ? (
        <Field
          label="or at stations: mm from the heel, colon, thickness"
          placeholder="16: 0.36  48: 0.37  80: 0.36"
          {...form.field("stations")}
          error={stationsAre}
        />
      ) : null}
      {tester ? (
        <Field
          label={
            tester === "rockwell"
              ? "or single readings, in their order"
              : "or several readings of the fresh edge"
          }
          placeholder={tester === "rockwell" ? "57.1 57.6 57.5" : "142 150 147"}
          {...form.field("readings")}
        />
      ) : null}
      {tester === "rockwell" && form.typed.readings.trim() ? <RockwellDetails form={form} /> : null}
      <div className="grid grid-cols-2 gap-3">
        <Choice label="How is it known?" term="standing" {...form.choice("standing")}>
          <Options of={WORDS.standings} />
        </Choice>
        <DayField label="Day" {...form.field("on")} />
      </div>
      <details open={Boolean(form.typed.instrument || form.typed.note)}>
        <summary className="min-h-6 cursor-pointer text-note font-semibold">
          Instrument and note
        </summary>
        <div className="mt-2 flex flex-col gap-3">
          <Field label="Instrument" {...form.field("instrument")} />
          <LongField label="Note" {...form.field("note")} />
        </div>
      </details>
      {form.typed.standing.startsWith("measured") ? null : (
        <Note>Only what was measured counts for a fair comparison; the rest stays open.</Note>
      )}
      <FormFoot form={form} isSaving={save.isPending} />
      {onUnknown ? (
        <Button kind="quiet" className="self-start px-0" onClick={onUnknown}>
          Mark as not known
        </Button>
      ) : null}
    </form>
  );
}

/** The value itself, with its unit and the words that are usual. */
function Value({ form, quantity, label }: { form: Form; quantity: Quantity; label: string }) {
  const isThickness = quantity.name === "thickness_behind_edge_mm";
  const value = form.values?.value;
  return (
    <div className={isThickness ? "grid grid-cols-[1fr_6rem] gap-3" : ""}>
      <Field
        label={label}
        unit={isThickness ? form.typed.unit : quantity.unit}
        list={quantity.suggested.length ? `suggested-${quantity.name}` : undefined}
        ask={
          form.values && typeof value === "number"
            ? isThatSo(measured(form.values, quantity).value, quantity)
            : undefined
        }
        autoFocus
        {...form.field("value", quantity.name)}
      />
      {isThickness ? (
        <Choice label="Unit" {...form.choice("unit")}>
          <Options of={WORDS.thicknessUnits} />
        </Choice>
      ) : null}
      {quantity.suggested.length ? (
        <datalist id={`suggested-${quantity.name}`}>
          {quantity.suggested.map((word) => (
            <option key={word} value={word} />
          ))}
        </datalist>
      ) : null}
    </div>
  );
}

/** What makes Rockwell readings good: the block, the distances, the anvil. */
function RockwellDetails({ form }: { form: Form }) {
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-2 border-l-4 border-line pl-3">
      <Field label="Test block says" unit="HRC" {...form.field("block_nominal_hrc")} />
      <Field
        label="read on it that day"
        placeholder="59.8 60.1"
        {...form.field("block_readings")}
      />
      <Field label="Indents apart" unit="mm" {...form.field("spacing_mm")} />
      <Field label="from the nearest edge" unit="mm" {...form.field("from_edge_mm")} />
      <Field
        label="Read at, mm from the heel, in their order"
        placeholder="10 48 86"
        className="col-span-2"
        {...form.field("places_mm")}
      />
      <Tick label="first after a change of anvil or indenter" {...form.tick("after_change")} />
      <Tick label="on a tapered flank" {...form.tick("tapered")} />
    </div>
  );
}
