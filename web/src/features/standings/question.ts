import type { Schemas } from "../../api/client";
import type { StandingsAsked } from "../../api/queries";

export type Rung = Schemas["RungOut"];

/** The question as the address of the page holds it; what is not in it is left to the server. */
export function askedIn(search: URLSearchParams): StandingsAsked {
  const one = (name: string) => search.get(name) ?? undefined;
  const several = (name: string) => (search.has(name) ? search.getAll(name) : undefined);
  const asked = {
    agree: several("agree"),
    like: several("like"),
    fair_only: search.get("fair_only") === "true" || undefined,
    with_doubted: search.get("with_doubted") === "true" || undefined,
    by: one("by"),
    reference: one("reference"),
    asking: one("asking"),
    first: one("first"),
    second: one("second"),
  };
  return Object.fromEntries(
    Object.entries(asked).filter(([, value]) => value !== undefined),
  ) as StandingsAsked;
}

/** The address with something else asked; an empty value is taken out of it. */
export function asking(
  search: URLSearchParams,
  change: Readonly<Record<string, string | readonly string[] | boolean>>,
): URLSearchParams {
  const next = new URLSearchParams(search);
  for (const [name, value] of Object.entries(change)) {
    next.delete(name);
    const values = typeof value === "object" ? value : [value === true ? "true" : value || ""];
    for (const each of values) if (each) next.append(name, String(each));
  }
  return next;
}

/** The criteria with one added or taken out; `none` where none is left. */
export function agreeing(keys: readonly string[], key: string, on: boolean): readonly string[] {
  const next = on ? [...keys, key] : keys.filter((each) => each !== key);
  return next.length ? next : ["none"];
}

interface Named {
  readonly arm: string;
  readonly code: string;
  readonly grade: string;
  readonly maker: string;
}

/** The rows in which every word typed occurs, and those kept on top before all others. */
export function shownRungs<R extends Named>(
  rungs: readonly R[],
  typed: string,
  kept: readonly string[],
): readonly R[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const holds = (rung: Named) => {
    const said = `${rung.code} ${rung.grade} ${rung.maker}`.toLowerCase();
    return words.every((word) => said.includes(word));
  };
  const top = rungs.filter((rung) => kept.includes(rung.arm));
  return [...top, ...rungs.filter((rung) => !kept.includes(rung.arm) && holds(rung))];
}

/** Two blades whose places overlap cannot be told apart in order. */
export const isTied = (
  a: { readonly best: number; readonly worst: number },
  b: { readonly best: number; readonly worst: number },
): boolean => a.best <= b.worst && b.best <= a.worst;
