/** What can be left out of packages and reports. */
export type LeftOut = "owners" | "prices" | "notes";

const STORED = "kessik-left-out";
const KNOWN: readonly LeftOut[] = ["owners", "prices", "notes"];

/** What was left out last: prices and owners until something else is chosen. */
export function leftOut(): readonly LeftOut[] {
  const kept = localStorage.getItem(STORED);
  if (kept === null) return ["owners", "prices"];
  return KNOWN.filter((each) => kept.split(",").includes(each));
}

export const rememberLeftOut = (what: readonly LeftOut[]) =>
  localStorage.setItem(STORED, what.join(","));

/** A list with one of its members more, or less. */
export const toggled = <T>(all: readonly T[], one: T): readonly T[] =>
  all.includes(one) ? all.filter((each) => each !== one) : [...all, one];
