import { describe, expect, it } from "vitest";
import { type Corner, inserted, nearest } from "./outline";

/** A blade from the ricasso round the tip and back along the spine, as corners are pressed. */
const AROUND: Corner[] = [
  [100, 300],
  [500, 310],
  [800, 250],
  [700, 215],
  [500, 205],
  [100, 200],
];

const pressed = (corners: readonly Corner[]) =>
  corners.reduce<Corner[]>((made, corner) => inserted(made, corner, 5), []);

describe("corners of an outline", () => {
  it("pressed in order make that outline, either way round and from any of them", () => {
    for (let first = 0; first < AROUND.length; first++) {
      const turned = [...AROUND.slice(first), ...AROUND.slice(0, first)];
      expect(pressed(turned)).toEqual(turned);
      expect(pressed([...turned].reverse())).toEqual([...turned].reverse());
    }
  });

  it("pressed on a side come between its ends", () => {
    expect(inserted(AROUND, [300, 306], 5)[1]).toEqual([300, 306]);
    expect(inserted(AROUND, [100, 250], 5).at(-1)).toEqual([100, 250]);
  });

  it("are picked up within reach, the nearest of them", () => {
    expect(nearest(AROUND, [104, 203], 9)).toBe(5);
    expect(nearest(AROUND, [300, 250], 9)).toBeNull();
  });
});
