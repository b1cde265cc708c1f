// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { shown } from "../testing/page";
import { Table } from "./Table";

afterEach(cleanup);

const LIVES = [
  ["A", "120 cuts"],
  ["B", "45 cuts"],
  ["C", "9 cuts"],
  ["D", "300 cuts"],
  ["E", ""],
  ["F", "80 cuts"],
];
const table = (
  <Table scrolls="Lives" heads={["blade", "life"]}>
    {LIVES.map(([blade, life]) => (
      <tr key={blade}>
        <td>{blade}</td>
        <td>{life}</td>
      </tr>
    ))}
  </Table>
);
const seen = () =>
  [...document.querySelectorAll<HTMLTableRowElement>("tbody > tr")]
    .filter((row) => !row.hidden)
    .map((row) => row.cells[0]?.innerHTML)
    .join("");
const clipboard = (writeText: (text: string) => Promise<void>) =>
  vi.stubGlobal("navigator", { ...navigator, clipboard: { writeText } });

test("a press on a head sorts by its numbers, a second turns it, a third gives the order back", () => {
  shown(table);
  const head = screen.getByRole("button", { name: /life/ });
  fireEvent.click(head);
  expect(seen()).toBe("CBFADE");
  fireEvent.click(head);
  expect(seen()).toBe("DAFBCE");
  fireEvent.click(head);
  expect(seen()).toBe("ABCDEF");
});

test("only what was found is shown, and only that is copied", async () => {
  const copied: string[] = [];
  clipboard(async (text) => void copied.push(text));
  shown(table);
  fireEvent.change(screen.getByRole("searchbox"), { target: { value: " 12" } });
  expect(seen()).toBe("A");
  fireEvent.click(screen.getByRole("button", { name: "Copy: Lives" }));
  expect(await screen.findByText("Copied")).toBeTruthy();
  expect(copied).toEqual(["blade\tlife\nA\t120 cuts"]);
});

test("a browser that forbids copying is said to, and nothing is thought copied", async () => {
  clipboard(() => Promise.reject(new DOMException("denied")));
  shown(table);
  fireEvent.click(screen.getByRole("button", { name: "Copy: Lives" }));
  expect(await screen.findByText("The browser does not allow copying")).toBeTruthy();
});
