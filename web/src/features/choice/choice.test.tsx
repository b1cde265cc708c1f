// @vitest-environment jsdom

import { cleanup, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test } from "vitest";
import type { Schemas } from "../../api/client";
import { shown } from "../../testing/page";
import { Choose } from "./Choose";
import { laneScale } from "./lanes";

afterEach(cleanup);

const figure = (axis: "edge" | "price" | "rust", value: number, says: string) => ({
  axis,
  value,
  low: value,
  high: value,
  says,
  rests_on: "",
});

const chosen = (
  name: string,
  figures: Schemas["ChosenOut"]["figures"],
  rest: Partial<Schemas["ChosenOut"]> = {},
): Schemas["ChosenOut"] => ({
  id: name,
  name,
  mark: 0,
  grade: "1.4116",
  figures,
  is_placed: true,
  is_within_doubt: false,
  is_beaten: false,
  says: "",
  ...rest,
});

const axis = (key: "edge" | "price" | "rust", label: string, more: boolean, known = 2) => ({
  key,
  label,
  more_is_better: more,
  known_of: known,
});
const EDGE = axis("edge", "edge life", true);
const PRICE = axis("price", "price", false);
const RUST = axis("rust", "rust", false, 0);

const ANSWER: Schemas["ChoiceOut"] = {
  headline: "A blade for every day: B; A may do as well.",
  bargain: "B beside A: edge life 50 % more; it costs 20 % more.",
  flips: ["A comes first once price weighs more than 7.4."],
  candidates: [
    chosen("B", [figure("edge", 1.5, "1.5 ×"), figure("price", 360, "360 kr")]),
    chosen("A", [figure("edge", 1, "1 ×"), figure("price", 300, "300 kr")]),
    chosen("C", [figure("edge", 2, "2 ×")], { is_placed: false, says: "price is not known" }),
  ],
  axes: [EDGE, RUST, PRICE],
  lives: [],
  soaks: [],
  no_lives: "",
  notes: ["Priced in another currency, and not compared: D."],
  trials_done: 3,
  trials: 5,
};

const page = () =>
  shown(<Choose />, { "GET /api/uses": [], "POST /api/choice": ANSWER, "GET /api/upkeep": [] });

test("the better figures lie on the right, whichever way the axis runs", () => {
  const edge = laneScale(EDGE, ANSWER.candidates, 120);
  const price = laneScale(PRICE, ANSWER.candidates, 120);
  expect(edge(2)).toBeGreaterThan(edge(1));
  expect(price(300)).toBeGreaterThan(price(360));
  const alone = laneScale(PRICE, [chosen("E", [figure("price", 100, "100 kr")])], 120);
  expect(Number.isFinite(alone(100))).toBe(true);
});

test("a blade with a gap stands apart, with what is missing, and nothing is filled in", async () => {
  page();
  await screen.findByText("Not placed: something that is weighed is not known");
  const row = screen.getByText("C").closest("tr") as HTMLElement;
  expect(within(row).getByText("not known")).toBeTruthy();
  expect(within(row).getByText("price is not known")).toBeTruthy();
  screen.getByText("Priced in another currency, and not compared: D.");
  screen.getByText(/3 of 5 trials are worked out/);
});

test("an arrow moves a weight, and what is not known of any blade cannot be weighed", async () => {
  const { sent } = page();
  const price = await screen.findByRole("slider", { name: /^price/ });
  price.focus();
  await userEvent.keyboard("{ArrowRight}");
  const asked = () => sent.filter((each) => each.path === "/api/choice").at(-1)?.body;
  await expect.poll(asked).toMatchObject({ weights: { edge: 5, price: 3.5 } });
  expect(screen.getByRole("slider", { name: /^rust/ }).hasAttribute("data-disabled")).toBe(true);
});
