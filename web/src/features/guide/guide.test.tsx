// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { MemoryRouter, Route, Routes } from "react-router";
import { afterEach, expect, test, vi } from "vitest";
import { Guide } from "./Guide";

afterEach(cleanup);

function open(address: string) {
  vi.stubGlobal("scrollTo", () => Promise.resolve()); // as newer browsers do
  render(
    <MemoryRouter initialEntries={[address]}>
      <Routes>
        <Route path="/guide/:slug?" element={<Guide />} />
        <Route path="/" element={<p>Today</p>} />
      </Routes>
    </MemoryRouter>,
  );
}

test("a page leads on inside Kessik, without loading it anew", async () => {
  open("/guide");
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe(
    "From two knives to an answer",
  );
  expect(screen.getByAltText("The verdict of the demo trial").getAttribute("src")).toMatch(
    /verdict.*png/,
  );
  await userEvent.click(screen.getByRole("link", { name: "enter them" }));
  expect(screen.getByText("Today")).toBeTruthy();
});

test("a page that is not there says so and leads to the first", async () => {
  open("/guide/none");
  await userEvent.click(screen.getByRole("link", { name: "Begin at its first page." }));
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe(
    "From two knives to an answer",
  );
});
