import { type FormEvent, useState } from "react";
import { putMeasurement, useChange } from "../api/changes";
import { Refused, type Schemas } from "../api/client";
import { useFollow } from "../api/follow";
import { typedNumber } from "../domain/format";
import { newId } from "../domain/ids";
import { inMm, isThatSo, typedNumbers, typedStations } from "../domain/quantities";
import { WORDS, type WordOf } from "../domain/words";
import { Button } from "../ui/Button";
import { Choice, Options } from "../ui/Choice";
import { DayField } from "../ui/DayField";
import { Field, LongField } from "../ui/Field";
import { Tick } from "../ui/Tick";
import { useDraft } from "../ui/useDraft";

type Quantity = Schemas["QuantityOut"];
type Measurement = Schemas["MeasurementBody"];

const BLANK = {
  value: "",
  standing: "measured_here" as WordOf<"standings">,
  on: "",
  instrument: "",
  note: "",
  unit: "mm" as "mm" | "thou",
  stations: "",
  readings: "",
  places: "",
  block: "",
  blockReadings: "",
  spacing: "",
  fromEdge: "",
  afterChange: false,
  tapered: false,
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
  const [typed, setTyped, drop] = useDraft(`measure:${edgeId ?? bladeId}:${quantity.name}`, BLANK);
  const set = (part: Partial<typeof BLANK>) => setTyped({ ...typed, ...part });
  const read = readForm(quantity, typed);
  const save = useChange(
    (made: Measurement) => putMeasurement(bladeId, made),
    () => {
      drop();
      onDone();
    },
  );
  const refused = save.error instanceof Refused ? save.error : null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!read.wrong.size)
      save.mutate({ id, quantity: quantity.name, edge_id: edgeId ?? null, ...read.made });
  };
  const isThickness = quantity.name === "thickness_behind_edge_mm";
  const isHardness = quantity.name === "hardness_hrc";
  const isStart = quantity.name === "start_gf";
  const isNumber = quantity.low !== null;
  const tester = isHardness ? "rockwell" : isStart ? "force" : null;
  useFollow(tester ? () => "/api/instruments/follow" : null, ({ instrument: news }) => {
    const isReading = news?.what === "reading" && news.kind === tester && !news.run_id;
    if (isReading)
      set({ readings: `${typed.readings} ${news.value}`.trim(), instrument: news.name });
  });
  const field = (name: keyof typeof BLANK, wire?: string) => ({
    value: typed[name] as string,
    onChange: (e: { target: { value: string } }) => set({ [name]: e.target.value }),
    error: read.wrong.get(name) ?? (wire ? refused?.at(wire) : undefined),
  });
  return (
    <form onSubmit={submit} className="flex flex-col gap-3" noValidate>
      <div className={isThickness ? "grid grid-cols-[1fr_6rem] gap-3" : ""}>
        <Field
          label={label ?? quantity.label}
          unit={isThickness ? typed.unit : quantity.unit}
          inputMode={isNumber ? "decimal" : "text"}
          list={quantity.suggested.length ? `suggested-${quantity.name}` : undefined}
          ask={isThatSo(read.made.value, quantity)}
          autoFocus
          {...field("value", quantity.name)}
        />
        {isThickness ? (
          <Choice
            label="Unit"
            value={typed.unit}
            onPick={(picked) => set({ unit: picked as "mm" | "thou" })}
          >
            <Options of={WORDS.thicknessUnits} />
          </Choice>
        ) : null}
      </div>
      {quantity.suggested.length ? (
        <datalist id={`suggested-${quantity.name}`}>
          {quantity.suggested.map((word) => (
            <option key={word} value={word} />
          ))}
        </datalist>
      ) : null}
      {isThickness ? (
        <Field
          label="or at stations: mm from the heel, colon, thickness"
          placeholder="16: 0.36  48: 0.37  80: 0.36"
          {...field("stations")}
        />
      ) : null}
      {isHardness || isStart ? (
        <Field
          label={
            isHardness
              ? "or single readings, in their order"
              : "or several readings of the fresh edge"
          }
          placeholder={isHardness ? "57.1 57.6 57.5" : "142 150 147"}
          {...field("readings", "readings")}
        />
      ) : null}
      {isHardness && typed.readings.trim() ? (
        <div className="grid grid-cols-2 gap-x-3 gap-y-2 border-l-4 border-line pl-3">
          <Field label="Test block says" unit="HRC" inputMode="decimal" {...field("block")} />
          <Field label="read on it that day" placeholder="59.8 60.1" {...field("blockReadings")} />
          <Field label="Indents apart" unit="mm" inputMode="decimal" {...field("spacing")} />
          <Field
            label="from the nearest edge"
            unit="mm"
            inputMode="decimal"
            {...field("fromEdge")}
          />
          <Field
            label="Read at, mm from the heel, in their order"
            placeholder="10 48 86"
            className="col-span-2"
            {...field("places", "places_mm")}
          />
          <Tick
            label="first after a change of anvil or indenter"
            checked={typed.afterChange}
            onTick={(on) => set({ afterChange: on })}
          />
          <Tick
            label="on a tapered flank"
            checked={typed.tapered}
            onTick={(on) => set({ tapered: on })}
          />
        </div>
      ) : null}
      <div className="grid grid-cols-2 gap-3">
        <Choice
          label="How is it known?"
          term="standing"
          value={typed.standing}
          onPick={(picked) => set({ standing: picked as WordOf<"standings"> })}
        >
          <Options of={WORDS.standings} />
        </Choice>
        <DayField label="Day" {...field("on", "on")} />
      </div>
      <details open={Boolean(typed.instrument || typed.note)}>
        <summary className="min-h-6 cursor-pointer text-note font-semibold">
          Instrument and note
        </summary>
        <div className="mt-2 flex flex-col gap-3">
          <Field label="Instrument" {...field("instrument")} />
          <LongField
            label="Note"
            value={typed.note}
            onChange={(e) => set({ note: e.target.value })}
          />
        </div>
      </details>
      {typed.standing.startsWith("measured") ? null : (
        <p className="text-note text-ink-2">
          Only what was measured counts for a fair comparison; the rest stays open.
        </p>
      )}
      {save.error && !refused?.problem.field ? (
        <p role="alert" className="text-rust">
          {save.error.message}
        </p>
      ) : null}
      <div className="flex flex-wrap gap-3">
        <Button kind="next" type="submit" disabled={save.isPending}>
          Save
        </Button>
        {onUnknown ? (
          <Button kind="quiet" onClick={onUnknown}>
            Mark as not known
          </Button>
        ) : null}
      </div>
    </form>
  );
}

