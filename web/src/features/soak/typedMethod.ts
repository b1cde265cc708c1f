import type { Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import type { Stage } from "./soak";

export type Method = Schemas["SoakMethodBody"];
export type TendKind = Schemas["TendingBody"]["kind"];

/** What is done again and again, as typed. */
export interface TypedTending {
  readonly id: string;
  readonly kind: TendKind;
  readonly every_h: string;
  readonly from_h: string;
  readonly until_h: string;
}

/** A method as typed: numbers stay text until they are kept. */
export interface TypedMethod {
  readonly name: string;
  readonly medium: string;
  readonly salt_percent: string;
  readonly hours: string;
  readonly look_h: string;
  readonly needed_grade: string;
  readonly scale: "rust" | "discolouration";
  readonly stages: readonly Stage[];
  readonly tending: readonly TypedTending[];
  readonly steps: string;
}

const said = (number: number | null | undefined) => number?.toString() ?? "";

export const typedMethod = (method: Method): TypedMethod => ({
  name: method.name,
  medium: method.medium,
  salt_percent: said(method.salt_percent),
  hours: said(method.hours),
  look_h: method.look_h.join(" "),
  needed_grade: said(method.needed_grade ?? 6),
  scale: method.scale ?? "rust",
  stages: method.stages,
  tending: (method.tending ?? []).map((each) => ({
    id: newId(),
    kind: each.kind,
    every_h: said(each.every_h),
    from_h: said(each.from_h ?? 0),
    until_h: said(each.until_h),
  })),
  steps: (method.steps ?? []).join("\n"),
});

/** The fields whose number cannot be read, with what to say there. */
export function unread(typed: TypedMethod): Record<string, string> {
  const found: Record<string, string> = {};
  for (const name of ["salt_percent", "hours", "needed_grade"] as const) {
    if (typedNumber(typed[name]) === undefined) found[name] = `“${typed[name]}” is not a number`;
  }
  for (const name of ["hours", "needed_grade"] as const) {
    if (!typed[name].trim()) found[name] = "a number is needed here";
  }
  const hour = hoursTyped(typed.look_h).find((text) => typeof typedNumber(text) !== "number");
  if (hour) found.look_h = `“${hour}” is not an hour`;
  for (const each of typed.tending) {
    const numbers = [each.every_h || "?", each.from_h || "0", each.until_h];
    const wrong = numbers.find((text) => typedNumber(text) === undefined);
    if (wrong !== undefined) found.tending = "give the hours between, as a number";
  }
  return found;
}

/** The method as it is sent; call where nothing is unread. */
export function readMethod(origin: Method, typed: TypedMethod): Method {
  return {
    ...origin,
    name: typed.name,
    medium: typed.medium,
    scale: typed.scale,
    salt_percent: typedNumber(typed.salt_percent) ?? null,
    hours: typedNumber(typed.hours) ?? 0,
    look_h: hoursTyped(typed.look_h).map((text) => typedNumber(text) ?? 0),
    needed_grade: Math.round(typedNumber(typed.needed_grade) ?? 0),
    stages: [...typed.stages],
    tending: typed.tending.map((each) => ({
      kind: each.kind,
      every_h: typedNumber(each.every_h) ?? 0,
      from_h: typedNumber(each.from_h) ?? 0,
      until_h: typedNumber(each.until_h) ?? null,
    })),
    steps: typed.steps.split("\n").filter((line) => line.trim()),
  };
}

const hoursTyped = (text: string) => text.split(/[\s;]+/).filter(Boolean);
