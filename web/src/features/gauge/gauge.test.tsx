// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test } from "vitest";
import { shown } from "../../testing/page";
import { Gauge } from "./Gauge";
import { namesIn, readingsOf } from "./study";

afterEach(() => {
  cleanup();
  localStorage.clear();
});

const turns = ["2", "1", "1", "2"].map((part, at) => ({
  part,
  operator: "Rhea",
  round: at < 2 ? 1 : 2,
}));
const answer = {
  sentences: ["Two readings of one part by one operator differ by up to 11 gf in 95 of 100."],
  notes: [],
  components: [{ name: "repeatability", sd: "4", interval: "2 to 9", percent: "3" }],
  means: [{ part: "2", operator: "Rhea", mean: 180 }],
  far_off: [],
};

test("a study is laid out, typed by Enter, and answered; what is typed survives a reload", async () => {
  const server = { "GET /api/gauge-order": turns, "POST /api/gauge-studies": answer };
  const first = shown(<Gauge />, server);
  await userEvent.click(screen.getByRole("button", { name: "Lay out the order of reading" }));
  const [one] = await screen.findAllByLabelText("Part 2, Rhea");
  await userEvent.type(one as HTMLElement, "180{Enter}150{Enter}dull");
  expect(await screen.findByText(answer.sentences[0] as string)).toBeTruthy();
  expect(screen.getByText("no number")).toBeTruthy();
  expect(first.sent.at(-1)?.body).toEqual({
    unit: "gf",
    readings: [
      { part: "2", operator: "Rhea", value: 180 },
      { part: "1", operator: "Rhea", value: 150 },
    ],
  });
  cleanup();
  shown(<Gauge />, server);
  expect((screen.getAllByLabelText("Part 2, Rhea")[0] as HTMLInputElement).value).toBe("180");
});

test("names are parted by commas, and only numbers are readings", () => {
  expect(namesIn(" Rhea,, Ada ")).toEqual(["Rhea", "Ada"]);
  const row = { part: "1", operator: "A" };
  expect(
    readingsOf([
      { ...row, typed: "" },
      { ...row, typed: "1,5" },
    ]),
  ).toEqual([{ ...row, value: 1.5 }]);
});
