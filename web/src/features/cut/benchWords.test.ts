import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { bandOf, countSize, exposureWords, nextWords, seenHere, whyWords } from "./benchWords";
import type { Shown } from "./projection";

type Run = Schemas["RunOut"];

const shown = (rest: Partial<Shown> = {}): Shown =>
  ({
    count: 12,
    readings: [{}],
    due: false,
    planning: false,
    confirming: false,
    readingsWanted: 1,
    nextAt: 20,
    placeMm: null,
    ...rest,
  }) as Shown;
const run = (state = {}, rest = {}): Run =>
  ({
    state: {
      status: "cutting",
      asked: "force",
      stages: {},
      plan: null,
      checks: [],
      not_understood: 0,
      ...state,
    },
    method: { check_rows: [] },
    card: { readings: 1 },
    count_unit: "cuts",
    exposure_per_cut_mm2_per_mm: null,
    ...rest,
  }) as unknown as Run;

describe("what the bench says next", () => {
  it.each([
    ["how far it is", run(), shown(), "Check after 8 more"],
    [
      "with several readings",
      run({}, { card: { readings: 3 } }),
      shown(),
      "Check after 8 more, 3 readings",
    ],
    ["that it is being worked out", run(), shown({ planning: true }), "Working out the next check"],
    ["to go on without a plan", run(), shown({ nextAt: null }), "Go on cutting"],
    ["to read now", run(), shown({ due: true, readingsWanted: 2 }), "Check now: wipe, 2 readings"],
    [
      "where to read",
      run(),
      shown({ due: true, placeMm: 40 }),
      "Check now: wipe, 1 reading at 40 mm",
    ],
    ["to confirm", run(), shown({ due: true, confirming: true }), "Read once more to confirm"],
    [
      "how to begin",
      run(),
      shown({ due: true, count: 0, readings: [] }),
      "Wipe the fresh edge, take 1 reading",
    ],
    ["that it has ended", run({ status: "stopped" }), shown({ due: true }), "This run has ended"],
    ["that it was abandoned", run({ status: "abandoned" }), shown(), "This run was abandoned"],
  ])("%s", (_what, here, seen, words) => {
    expect(nextWords(here, seen)).toBe(words);
  });

  it("begins with the edge that was stropped where it goes on from one", () => {
    const again = run({}, { after_strop_of: "run-1" });
    expect(nextWords(again, shown({ due: true, count: 0, readings: [] }))).toMatch(/stropped edge/);
  });

  it("says why, what was passed, and what nobody understands, in one sentence", () => {
    const here = run({
      plan: { why: "half of the band" },
      stages: { keen: 14 },
      not_understood: 2,
    });
    expect(whyWords(here, shown())).toBe(
      "Half of the band; keen lost at 14; 2 events are not understood and left out, see the list.",
    );
    expect(whyWords(run(), shown())).toBe("");
  });

  it("has a band only where both its ends are known", () => {
    expect(bandOf(run({ plan: { band_low: 10, band_high: 22 } }))).toEqual([10, 22]);
    expect(bandOf(run({ plan: { band_low: 10 } }))).toBeNull();
    expect(bandOf(run())).toBeNull();
  });

  it("tells what the edge has borne as exposure where rope and zone are known, else as a count", () => {
    expect(exposureWords(run(), 12)).toBe("12 cuts");
    expect(exposureWords(run({}, { exposure_per_cut_mm2_per_mm: 16.4 }), 12)).toBe("197 mm²/mm");
  });

  it("never writes the count smaller than arm's length allows", () => {
    expect(countSize("1234567.5", 390)).toBe("160px");
    expect(Number.parseFloat(countSize("7", 1280))).toBe(340);
  });

  it("shows what the lamp found, without what was excluded or was clean", () => {
    const check = (seen: string, rest = {}) => ({
      kind: "lamp",
      seen,
      position_mm: 30,
      struck: false,
      ...rest,
    });
    const checks = [
      check("rolled"),
      check("clean"),
      check("chipped", { struck: true }),
      check("worn", { position_mm: null }),
    ];
    const rows = [{ key: "lamp", result: "damage" }];
    expect(seenHere(run({ checks }, { method: { check_rows: rows } }))).toEqual([
      { atMm: 30, kind: "rolled" },
    ]);
  });
});
