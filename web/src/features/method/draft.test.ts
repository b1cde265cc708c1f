import { describe, expect, it } from "vitest";
import { asDraft, asMethod, type Method, NEW_OWN, typedList, withCheck } from "./draft";

const ALONE = { also: [], together: "any" as const, limit: null, lost_when: "" as const };
const STAGE = { lostFrom: "", also: [], together: "any" as const };

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
  checks: [
    { kind: "paper", readings: 2, material: "office paper", own: null, scatter_percent: null },
  ],
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

  it("keeps how readings of force scatter, and of no other check", () => {
    const check = { readings: "2", material: "", own: null, scatter: "3,1" };
    const made = asMethod({
      ...asDraft(method),
      checks: [
        { ...check, kind: "force" },
        { ...check, kind: "paper" },
      ],
    });
    expect("method" in made && made.method.checks.map((each) => each.scatter_percent)).toEqual([
      3.1,
      null,
    ]);
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
      checks: [...draft.checks, { kind: "force", readings: "1", material: "", own: null }],
      stages: [{ name: "dull", check: "force", limit: "400", onDoubt: true, ...STAGE }],
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

  it("sends a scale of one's own with the grades that lose its stage, and follows a new name", () => {
    const own = { ...NEW_OWN, result: "scale" as const, grades: "whittles, splits,  cuts; slides" };
    const check = { kind: "whittling", readings: "1", material: "loose hair", own };
    const stage = { ...STAGE, name: "fine", check: "whittling", limit: "", onDoubt: true };
    const draft = {
      ...asDraft(method),
      checks: [check],
      stages: [{ ...stage, lostFrom: "cuts" }],
    };
    const made = asMethod(withCheck(draft, 0, { ...check, kind: " hair  whittling" }));
    expect(made).toMatchObject({
      method: {
        checks: [
          {
            kind: "hair whittling",
            own: { result: "scale", grades: ["whittles", "splits", "cuts", "slides"] },
          },
        ],
        stages: [{ check: "hair whittling", lost_on: ["cuts", "slides"], limit: null }],
      },
    });
    if ("unread" in made) throw new Error("it can be read");
    expect(asMethod(asDraft(made.method))).toEqual(made);
  });

  it("loses a number of one's own on its dull side, and asks for a limit that is no number", () => {
    const own = { ...NEW_OWN, result: "number" as const, unit: "mm", sharpIs: "high" as const };
    const check = { kind: "bite", readings: "2", material: "", own };
    const stage = { ...STAGE, name: "bite", check: "bite", onDoubt: false };
    const draft = { ...asDraft(method), checks: [check] };
    expect(asMethod({ ...draft, stages: [{ ...stage, limit: "1,5" }] })).toMatchObject({
      method: { stages: [{ limit: 1.5, lost_when: "below", limit_gf: null }] },
    });
    expect(asMethod({ ...draft, stages: [{ ...stage, limit: "deep" }] })).toEqual({
      unread: ["stages"],
    });
  });
});
