// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import { refusal, shown } from "../testing/page";
import { RecipeForm } from "./RecipeForm";

const STEP = {
  abrasive: "water stone",
  kind: "",
  size_um: 11.5,
  grit: "JIS 1000",
  side_angle_deg: 15,
  strokes_per_side: 30,
  pressure: "light",
  note: "kept",
  repeats: 1,
};
const recipe = { id: "recipe-0001", name: "Bench set", note: "", steps: [STEP, STEP] };
const form = () => <RecipeForm recipe={recipe} onDone={() => undefined} />;

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

describe("the steps of a recipe", () => {
  it("go out as they came, but for what was typed; an empty number is none", async () => {
    const { sent } = shown(form());
    await userEvent.clear(screen.getByLabelText("step 2, µm"));
    await userEvent.clear(screen.getByLabelText("step 2, times"));
    await userEvent.type(screen.getByLabelText("step 2, times"), "3");
    await userEvent.click(screen.getByText("Save recipe"));
    expect(sent[0]?.body).toEqual({
      ...recipe,
      steps: [STEP, { ...STEP, size_um: null, repeats: 3 }],
    });
  });

  it("are not sent while a number in them is none, and are there after a reload", async () => {
    const { sent } = shown(form());
    await userEvent.type(screen.getByLabelText("step 1, strokes a side"), " or so");
    await userEvent.click(screen.getByText("Save recipe"));
    expect(sent).toEqual([]);
    expect(screen.getByRole("alert").textContent).toBe("“30 or so” is not a number");
    cleanup();
    shown(form());
    const typed = screen.getByLabelText("step 1, strokes a side") as HTMLInputElement;
    expect(typed.value).toBe("30 or so");
  });

  it("show a refusal at the field it is about, once", async () => {
    const says = "step 2: -5 strokes is out of range: give 0 or more";
    shown(form(), { "PUT /api/recipes/*": refusal("steps.1.strokes_per_side", says) });
    await userEvent.click(screen.getByText("Save recipe"));
    expect((await screen.findAllByText(says)).length).toBe(1);
    expect(screen.getByLabelText("step 2, strokes a side").ariaInvalid).toBe("true");
  });
});
