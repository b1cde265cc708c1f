import type { Schemas } from "../api/client";
import { inMm, typedStations } from "../domain/quantities";
import type { useForm, Values } from "../ui/useForm";

type Quantity = Schemas["QuantityOut"];

const REST = {
  standing: { word: "standings" },
  on: "day",
  instrument: "text",
  note: "text",
  unit: { word: "thicknessUnits" },
  stations: "text",
  readings: "numbers",
  places_mm: "numbers",
  block_nominal_hrc: "number",
  block_readings: "numbers",
  spacing_mm: "number",
  from_edge_mm: "number",
  after_change: "yes",
  tapered: "yes",
} as const;
const NUMBER = { value: "number", ...REST } as const;
const WORDED = { value: "text", ...REST } as const;

export type MeasureKinds = typeof NUMBER | typeof WORDED;
export type MeasureForm = ReturnType<typeof useForm<MeasureKinds>>;

/** How a measurement of a quantity is read: a number, or words. */
export const measureKinds = (quantity: Quantity): MeasureKinds =>
  quantity.low === null ? WORDED : NUMBER;

export const BLANK_MEASUREMENT = {
  value: "",
  standing: "measured_here",
  on: "",
  instrument: "",
  note: "",
  unit: "mm",
  stations: "",
  readings: "",
  places_mm: "",
  block_nominal_hrc: "",
  block_readings: "",
  spacing_mm: "",
  from_edge_mm: "",
  after_change: "",
  tapered: "",
};

/** What is wrong with the stations of a thickness, if anything. */
export const wrongStations = (text: string, unit: string): string | undefined =>
  typedStations(text, unit === "thou" ? "thou" : "mm")
    ? undefined
    : "write each as place: thickness, like 16: 0.36";

/** A measurement as it is sent; a thickness in mm, whatever it was typed in. */
export function measured(read: Values<MeasureKinds>, quantity: Quantity) {
  const { value, standing, on, instrument, note, unit, stations, ...details } = read;
  const isThickness = quantity.name === "thickness_behind_edge_mm";
  const number = typeof value === "number" ? value : null;
  return {
    value: isThickness ? (inMm(number, unit) ?? null) : number,
    words: typeof value === "string" ? value : "",
    standing,
    on,
    instrument,
    note,
    details: { stations: typedStations(stations, unit) ?? [], ...details },
  };
}
