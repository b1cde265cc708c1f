import type { Schemas } from "../../api/client";
import { FORCE } from "../../domain/checks";
import { typedNumber } from "../../domain/format";
import type { WordOf } from "../../domain/words";

export type Method = Schemas["MethodBody"];
export type StopKind = Schemas["StopRuleBody"]["kind"];
type Confirm = NonNullable<Schemas["StopRuleBody"]["confirm"]>;

/** What a check of the tester's own shows, as it is typed; grades sharpest first, with commas. */
export interface OwnDraft {
  result: WordOf<"ownResults">;
  grades: string;
  unit: string;
  sharpIs: WordOf<"sharpIs">;
  touchesBody: boolean;
}

export interface CheckDraft {
  kind: string;
  readings: string;
  material: string;
  /** How readings scatter, in per cent; empty as usual, and in a draft of an older Kessik. */
  scatter?: string;
  own: OwnDraft | null;
}

export interface StageDraft {
  name: string;
  check: string;
  limit: string;
  /** The first grade of a scale at which the stage is lost. */
  lostFrom: string;
  onDoubt: boolean;
  also: string[];
  together: WordOf<"together">;
}

export const NEW_OWN: OwnDraft = {
  result: "pass_fail",
  grades: "",
  unit: "",
  sharpIs: "",
  touchesBody: false,
};

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
  checks: CheckDraft[];
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
      scatter: text(c.scatter_percent),
      own: c.own ? ownDraft(c.own) : null,
    })),
    stages: m.stages.map((s) => ({
      name: s.name,
      check: s.check ?? "force",
      limit: text(s.limit_gf ?? s.limit),
      lostFrom: s.lost_on?.find((word) => !PASS_FAIL.has(word)) ?? "",
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

const PASS_FAIL = new Set<string>(["pass", "fail", "doubt"]);
const oneLine = (name: string) => name.trim().replace(/\s+/g, " ");

function ownDraft(own: NonNullable<Schemas["CheckSpecBody"]["own"]>): OwnDraft {
  return {
    result: (own.result ?? "pass_fail") as OwnDraft["result"],
    grades: (own.grades ?? []).join(", "),
    unit: own.unit ?? "",
    sharpIs: own.sharp_is ?? "",
    touchesBody: own.touches_body ?? false,
  };
}

/** The grades of a scale as they are typed, the sharpest first. */
export const gradesOf = (own: OwnDraft): string[] =>
  own.grades
    .split(/[,;\n]/)
    .map(oneLine)
    .filter(Boolean);

function asOwn(own: OwnDraft): NonNullable<Schemas["CheckSpecBody"]["own"]> {
  const isNumber = own.result === "number";
  return {
    result: own.result,
    grades: own.result === "scale" ? gradesOf(own) : [],
    unit: isNumber ? own.unit.trim() : "",
    sharp_is: isNumber ? own.sharpIs : "",
    touches_body: own.touchesBody,
  };
}

/** The check that a stage is decided by, where the method has it. */
export const checkOf = (d: MethodDraft, stage: StageDraft): CheckDraft | undefined =>
  d.checks.find((check) => check.kind === stage.check);

/** What a stage is lost by: a limit, grades, or a fail of one check or several. */
function lossOf(s: StageDraft, d: MethodDraft, need: (limit: string) => number) {
  const own = checkOf(d, s)?.own ?? null;
  const none = { limit_gf: null, lost_on: ["fail"], also: [], limit: null, lost_when: "" as const };
  if (s.check === FORCE.key) return { ...none, limit_gf: need(s.limit) };
  if (own?.result === "number")
    return {
      ...none,
      limit: need(s.limit),
      lost_when: own.sharpIs === "low" ? ("above" as const) : ("below" as const),
    };
  if (own?.result === "scale") {
    const grades = gradesOf(own);
    const from = grades.indexOf(s.lostFrom);
    return { ...none, lost_on: from < 0 ? [] : grades.slice(from) };
  }
  const lost_on = s.onDoubt && s.also.length === 0 ? ["doubt", "fail"] : ["fail"];
  return { ...none, lost_on, also: s.also.filter((kind) => kind !== s.check) };
}

/** The method with one check changed; stages that go by it follow its new name. */
export function withCheck(d: MethodDraft, index: number, to: CheckDraft): MethodDraft {
  const before = d.checks[index]?.kind ?? "";
  const named = (kind: string) => (kind === before ? to.kind : kind);
  return {
    ...d,
    checks: d.checks.map((check, at) => (at === index ? to : check)),
    stages: d.stages.map((stage) => ({
      ...stage,
      check: named(stage.check),
      also: stage.also.map(named),
    })),
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
    checks: d.checks.map((c) => ({
      kind: oneLine(c.kind),
      readings: Math.round(need("checks", c.readings)),
      material: c.material,
      scatter_percent: c.kind === FORCE.key ? may("checks", c.scatter ?? "") : null,
      own: c.own ? asOwn(c.own) : null,
    })),
    stages: d.stages.map((s) => ({
      name: s.name,
      check: oneLine(s.check),
      together: s.together,
      ...lossOf(s, d, (limit) => need("stages", limit)),
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
