import { describe, expect, it } from "vitest";
import { alloyRead, alloyTyped } from "./ReferenceAlloy";

const KEPT = {
  alloy: "check block 3",
  certified: [{ element: "Cr", percent: 12.5, plus_minus_percent: 0.1 }],
  readings: [{ element: "Cr", percent: 12.31, plus_minus_percent: 0.08, detected: true }],
};

describe("the reference alloy of a batch", () => {
  it("comes back from its fields as it was kept", () => {
    expect(alloyTyped(KEPT).certificate).toBe("Cr 12.5 0.1");
    expect(alloyRead(alloyTyped(KEPT))).toEqual({ wrong: "", sent: KEPT });
  });

  it("is none where nothing is typed", () => {
    expect(alloyRead(alloyTyped(null)).sent).toBeNull();
  });

  it("says which line cannot be read, and is not sent as empty", () => {
    const typed = { ...alloyTyped(KEPT), shot: "Cr 12.31 0.08\nMo lots" };
    expect(alloyRead(typed).wrong).toContain("line 2");
  });
});
