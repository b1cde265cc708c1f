// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { ChartFrame } from "./ChartFrame";

afterEach(cleanup);

const shown = () => screen.getByTestId("chart").textContent;

function draw() {
  render(
    <ChartFrame
      name="Courses"
      caption="Bands: 95 %."
      series={["AV-01", "AV-02", "AV-03"].map((name, mark) => ({ name, mark }))}
      whole={[0, 80]}
      numbers={{
        heads: ["blade", "gf"],
        rows: [
          ["AV-01", "150"],
          ["AV-02", "90"],
        ],
      }}
    >
      {({ hidden, span }) => <p data-testid="chart">{`${[...hidden]} | ${span}`}</p>}
    </ChartFrame>,
  );
}

test("a line is hidden, shown alone and brought back", () => {
  draw();
  const chip = screen.getByRole("button", { name: "AV-02" });
  fireEvent.click(chip);
  expect(shown()).toBe("AV-02 | 0,80");
  fireEvent.click(chip, { shiftKey: true });
  expect(shown()).toBe("AV-01,AV-03 | 0,80");
  fireEvent.click(chip, { shiftKey: true });
  expect(shown()).toBe(" | 0,80");
});

test("keys show a part nearer, move it and bring the whole back", () => {
  draw();
  const chart = screen.getByRole("figure", { name: "Courses" });
  fireEvent.keyDown(chart, { key: "+" });
  fireEvent.keyDown(chart, { key: "ArrowRight" });
  expect(shown()).toBe(" | 30,70");
  fireEvent.keyDown(chart, { key: "0" });
  expect(shown()).toBe(" | 0,80");
});

test("its numbers are a table that is sorted by its heads", () => {
  draw();
  fireEvent.click(screen.getByRole("button", { name: "Numbers" }));
  const cells = () => screen.getAllByRole("row").map((row) => row.textContent);
  expect(cells()).toEqual(["bladegf", "AV-01150", "AV-0290"]);
  fireEvent.click(screen.getByRole("button", { name: "gf" }));
  expect(cells()[1]).toBe("AV-0290");
  fireEvent.click(screen.getByRole("button", { name: /^gf/ }));
  expect(cells()[1]).toBe("AV-01150");
});
