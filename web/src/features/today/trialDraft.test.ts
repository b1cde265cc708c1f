// @vitest-environment jsdom
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import {
  BLANK_FACTS,
  bladesOf,
  blankLine,
  blankTrial,
  namedTwice,
  saveTrial,
  typedEdge,
} from "./trialDraft";

const FACTS = {
  ...BLANK_FACTS,
  name: "Raft rope",
  factor: "steel",
  rope_diameter_mm: 32,
  settled_kind: "edge_number",
} as const;
const line = (code: string, rest = {}) => ({ ...blankLine(), code, ...rest });

/** What goes over the wire while something is done. */
async function sent(act: () => Promise<void>) {
  const found: { path: string; body: Record<string, unknown> }[] = [];
  vi.stubGlobal("fetch", async (asked: Request) => {
    found.push({ path: new URL(asked.url).pathname, body: await asked.json() });
    return new Response("{}", { headers: { "Content-Type": "application/json" } });
  });
  await act();
  return found;
}

describe("a new trial", () => {
  afterEach(() => vi.unstubAllGlobals());

  it.each([
    ["3", { number: 3, isLeast: false }],
    [" 3+ ", { number: 3, isLeast: true }],
    ["", null],
    ["+", undefined],
    ["2.5", undefined],
    ["0", undefined],
    ["third", undefined],
  ])("reads the number of an edge, %j", (text, edge) => {
    expect(typedEdge(text)).toEqual(edge);
  });

  it("finds a code that stands twice, however it is written", () => {
    const again = line(" av-01 ");
    expect(namedTwice([line("AV-01"), line(""), line(""), again])).toBe(again);
    expect(namedTwice([line("AV-01"), line("AV-02")])).toBeUndefined();
  });

  it("keeps one blade only where preparations are compared", () => {
    const draft = { ...blankTrial(), blades: [line("A"), line("B")] };
    expect(bladesOf(draft)).toHaveLength(2);
    expect(bladesOf({ ...draft, compares: "preparations" })).toEqual([draft.blades[0]]);
  });

  it("makes new blades with their edge, and takes known ones from the shelf", async () => {
    const known = { id: "on-the-shelf", code: "A" } as Schemas["BladeOut"];
    const draft = { ...blankTrial(), blades: [line("A"), line(" B ", { edge: "3+" }), line("")] };
    const [trial, place, blade, ...rest] = await sent(() =>
      saveTrial(draft, { ...FACTS, school: "" }, undefined, (code) =>
        code === "A" ? known : undefined,
      ),
    );
    expect(trial?.body).toMatchObject({
      id: draft.trialId,
      edges_per_blade: 2,
      rope_diameter_mm: 32,
    });
    expect(trial?.body).not.toHaveProperty("school");
    expect(place?.path).toBe(`/api/trials/${draft.trialId}/places/on-the-shelf`);
    expect(blade?.body).toMatchObject({
      code: "B",
      claimed_grade: null,
      edges: [{ number: 3, number_is_least: true }],
    });
    expect(rest).toEqual([]);
  });

  it("names the preparations of the one blade that carries them", async () => {
    const draft = {
      ...blankTrial(),
      compares: "preparations" as const,
      blades: [line("A")],
      preparations: ["fine ", "", "coarse"],
    };
    const requests = await sent(() =>
      saveTrial(draft, { ...FACTS, school: "" }, undefined, () => undefined),
    );
    expect(requests.at(-1)?.body).toEqual({ role: "", arms: ["fine", "coarse"] });
  });
});
