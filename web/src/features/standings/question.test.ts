import { describe, expect, it } from "vitest";
import { cutsOf } from "./cuts";
import { agreeing, askedIn, asking, isTied, shownRungs } from "./question";

const RUNGS = [
  { arm: "1", code: "AV-12", grade: "1.3343", maker: "Tidewall Forge" },
  { arm: "2", code: "AV-08", grade: "1.3343", maker: "Corran Forge" },
  { arm: "3", code: "AV-07", grade: "1.4116", maker: "Corran Forge" },
];

describe("the question of the standings", () => {
  it("asks only what its address says", () => {
    const search = new URLSearchParams("by=grade&agree=medium&agree=end&fair_only=true");
    expect(askedIn(search)).toEqual({ by: "grade", agree: ["medium", "end"], fair_only: true });
    expect(askedIn(new URLSearchParams())).toEqual({});
  });

  it("changes one part of the address and leaves the others", () => {
    const search = new URLSearchParams("by=grade&like=medium:rope&like=cut:slice");
    expect(asking(search, { like: ["medium:board"] }).toString()).toBe(
      "by=grade&like=medium%3Aboard",
    );
    expect(asking(search, { by: "", fair_only: false }).has("by")).toBe(false);
    expect(asking(search, { fair_only: true }).get("fair_only")).toBe("true");
  });

  it("loosens one criterion after the other, down to none", () => {
    expect(agreeing(["school", "end"], "end", false)).toEqual(["school"]);
    expect(agreeing(["school"], "school", false)).toEqual(["none"]);
    expect(agreeing([], "medium", true)).toEqual(["medium"]);
  });

  it("finds by every word typed, and keeps what was chosen on top", () => {
    const codes = (typed: string, kept: string[]) =>
      shownRungs(RUNGS, typed, kept).map((rung) => rung.code);
    expect(codes("corran", [])).toEqual(["AV-08", "AV-07"]);
    expect(codes("1.3343 corran", [])).toEqual(["AV-08"]);
    expect(codes("nothing", ["3"])).toEqual(["AV-07"]);
    expect(codes("", ["3"])).toEqual(["AV-07", "AV-12", "AV-08"]);
  });

  it("ties what could stand in one place", () => {
    expect(isTied({ best: 1, worst: 3 }, { best: 3, worst: 5 })).toBe(true);
    expect(isTied({ best: 1, worst: 2 }, { best: 3, worst: 5 })).toBe(false);
  });

  it("says a life in cuts or metres, and nothing where media do not agree", () => {
    expect(cutsOf(28.4, "cuts")).toBe("About 28 cuts on a usual lot.");
    expect(cutsOf(5400, "mm")).toBe("About 5.4 m on a usual lot.");
    expect(cutsOf(28.4, "")).toBe("");
  });
});
