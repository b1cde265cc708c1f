/** What is typed into a field, read: a value, or what is wrong with it. Unreadable is never empty. */

import { isDay, isMoment } from "./days";
import { quoted, typedNumber } from "./format";
import { typedNumbers } from "./quantities";
import type { List, WordOf } from "./words";

export interface Bounds {
  readonly least: number;
  readonly most: number;
  readonly unit: string;
}
/** One word of a list of the vocabulary. */
export interface OneOf<L extends List> {
  readonly word: L;
}
/** A number that must be there. */
export interface Needed {
  readonly needed: string;
}
/** How a field is read; a bound is a number within it. */
export type FieldKind =
  | "text"
  | "number"
  | "numbers"
  | "day"
  | "moment"
  | "yes"
  | Bounds
  | Needed
  | OneOf<List>;
export type ValueOf<Kind> = Kind extends "text" | "day" | "moment"
  ? string
  : Kind extends "yes"
    ? boolean
    : Kind extends "numbers"
      ? number[]
      : Kind extends OneOf<infer L>
        ? WordOf<L>
        : Kind extends Needed
          ? number
          : number | null;
export type Value = string | boolean | number | number[] | null;
export type Read<V> = { readonly value: V } | { readonly wrong: string };

/** A yes or no, as a form keeps it beside what is typed. */
export const yesNo = (is: boolean): string => (is ? "yes" : "");
/** A number as a field shows it; empty where there is none. */
export const shownNumber = (value: number | null | undefined): string => value?.toString() ?? "";

/** The value of a field, or why it has none; an empty number is null. */
export function readTyped(kind: FieldKind, text: string): Read<Value> {
  const plain = text.trim();
  if (kind === "text") return { value: text };
  if (kind === "yes") return { value: text === "yes" };
  if (kind === "day") return told(plain === "" || isDay(plain), plain, "a day like 2026-11-30");
  if (kind === "moment")
    return told(isMoment(plain), plain, "a day and time like 2026-11-30 14:05");
  if (kind === "numbers") {
    const values = typedNumbers(plain);
    return values ? { value: values } : { wrong: "write numbers with spaces between them" };
  }
  if (typeof kind === "object" && "word" in kind) return { value: text };
  return readNumber(kind, plain);
}

function readNumber(kind: "number" | Bounds | Needed, text: string): Read<number | null> {
  const value = typedNumber(text);
  if (value === undefined) return { wrong: `${quoted(text)} is not a number` };
  if (kind === "number") return { value };
  if ("needed" in kind) return value === null ? { wrong: kind.needed } : { value };
  return value === null || holds(kind, value) ? { value } : { wrong: outside(kind, text) };
}

const holds = ({ least, most }: Bounds, value: number) => value >= least && value <= most;

const outside = ({ least, most, unit }: Bounds, text: string) =>
  `${text} is out of range: give ${least} to ${most}${unit ? ` ${unit}` : ""}`;

const told = (isRight: boolean, text: string, what: string): Read<string> =>
  isRight ? { value: text } : { wrong: `${quoted(text)} is not ${what}` };
