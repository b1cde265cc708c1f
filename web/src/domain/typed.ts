/** What is typed into a field, read: a value, or what is wrong with it. Unreadable is never empty. */

import { isDay, isMoment } from "./days";
import { typedNumber } from "./format";

export interface Bounds {
  readonly least: number;
  readonly most: number;
  readonly unit: string;
}
/** How a field is read; a bound is a number within it. */
export type FieldKind = "text" | "number" | "day" | "moment" | Bounds;
export type ValueOf<Kind> = Kind extends "text" | "day" | "moment" ? string : number | null;
export type Read<Value> = { readonly value: Value } | { readonly wrong: string };

/** The value of a field, or why it has none; an empty number is null. */
export function readTyped(kind: FieldKind, text: string): Read<string | number | null> {
  const plain = text.trim();
  if (kind === "text") return { value: text };
  if (kind === "day") return told(plain === "" || isDay(plain), plain, "a day like 2026-11-30");
  if (kind === "moment")
    return told(isMoment(plain), plain, "a day and time like 2026-11-30 14:05");
  const value = typedNumber(plain);
  if (value === undefined) return { wrong: `“${plain}” is not a number` };
  const isWithin = value === null || kind === "number" || holds(kind, value);
  return isWithin ? { value } : { wrong: outside(kind as Bounds, plain) };
}

const holds = ({ least, most }: Bounds, value: number) => value >= least && value <= most;

const outside = ({ least, most, unit }: Bounds, text: string) =>
  `${text} cannot be; ${least} to ${most}${unit ? ` ${unit}` : ""} can`;

const told = (isRight: boolean, text: string, what: string): Read<string> =>
  isRight ? { value: text } : { wrong: `“${text}” is not ${what}` };
