import { beforeEach, describe, expect, it, vi } from "vitest";
import { keepKeys, loadKeys, withLetter, withPedal } from "./keyChoice";

beforeEach(() => {
  const kept = new Map<string, string>();
  vi.stubGlobal("localStorage", {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  });
});

describe("keys of the bench", () => {
  it("learns any key a pedal sends that has no other work, and keeps it", () => {
    const learned = withPedal(loadKeys(), "F13");
    if (typeof learned === "string") throw new Error(learned);
    keepKeys(learned);
    expect(loadKeys().pedal).toBe("F13");
  });

  it("refuses a pedal that collides, and says with what", () => {
    expect(withPedal(loadKeys(), "b")).toContain("break");
    expect(withPedal(loadKeys(), "5")).toContain("readings");
    expect(withPedal(loadKeys(), "Enter")).toContain("a use at the bench");
    expect(withPedal({ ...loadKeys(), lettersOn: false }, "b")).toMatchObject({ pedal: "b" });
  });

  it("gives an action another letter, never one letter to two", () => {
    expect(withLetter(loadKeys(), "note", "s")).toContain("stop");
    expect(withLetter(loadKeys(), "note", "7")).toContain("not a letter");
    expect(withLetter(loadKeys(), "note", "Z")).toMatchObject({
      letters: { note: "z", stop: "s" },
    });
  });
});
