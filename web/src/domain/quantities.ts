/**
 * Reading what was typed about a quantity, and asking about unusual values. The bounds come from
 * the server.
 */
import { typedNumber } from "./format";

export interface QuantityLike {
  readonly name: string;
  readonly label: string;
  readonly unit: string;
  readonly low: number | null;
  readonly high: number | null;
  readonly usual_low: number | null;
  readonly usual_high: number | null;
  readonly decimals: number;
}

const withUnit = (value: number, unit: string) => `${value}${unit === "°" ? "" : " "}${unit}`;

/** A number as it is shown, with its unit. */
export function shown(value: number | null | undefined, quantity: QuantityLike): string {
  return value === null || value === undefined
    ? "not known"
    : `${value.toFixed(quantity.decimals)}${quantity.unit === "°" ? "" : " "}${quantity.unit}`;
}

/** A question about an unusual value; it never blocks. */
export function isThatSo(
  value: number | null | undefined,
  quantity: QuantityLike,
): string | undefined {
  if (value === null || value === undefined || quantity.low === null || quantity.high === null)
    return undefined;
  if (value < quantity.low || value > quantity.high) return undefined;
  if (quantity.usual_low !== null && value < quantity.usual_low)
    return `Under ${withUnit(quantity.usual_low, quantity.unit)} is rare. Is that so?`;
  if (quantity.usual_high !== null && value > quantity.usual_high)
    return `Above ${withUnit(quantity.usual_high, quantity.unit)} is rare. Is that so?`;
  return undefined;
}

/** Several numbers parted by spaces or semicolons; undefined where one is no number. */
export function typedNumbers(text: string): number[] | undefined {
  const parts = text
    .trim()
    .split(/[\s;/]+/)
    .filter(Boolean);
  const found = parts.map(typedNumber);
  return found.some((n) => n === undefined || n === null) ? undefined : (found as number[]);
}

export interface Station {
  readonly position_mm: number;
  readonly value_mm: number;
}

const MM_PER_THOU = 0.0254;

/** Stations typed as “16: 0.36  48: 0.37”, in mm or thou; undefined where they cannot be read. */
export function typedStations(text: string, unit: "mm" | "thou"): Station[] | undefined {
  const parts = text
    .trim()
    .replace(/\s*:\s*/g, ":")
    .split(/[\s;/]+/)
    .filter(Boolean);
  const found: Station[] = [];
  for (const part of parts) {
    const [place, value, ...rest] = part.split(":").map(typedNumber);
    if (typeof place !== "number" || typeof value !== "number" || rest.length) return undefined;
    found.push({ position_mm: place, value_mm: unit === "thou" ? value * MM_PER_THOU : value });
  }
  return found;
}

/** A length typed in mm or thou, in mm. */
export function inMm(
  value: number | null | undefined,
  unit: "mm" | "thou",
): number | null | undefined {
  return typeof value === "number" && unit === "thou" ? value * MM_PER_THOU : value;
}
