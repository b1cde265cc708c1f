// @vitest-environment jsdom
import { act, renderHook } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import { useDraft } from "./useDraft";

const START = { name: "", note: "" };
const shown = (key: string | undefined) => renderHook(() => useDraft(key, START));

describe("what is typed and not saved yet", () => {
  afterEach(() => sessionStorage.clear());

  it("is there after a reload, with fields that came since", () => {
    const first = shown("blade");
    act(() => first.result.current[1]({ name: "AV-01", note: "" }));
    first.unmount();
    sessionStorage.setItem("draft:older", JSON.stringify({ name: "AV-02" }));
    expect(shown("blade").result.current[0]).toEqual({ name: "AV-01", note: "" });
    expect(shown("older").result.current[0]).toEqual({ name: "AV-02", note: "" });
  });

  it("goes back to the start where it is dropped, and stays on the screen where it is saved", () => {
    const draft = shown("blade");
    act(() => draft.result.current[1]({ name: "AV-01", note: "" }));
    act(() => draft.result.current[3]());
    expect(draft.result.current[0].name).toBe("AV-01");
    expect(sessionStorage.length).toBe(0);
    act(() => draft.result.current[2]());
    expect(draft.result.current[0]).toEqual(START);
  });

  it("lasts as long as the screen without a key, and a spoiled one is no obstacle", () => {
    const draft = shown(undefined);
    act(() => draft.result.current[1]({ name: "AV-01", note: "" }));
    expect(sessionStorage.length).toBe(0);
    sessionStorage.setItem("draft:spoiled", "{name:");
    expect(shown("spoiled").result.current[0]).toEqual(START);
  });
});
