/** What a look that is judged can say: key, word of the log, and words for it. */
export const OUTCOMES: ReadonlyArray<readonly [string, string, string]> = [
  ["p", "pass", "passes"],
  ["f", "fail", "fails"],
  ["d", "doubt", "in doubt"],
];
export const SEEN: ReadonlyArray<readonly [string, string, string]> = [
  ["c", "clean", "clean"],
  ["g", "glint", "glint"],
  ["o", "roll", "roll"],
  ["i", "chip", "chip"],
  ["u", "burr", "burr"],
];
