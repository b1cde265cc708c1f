import type { Schemas } from "../../api/client";
import { typedNumber } from "../../domain/format";

export type Method = Schemas["MethodBody"];
export type CheckKind = Schemas["CheckSpecBody"]["kind"];
export type StopKind = Schemas["StopRuleBody"]["kind"];
type Confirm = NonNullable<Schemas["StopRuleBody"]["confirm"]>;

export const CHECKS: ReadonlyArray<readonly [CheckKind, string]> = [
  ["force", "force on the test line"],
  ["paper", "slices held paper"],
  ["hair_sample", "cuts a hair sample off the body"],
  ["shave", "shaves hair"],
  ["inspect", "apex under the lamp"],
  ["effort", "effort, 0 to 10"],
  ["rank", "effort, ranked"],
  ["depth", "depth cut, mm"],
];

/** Checks that pass or fail. */
export const JUDGED: readonly CheckKind[] = ["paper", "shave", "hair_sample", "inspect"];

export interface StageDraft {
  name: string;
  check: CheckKind;
  limit: string;
  onDoubt: boolean;
  also: CheckKind[];
  together: "any" | "all";
}

/** A method as it is typed: numbers as text, so that nothing typed is lost. */
export interface MethodDraft {
  base: Method;
  name: string;
  medium: NonNullable<Method["medium"]>;
  cut: NonNullable<Method["cut"]>;
  surface: string;
  unit: NonNullable<Method["count_unit"]>;
  piece: string;
  contact: string;
  zone: string;
  checks: Array<{ kind: CheckKind; readings: string; material: string }>;
  stages: StageDraft[];
  ends: Array<{ kind: StopKind; stage: string; confirm: Confirm; amount: string }>;
  schedule: NonNullable<Method["schedule"]>;
  every: string;
  growth: string;
  at: string;
  stations: string;
  startReadings: string;
  recipe: Array<{ medium: string; amount: string; unit: string }>;
  spoiled: string;
  cautions: string;
  note: string;
}

const text = (value: number | null | undefined) => value?.toString() ?? "";

export function asDraft(m: Method): MethodDraft {
  return {
    base: m,
    name: m.name,
    medium: m.medium ?? "rope",
    cut: m.cut ?? "slice",
    surface: m.surface ?? "",
    unit: m.count_unit ?? "cuts",
    piece: text(m.piece ?? 1),
    contact: text(m.contact_mm),
    zone: text(m.zone_length_mm),
    checks: m.checks.map((c) => ({
      kind: c.kind,
      readings: text(c.readings ?? 1),
      material: c.material ?? "",
    })),
    stages: m.stages.map((s) => ({
      name: s.name,
      check: s.check ?? "force",
      limit: text(s.limit_gf),
      onDoubt: (s.lost_on ?? []).includes("doubt"),
      also: [...(s.also ?? [])],
      together: s.together ?? "any",
    })),
    ends: m.ends.map((e) => ({
      kind: e.kind,
      stage: e.stage ?? "",
      confirm: e.confirm ?? "none",
      amount: text(e.amount),
    })),
    schedule: m.schedule ?? "every",
    every: text(m.every ?? 1),
    growth: text(m.growth ?? 1.5),
    at: (m.at ?? []).join(", "),
    stations: (m.stations_mm ?? []).join(", "),
    startReadings: text(m.start_readings ?? 2),
    recipe: (m.recipe ?? []).map((p) => ({
      medium: p.medium,
      amount: text(p.amount),
      unit: p.unit ?? "",
    })),
    spoiled: m.spoiled_when ?? "",
    cautions: (m.cautions ?? []).join("\n"),
    note: m.note ?? "",
  };
}

/** Numbers in a list, parted by commas or blanks; undefined where one cannot be read. */
export function typedList(list: string): number[] | undefined {
  const read = list
    .split(/[;\s]+|,\s+|,(?=\d*$)/)
    .filter((part) => part.trim())
    .map(typedNumber);
  return read.some((n) => typeof n !== "number") ? undefined : (read as number[]);
}

/** The method as it would be sent; the names of fields that cannot be read where there are any. */
export function asMethod(d: MethodDraft): { method: Method } | { unread: string[] } {
  const unread: string[] = [];
  const need = (name: string, value: string): number => {
    const read = typedNumber(value);
    if (typeof read === "number") return read;
    unread.push(name);
    return 0;
  };
  const may = (name: string, value: string): number | null =>
    value.trim() ? need(name, value) : null;
  const list = (name: string, value: string): number[] => {
    const read = typedList(value);
    if (read) return read;
    unread.push(name);
    return [];
  };
  const method: Method = {
    school: d.base.school,
    name: d.name,
    medium: d.medium,
    cut: d.cut,
    surface: d.surface,
    count_unit: d.unit,
    piece: need("piece", d.piece),
    contact_mm: may("contact_mm", d.contact),
    zone_length_mm: may("zone_length_mm", d.zone),
    checks: d.checks.map((c) => ({ ...c, readings: Math.round(need("checks", c.readings)) })),
    stages: d.stages.map((s) => ({
      name: s.name,
      check: s.check,
      limit_gf: s.check === "force" ? need("stages", s.limit) : null,
      lost_on:
        s.onDoubt && s.check !== "force" && s.also.length === 0 ? ["doubt", "fail"] : ["fail"],
      also: s.check === "force" ? [] : s.also.filter((kind) => kind !== s.check),
      together: s.together,
    })),
    ends: d.ends.map((e) => ({
      kind: e.kind,
      stage: e.kind === "limit" ? e.stage : "",
      confirm: e.kind === "limit" ? e.confirm : "none",
      amount: e.kind === "dose" || e.kind === "cycles" ? need("ends", e.amount) : null,
    })),
    schedule: d.schedule,
    every: need("every", d.every),
    growth: need("growth", d.growth),
    at: d.schedule === "at" ? list("at", d.at) : [],
    stations_mm: list("stations_mm", d.stations),
    start_readings: Math.round(need("start_readings", d.startReadings)),
    recipe: d.recipe.map((p) => ({
      medium: p.medium,
      amount: need("recipe", p.amount),
      unit: p.unit.trim(),
    })),
    spoiled_when: d.spoiled,
    cautions: d.cautions.split("\n").filter((line) => line.trim()),
    note: d.note,
  };
  return unread.length ? { unread } : { method };
}
