// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useLocation } from "react-router";
import { afterEach, expect, test } from "vitest";
import { shown } from "../testing/page";
import { blade } from "../testing/records";
import { CommandLine } from "./CommandLine";

afterEach(cleanup);

const Here = () => {
  const { pathname, search } = useLocation();
  return <output>{pathname + search}</output>;
};
function line() {
  let closed = false;
  const ran: string[] = [];
  shown(
    <>
      <CommandLine
        open
        onOpenChange={(open) => {
          closed = !open;
        }}
        keys={[{ key: "c", does: "Cut the next run", run: () => ran.push("cut") }]}
      />
      <Here />
    </>,
    {
      "GET /api/today": { trials: [{ trial: { id: "t1", name: "Raft rope" } }] },
      "GET /api/shelf": { blades: [{ blade: blade({ note: "lent in May" }) }] },
      "GET /api/find": [{ kind: "lot", id: "l1", name: "hemp, lot 7", says: "12 m left" }],
    },
  );
  return { ran, closed: () => closed };
}
const ask = (text: string) =>
  userEvent.type(screen.getByLabelText("Search pages and actions"), text);
const here = () => screen.getByRole("status", { hidden: true }).textContent;

test("all words have to be there, in any order, and Enter goes to the first", async () => {
  const { closed } = line();
  await screen.findByText("Raft rope: verdict");
  await ask("verdict raft{Enter}");
  expect(here()).toBe("/trials/t1/verdict");
  expect(closed()).toBe(true);
});

test("a blade is found by its note, and arrows choose among what is found", async () => {
  line();
  await screen.findByText(/^Blade AV-01/);
  await ask("lent in may{Enter}");
  expect(here()).toBe("/blades/blade-0001");
  await ask("raft rope{ArrowDown}{Enter}");
  expect(here()).toBe("/trials/t1/verdict");
});

test("what only the server knows is found by two letters, and what this page offers runs", async () => {
  const { ran } = line();
  await ask("hemp");
  expect(await screen.findByText(/hemp, lot 7: 12 m left/)).toBeTruthy();
  await userEvent.clear(screen.getByLabelText("Search pages and actions"));
  await ask("next run{Enter}");
  expect(ran).toEqual(["cut"]);
});

test("nothing found is said, and Enter does nothing", async () => {
  const { closed } = line();
  await ask("zzz{ArrowDown}{Enter}");
  expect(screen.getByText("No matches.")).toBeTruthy();
  expect(closed()).toBe(false);
});
