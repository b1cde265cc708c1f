import { describe, expect, it } from "vitest";
import { FORCE } from "../../domain/checks";
import { typedReadings } from "./typedReadings";

const force = { reads: FORCE, isPlace: false, stropped: false };

describe("figures typed at the bench", () => {
  it("are one reading or several, with whatever stands between them", () => {
    expect(typedReadings("151", force)).toEqual({ values: [151] });
    expect(typedReadings("201/199 200,5", force)).toEqual({ values: [201, 199, 200.5] });
    expect(typedReadings("  ", force)).toBeNull();
  });

  it("are none of them recorded while one cannot be", () => {
    expect(typedReadings("151/9000", force)).toMatchObject({
      wrong: expect.stringContaining("“9000” cannot be a reading"),
    });
    expect(typedReadings("151/x", force)).toMatchObject({ wrong: expect.any(String) });
  });

  it("are the place of what the lamp showed, while that is asked for", () => {
    const judged = { ...FORCE, is_judged: true };
    const asked = { reads: judged, isPlace: true, stropped: false };
    expect(typedReadings("42", asked)).toEqual({ placeMm: 42 });
    expect(typedReadings("42 60", asked)).toEqual({
      wrong: "Use the keys of this check, not figures",
    });
  });
});
