// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test } from "vitest";
import { shown } from "../../testing/page";
import { Ways } from "./Ways";

afterEach(() => {
  cleanup();
  localStorage.clear();
});

const way = {
  name: "Paper-stop rope series",
  school: "paper_stop_rope",
  soak: "",
  is_partly: false,
  shows: "Shows the count between the last clean slice and the first torn one.",
  cannot: "Does not show anything of the course before.",
  cost: "4 edges on each of 2 blades: about 7.0 h.",
  in_hours: "",
  missing: "Not in hand: paper of one kind.",
  cautions: ["Clamp the rope."],
};
const answer = { says: "1 way of testing can answer this; none with what is in hand.", stand: "" };

test("a way says what it shows, costs and lacks, and begins a trial of its school", async () => {
  shown(<Ways />, { "GET /api/ways-of-testing": { ...answer, ways: [way] } });
  expect(await screen.findByText("Not in hand: paper of one kind.")).toBeTruthy();
  expect(screen.getByRole("link", { name: "Begin a trial" }).getAttribute("href")).toBe(
    "/?new=trial&school=paper_stop_rope",
  );
  await userEvent.click(screen.getByLabelText("rope"));
  expect((screen.getByLabelText("rope") as HTMLInputElement).ariaChecked ?? "false").toBe("false");
});

test("an unreadable number is said at its field, and the last answer stays", async () => {
  shown(<Ways />, { "GET /api/ways-of-testing": { ...answer, ways: [way] } });
  await screen.findByText(answer.says);
  await userEvent.clear(screen.getByLabelText("Blades"));
  await userEvent.type(screen.getByLabelText("Blades"), "two");
  expect(await screen.findByRole("alert")).toBeTruthy();
  expect(screen.getByText(answer.says)).toBeTruthy();
});
