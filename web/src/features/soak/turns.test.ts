import { describe, expect, it } from "vitest";
import type { Soak } from "./soak";
import { earlierLook, firstOpen, following, sideOf } from "./turns";

const see = (coupon_id: string, side: string, stage = "wiped") => ({ coupon_id, side, stage });
const SOAK = {
  coupons: [
    { id: "a", called: "A", side: "both" },
    { id: "b", called: "B", side: "right" },
  ],
  how: { stages: ["wiped"] },
  to_see: [see("a", "right"), see("b", "right"), see("a", "left", "scoured")],
  looks: [],
} as unknown as Soak;

describe("whose turn it is in a round", () => {
  it("begins with the first side that is still to be seen, else with the first of all", () => {
    expect(firstOpen(SOAK)).toEqual({ coupon: "a", side: "right", stage: "wiped" });
    const seen = { ...SOAK, to_see: [] } as Soak;
    expect(firstOpen(seen)).toEqual({ coupon: "a", side: "left", stage: "wiped" });
  });

  it("goes to the next side, says its stage where that is another, and ends after the last", () => {
    const first = { coupon: "a", side: "right", stage: "wiped" } as const;
    expect(following(SOAK, first)?.says).toBe("B right");
    const second = { ...first, coupon: "b" };
    expect(following(SOAK, second)?.says).toMatch(/^A left .*scour/);
    const last = { ...SOAK, to_see: [see("a", "right")] } as unknown as Soak;
    expect(following(last, first)).toBeNull();
  });

  it("comes back to what was passed over", () => {
    const last = { coupon: "a", side: "left", stage: "scoured" } as const;
    expect(following(SOAK, last)).toMatchObject({ coupon: "a", side: "right" });
  });

  it("keeps to the one side that a coupon is prepared on", () => {
    expect(sideOf(SOAK, "b", "left")).toBe("right");
    expect(sideOf(SOAK, "a", "left")).toBe("left");
    expect(sideOf(SOAK, "nobody", "left")).toBe("left");
  });

  it("carries an outline over from the last picture of the same side, by hour and not by entry", () => {
    const look = (id: string, hours: number, rest = {}) => ({
      id,
      coupon_id: "a",
      side: "left",
      picture: "hash",
      how: "photo",
      struck: "",
      clock_h: hours,
      at_utc: new Date(Date.UTC(2026, 4, 4) + hours * 3_600_000).toISOString(),
      ...rest,
    });
    const looks = [
      look("late", 10),
      look("early", 5),
      look("excluded", 11, { struck: "slipped" }),
      look("typed", 12, { how: "typed" }),
      look("after", 30),
      look("other", 12, { side: "right" }),
    ];
    const soak = { ...SOAK, looks } as unknown as Soak;
    const whose = {
      coupon: "a",
      side: "left",
      stage: "wiped",
      at: "2026-05-04T20:00:00Z",
    } as const;
    expect(earlierLook(soak, whose, "new")).toBe("late");
    expect(earlierLook(soak, whose, "late")).toBe("early");
    expect(earlierLook({ ...soak, looks: [] } as Soak, whose, "new")).toBe("");
  });
});
