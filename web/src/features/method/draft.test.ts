import { describe, expect, it } from "vitest";
import { asDraft, asMethod, type Method, typedList } from "./draft";

const ALONE = { also: [], together: "any" as const };

const method: Method = {
  school: "paper_stop_rope",
  name: "Paper-stop rope series",
  medium: "rope",
  cut: "slice",
  surface: "softwood",
  count_unit: "cuts",
  piece: 1,
  contact_mm: null,
  zone_length_mm: null,
  checks: [{ kind: "paper", readings: 2, material: "office paper" }],
  stages: [
    { name: "rough", check: "paper", limit_gf: null, lost_on: ["doubt", "fail"], ...ALONE },
    { name: "working", check: "paper", limit_gf: null, lost_on: ["fail"], ...ALONE },
  ],
  ends: [{ kind: "limit", stage: "working", confirm: "none", amount: null }],
  schedule: "every",
  every: 5,
  growth: 1.5,
  at: [],
  stations_mm: [],
  start_readings: 2,
  recipe: [],
  spoiled_when: "",
  cautions: ["Cut away from the body."],
  note: "",
};

describe("a method as it is typed", () => {
  it("comes back as it was", () => {
    expect(asMethod(asDraft(method))).toEqual({ method });
  });

  it("names every field that cannot be read, and loses none of what was typed", () => {
    const draft = { ...asDraft(method), every: "often", piece: "", stations: "20, here" };
    expect(asMethod(draft)).toEqual({ unread: ["piece", "every", "stations_mm"] });
    expect(draft.every).toBe("often");
  });

  it("keeps an amount and a limit only where the rule and the stage have one", () => {
    const draft = asDraft(method);
    const made = asMethod({
      ...draft,
      checks: [...draft.checks, { kind: "force", readings: "1", material: "" }],
      stages: [{ name: "dull", check: "force", limit: "400", onDoubt: true, ...ALONE }],
      ends: [
        { kind: "stages", stage: "working", confirm: "next_check", amount: "60" },
        { kind: "dose", stage: "working", confirm: "none", amount: "60" },
      ],
    });
    expect(made).toMatchObject({
      method: {
        stages: [{ name: "dull", limit_gf: 400, lost_on: ["fail"] }],
        ends: [
          { kind: "stages", stage: "", confirm: "none", amount: null },
          { kind: "dose", stage: "", confirm: "none", amount: 60 },
        ],
      },
    });
  });

  it("keeps the checks that decide a stage together, and lets a doubt lose none of them", () => {
    const draft = asDraft(method);
    const stage = { name: "done", check: "shave", limit: "", onDoubt: true, together: "all" };
    const made = asMethod({ ...draft, stages: [{ ...stage, also: ["paper"] }] as never });
    expect(made).toMatchObject({
      method: { stages: [{ also: ["paper"], together: "all", lost_on: ["fail"] }] },
    });
  });

  it("reads lists parted by commas, semicolons or blanks, with a decimal comma too", () => {
    expect(typedList("20, 44, 68")).toEqual([20, 44, 68]);
    expect(typedList("20; 44,5 68")).toEqual([20, 44.5, 68]);
    expect(typedList("")).toEqual([]);
    expect(typedList("20, x")).toBeUndefined();
  });
});
