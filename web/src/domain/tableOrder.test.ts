import { expect, test } from "vitest";
import { numberIn, ordered } from "./tableOrder";

const inOrder = (cells: string[], isDown = false) =>
  ordered(cells, isDown).map((place) => cells[place]);

test("lives are ordered by what they begin with, unknown ones last either way", () => {
  const lives = ["412 (380 to 450)", "none", "1 024 (900 to 1 100)", "≥ 500", ""];
  expect(inOrder(lives)).toEqual(["412 (380 to 450)", "≥ 500", "1 024 (900 to 1 100)", "none", ""]);
  expect(inOrder(lives, true).slice(0, 3)).toEqual([
    "1 024 (900 to 1 100)",
    "≥ 500",
    "412 (380 to 450)",
  ]);
  expect(numberIn("-2,5 %")).toBe(-2.5);
});

test("codes are ordered as people count", () => {
  expect(inOrder(["AV-10", "AV-2", "", "av-1"])).toEqual(["av-1", "AV-2", "AV-10", ""]);
});