type Typed = typeof BLANK;

/** What the form says, as a measurement, and what in it cannot be read. */
function readForm(quantity: Quantity, typed: Typed) {
  const wrong = new Map<keyof Typed, string>();
  const number = (name: "value" | "block" | "spacing" | "fromEdge") => {
    const value = typedNumber(typed[name]);
    if (value === undefined) wrong.set(name, `“${typed[name]}” is not a number`);
    return value ?? null;
  };
  const numbers = (name: "readings" | "blockReadings" | "places") => {
    const values = typedNumbers(typed[name]);
    if (!values) wrong.set(name, "numbers with spaces between them can be read here");
    return values ?? [];
  };
  const stations = typedStations(typed.stations, typed.unit);
  if (!stations) wrong.set("stations", "write each as place: thickness, like 16: 0.36");
  const isNumber = quantity.low !== null;
  const thickness = quantity.name === "thickness_behind_edge_mm";
  const made = {
    value: isNumber
      ? thickness
        ? (inMm(number("value"), typed.unit) ?? null)
        : number("value")
      : null,
    words: isNumber ? "" : typed.value,
    standing: typed.standing,
    on: typed.on,
    instrument: typed.instrument,
    note: typed.note,
    details: {
      stations: stations ?? [],
      readings: numbers("readings"),
      places_mm: numbers("places"),
      block_nominal_hrc: number("block"),
      block_readings: numbers("blockReadings"),
      spacing_mm: number("spacing"),
      from_edge_mm: number("fromEdge"),
      after_change: typed.afterChange,
      tapered: typed.tapered,
    },
  };
  return { made, wrong };
}
