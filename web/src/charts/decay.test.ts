import { describe, expect, it } from "vitest";
import { type ChartRun, isFirst, isFreer, lastOfBlades, limitsOf, placed } from "./decay";

const run = (id: string, blade: string, counts: number[]) =>
  ({ id, blade, band: { counts } }) as unknown as ChartRun;
const label = (name: string, at: number, left = 0, right = 50) => ({
  run: run(name, name, []),
  left,
  right,
  at,
});

describe("a chart of decay", () => {
  it("labels each blade once, at its longest run", () => {
    const runs = [run("1", "A", [0, 10]), run("2", "A", [0, 30]), run("3", "B", [0, 5])];
    expect(lastOfBlades(runs).map((each) => each.id)).toEqual(["2", "3"]);
    expect(runs.map((each) => isFirst(each, runs))).toEqual([true, false, true]);
  });

  it("draws the force limits of a method and no other stages", () => {
    const stages = [
      { name: "keen", limit_gf: 250 },
      { name: "paper" },
      { name: "dull", limit_gf: null },
    ];
    expect(limitsOf({ stages })).toEqual([{ stage: "keen", gf: 250 }]);
  });

  it("moves labels apart that would stand on each other, and none below the floor", () => {
    const found = placed([label("A", 100), label("B", 96), label("C", 300)], 200);
    expect(found.map((each) => [each.run.id, each.at])).toEqual([
      ["C", 200],
      ["A", 100],
      ["B", 83],
    ]);
  });

  it("leaves a label out that would come to stand far from its curve, and one beside is not in its way", () => {
    const crowd = ["A", "B", "C", "D", "E"].map((name) => label(name, 100));
    expect(placed(crowd, 200)).toHaveLength(3);
    expect(placed([label("A", 100), label("B", 100, 60, 110)], 200).map((each) => each.at)).toEqual(
      [100, 100],
    );
  });

  it("writes a limit at the end where fewer marks stand", () => {
    const marks = [
      { at: 20, level: 100 },
      { at: 30, level: 102 },
      { at: 380, level: 100 },
    ];
    expect(isFreer(marks, 100, 0, 400)).toBe(false);
    expect(isFreer(marks, 200, 0, 400)).toBe(true);
  });
});
