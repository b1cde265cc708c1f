import { api, body, type Schemas } from "../../api/client";
import { plainMethod } from "../../api/methods";
import { typedNumber } from "../../domain/format";
import { newId } from "../../domain/ids";
import type { Typed, Values } from "../../ui/useForm";

type Method = Schemas["MethodOut"];
type Blade = Schemas["BladeOut"];

export interface BladeLine {
  readonly id: string;
  readonly edgeId: string;
  readonly code: string;
  readonly grade: string;
  readonly edge: string;
}

/** How the facts of a new trial are read. */
export const TRIAL_KINDS = {
  name: "text",
  factor: { word: "factors" },
  school: "text",
  medium: "text",
  rope_diameter_mm: "number",
  settled_kind: { word: "settledRules" },
} as const;
export type TrialFacts = Values<typeof TRIAL_KINDS>;

export const BLANK_FACTS: Typed<typeof TRIAL_KINDS> = {
  name: "",
  factor: "steel",
  school: "force_limit_rope",
  medium: "",
  rope_diameter_mm: "",
  settled_kind: "edge_number",
};

/** The blades of a new trial as they are typed, and whether they are compared or preparations are. */
export interface TrialDraft {
  readonly trialId: string;
  readonly compares: "blades" | "preparations";
  readonly blades: readonly BladeLine[];
  readonly preparations: readonly string[];
}

export const blankLine = (): BladeLine => ({
  id: newId(),
  edgeId: newId(),
  code: "",
  grade: "",
  edge: "",
});

export const blankTrial = (): TrialDraft => ({
  trialId: newId(),
  compares: "blades",
  blades: [blankLine(), blankLine()],
  preparations: ["", ""],
});

/** The number of an edge as typed, `3` or `3+` for at least three; undefined where it is none. */
export function typedEdge(text: string): { number: number; isLeast: boolean } | null | undefined {
  const isLeast = /\+\s*$/.test(text);
  const number = typedNumber(text.replace(/\+\s*$/, ""));
  if (number === null) return isLeast ? undefined : null;
  if (number === undefined || !Number.isInteger(number) || number < 1) return undefined;
  return { number, isLeast };
}

/** The blades of a draft: all of them, or the one that carries several preparations. */
export const bladesOf = (d: TrialDraft) =>
  d.compares === "blades" ? d.blades : d.blades.slice(0, 1);

/** The line whose code an earlier one has already. */
export const namedTwice = (lines: readonly BladeLine[]): BladeLine | undefined => {
  const code = (line: BladeLine) => line.code.trim().toLowerCase();
  return lines.find(
    (line, at) => code(line) && lines.findIndex((other) => code(other) === code(line)) !== at,
  );
};

/** Save the trial with its blades and their preparations, each under the id that was made for it. */
export async function saveTrial(
  draft: TrialDraft,
  { school: _school, ...facts }: TrialFacts,
  method: Method | undefined,
  onShelf: (code: string) => Blade | undefined,
): Promise<void> {
  const path = { trial_id: draft.trialId };
  await body(
    api.PUT("/api/trials/{trial_id}", {
      params: { path },
      body: {
        ...facts,
        id: draft.trialId,
        edges_per_blade: method?.ends.find((e) => e.kind === "cycles")?.amount ?? 2,
        method: method ? plainMethod(method) : null,
      },
    }),
  );
  const named = draft.preparations.map((each) => each.trim()).filter(Boolean);
  const arms = draft.compares === "preparations" ? named : null;
  for (const line of bladesOf(draft).filter((each) => each.code.trim())) {
    const known = onShelf(line.code);
    if (!known) await saveBlade(draft.trialId, line);
    if (known || arms)
      await body(
        api.PUT("/api/trials/{trial_id}/places/{blade_id}", {
          params: { path: { ...path, blade_id: known?.id ?? line.id } },
          body: { role: "", arms },
        }),
      );
  }
}

const saveBlade = (trialId: string, line: BladeLine) => {
  const edge = typedEdge(line.edge);
  const edges = edge
    ? [{ id: line.edgeId, number: edge.number, number_is_least: edge.isLeast }]
    : [];
  return body(
    api.PUT("/api/trials/{trial_id}/blades/{blade_id}", {
      params: { path: { trial_id: trialId, blade_id: line.id } },
      body: {
        id: line.id,
        code: line.code.trim(),
        claimed_grade: line.grade.trim() || null,
        edges,
      },
    }),
  );
};
