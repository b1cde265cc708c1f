import { expect, test } from "vitest";
import { cellText, csvOf, tsvOf } from "./tableText";

test("a cell is what is seen, in one line, with a minus that a spreadsheet knows", () => {
  expect(cellText("12 cuts\n  1st to 3rd ")).toBe("12 cuts; 1st to 3rd");
  expect(cellText("\u221215 to\u00a04 %")).toBe("-15 to 4 %");
});

test("commas and quotes stay inside their cell, and no cell is run as a formula", () => {
  expect(csvOf([["a,b", 'say "x"', "=SUM(A1)", "-4.5", "+16 to +104 %"]])).toBe(
    `"a,b","say ""x""",'=SUM(A1),-4.5,'+16 to +104 %`,
  );
  expect(csvOf([["a"], ["b"]])).toBe("a\r\nb");
});

test("the clipboard gets a cell a column, and no formula", () => {
  expect(
    tsvOf([
      ["a\tb", "c"],
      ["1", "=2"],
    ]),
  ).toBe("a b\tc\n1\t'=2");
});
