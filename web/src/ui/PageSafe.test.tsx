// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from "@testing-library/react";
import { Link, Route, Routes } from "react-router";
import { afterEach, expect, test, vi } from "vitest";
import { shown } from "../testing/page";
import { PageSafe } from "./PageSafe";

afterEach(cleanup);

function Broken(): never {
  throw new TypeError("Failed to fetch dynamically imported module: /assets/Plan.js");
}

test("a page that fails says so, and the next place is shown as ever", () => {
  vi.spyOn(console, "error").mockReturnValue();
  shown(
    <>
      <Link to="/shelf">Shelf</Link>
      <PageSafe>
        <Routes>
          <Route path="/" element={<Broken />} />
          <Route path="/shelf" element={<p>16 blades</p>} />
        </Routes>
      </PageSafe>
    </>,
  );
  expect(screen.getByRole("alert").textContent).toContain("This page did not arrive");
  fireEvent.click(screen.getByText("Shelf"));
  expect(screen.getByText("16 blades")).toBeTruthy();
});
