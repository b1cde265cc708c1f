import { expect, it } from "vitest";
import { byPlace, measuredPicture, uploadsOf } from "./series";
import type { Soak } from "./soak";

const look = (picture: string, clock_h: number, struck = "") =>
  ({ picture, clock_h, struck }) as Soak["looks"][number];

it("the last picture that was measured by hand leads a series, with all its outlines", () => {
  const looks = [look("a", 1), look("b", 4), look("b", 4), look("c", 6, "a slip"), look("", 9)];
  expect(measuredPicture(looks)).toEqual({ hash: "b", hours: 4, outlines: 2 });
  expect(measuredPicture([look("", 2), look("c", 3, "a slip")])).toBeNull();
});

it("a folder goes in parts that one request can hold, none lost and in order", () => {
  const of = (count: number, megabytes: number) =>
    Array.from({ length: count }, (_, n) => ({ n, size: megabytes * 1e6 }));
  expect(uploadsOf(of(45, 0.5)).map((part) => part.length)).toEqual([20, 20, 5]);
  const heavy = uploadsOf(of(60, 6));
  expect(heavy.every((part) => part.length === 6)).toBe(true);
  expect(heavy.flat().map(({ n }) => n)).toEqual(Array.from({ length: 60 }, (_, n) => n));
  expect(uploadsOf(of(2, 90)).map((part) => part.length)).toEqual([1, 1]);
  expect(uploadsOf([])).toEqual([]);
});

it("a round shows the last of each place, what came before it behind it", () => {
  const seen = (id: string, side: string, stage = "wiped") =>
    ({ id, side, stage, region: "", seen_by: "", struck: "" }) as Soak["looks"][number];
  const looks = [
    seen("1", "left"),
    seen("2", "right"),
    seen("3", "left"),
    seen("4", "left", "rinsed"),
  ];
  expect(byPlace(looks).map((place) => place.map(({ id }) => id))).toEqual([
    ["3", "1"],
    ["2"],
    ["4"],
  ]);
});
