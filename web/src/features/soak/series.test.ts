import { expect, it } from "vitest";
import { measuredPicture } from "./series";
import type { Soak } from "./soak";

const look = (picture: string, clock_h: number, struck = "") =>
  ({ picture, clock_h, struck }) as Soak["looks"][number];

it("the last picture that was measured by hand leads a series, with all its outlines", () => {
  const looks = [look("a", 1), look("b", 4), look("b", 4), look("c", 6, "a slip"), look("", 9)];
  expect(measuredPicture(looks)).toEqual({ hash: "b", hours: 4, outlines: 2 });
  expect(measuredPicture([look("", 2), look("c", 3, "a slip")])).toBeNull();
});
