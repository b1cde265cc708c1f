// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import { refusal, shown } from "../../testing/page";
import { ShotForm } from "./ShotForm";

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

function form(answers: Record<string, unknown> = {}) {
  let done = 0;
  const view = shown(
    <ShotForm bladeId="blade-1" claim="1.2436" number={4} onDone={() => (done += 1)} />,
    answers,
  );
  return { ...view, done: () => done };
}
const lines = (text: string) => {
  screen.getByLabelText(/^Elements, one a line/).focus();
  return userEvent.paste(text);
};
const save = () => userEvent.click(screen.getByRole("button", { name: "Save shot" }));

describe("a shot that is typed", () => {
  it("goes out element by element, what was not detected as its limit", async () => {
    const { sent, done } = form();
    await lines("Cr 12,10 0,08\nV <0.02");
    await save();
    expect(sent[0]?.body).toMatchObject({
      name: "4",
      readings: [
        { element: "Cr", percent: 12.1, plus_minus_percent: 0.08, detected: true },
        { element: "V", percent: 0.02, detected: false },
      ],
    });
    expect(done()).toBe(1);
  });

  it("is not sent while a line cannot be read", async () => {
    const { sent } = form();
    await lines("Cr 12.1\nmuch");
    await save();
    expect(sent).toEqual([]);
    expect(screen.getByRole("alert").textContent).toMatch(/line 2/);
  });

  it("is refused at the line as it was typed", async () => {
    const { done } = form({
      "PUT /api/blades/*": refusal("readings.1.percent", "over 100 % in all"),
    });
    await lines("Cr 12.1\n\nV 99");
    await save();
    expect(await screen.findByText("line 3: over 100 % in all")).toBeTruthy();
    expect(done()).toBe(0);
  });
});
