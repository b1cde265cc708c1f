import { describe, expect, it } from "vitest";
import { Refused } from "../api/client";
import { elsewhere, refusalAt } from "./refusal";

const refused = (field: string | null) =>
  new Refused({
    type: "about:blank",
    title: "Refused",
    status: 422,
    detail: "out of range",
    field,
  });

describe("a refusal", () => {
  it("stands at its field, and beside the button where no field shown is meant", () => {
    const shown = new Set(["ph"]);
    expect(refusalAt(refused("ph"), "ph")).toBe("out of range");
    expect(refusalAt(refused("ph"), "name")).toBeUndefined();
    expect(elsewhere(refused("ph"), shown)).toBeUndefined();
    expect(elsewhere(refused("salt"), shown)).toBe("out of range");
    expect(elsewhere(refused(null), shown)).toBe("out of range");
  });

  it("needs no name of its field there", () => {
    const faults = [{ file: "", line: 0, column: "name", message: "this is missing" }];
    const problem = { type: "about:blank", title: "Refused", status: 422, field: "name", faults };
    const error = new Refused({ ...problem, detail: "name: this is missing" });
    expect(refusalAt(error, "name")).toBe("this is missing");
    expect(elsewhere(error, new Set())).toBe("name: this is missing");
  });

  it("is any error that is no answer of the server, too", () => {
    const gone = new Error("the server cannot be reached");
    expect(refusalAt(gone, "ph")).toBeUndefined();
    expect(elsewhere(gone, new Set(["ph"]))).toBe("the server cannot be reached");
    expect(elsewhere(null, new Set())).toBeUndefined();
  });
});
