import { expect, it } from "vitest";
import { termIn } from "./terms";

it("finds the term that a label speaks of, the longest of several", () => {
  expect(termIn("Zones of the edge")).toBe("zone");
  expect(termIn("Which settled edge counts?")).toBe("settled edge");
  expect(termIn("Checked every")).toBeUndefined();
  expect(termIn("Alarm")).toBeUndefined();
  expect(termIn("Test block says")).toBeUndefined();
});
