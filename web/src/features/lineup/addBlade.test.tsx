// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { refusal, shown } from "../../testing/page";
import { blade, trial } from "../../testing/records";
import { AddBlade } from "./AddBlade";

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

const here = blade();
const other = blade({ id: "blade-0002", code: "AV-02", claimed_grade: null });
const archived = blade({ id: "blade-0003", code: "AV-03", archived_utc: "2026-05-04T08:00:00Z" });
const lineUp = {
  trial: trial({ settled_rule: "the third edge on" }),
  blades: [here],
  runs: [],
  used_up: [],
} as unknown as Schemas["LineUpOut"];

function form(answers: Record<string, unknown> = {}) {
  let done = 0;
  const view = shown(<AddBlade lineUp={lineUp} onDone={() => (done += 1)} />, {
    "GET /api/shelf": { blades: [here, other, archived].map((each) => ({ blade: each })) },
    ...answers,
  });
  return { ...view, done: () => done };
}
const type = (label: RegExp, text: string) => userEvent.type(screen.getByLabelText(label), text);
const add = () => userEvent.click(screen.getByRole("button", { name: "Add blade" }));

describe("a blade for the line-up", () => {
  it("comes off the shelf in one press, unless it is here or put away", async () => {
    const { sent } = form();
    await userEvent.click(await screen.findByRole("button", { name: /AV-02 steel not named/ }));
    expect(screen.queryByRole("button", { name: /AV-01|AV-03/ })).toBeNull();
    expect(sent).toMatchObject([
      { method: "PUT", path: "/api/trials/trial-0001/places/blade-0002" },
    ]);
  });

  it("is new with what is known of it, and no edge unless one is named", async () => {
    const { sent, done } = form();
    await type(/^Code/, "AV-09");
    await type(/^Hardness/, "60,5");
    await add();
    expect(sent[0]?.body).toMatchObject({
      code: "AV-09",
      claimed_grade: null,
      hardness_hrc: 60.5,
      edges: [],
    });
    expect(done()).toBe(1);
  });

  it("needs the number of the edge whose angle is given", async () => {
    const { sent } = form();
    await type(/^Code/, "AV-09");
    await type(/^Angle per side/, "17");
    await add();
    expect(screen.getByText("give the number of the edge, counted since new")).toBeTruthy();
    expect(sent).toEqual([]);
    await type(/^Edge in use/, "3");
    await add();
    expect(sent[0]?.body).toMatchObject({ edges: [{ number: 3, side_angle_deg: 17 }] });
  });

  it("that cannot be is refused at its field, and keeps what was typed", async () => {
    const { done } = form({ "PUT /api/trials/*": refusal("code", "AV-01 is in this trial") });
    await type(/^Code/, "AV-01");
    await add();
    expect(await screen.findByText("AV-01 is in this trial")).toBeTruthy();
    expect(screen.getByLabelText(/^Code/)).toHaveProperty("value", "AV-01");
    expect(done()).toBe(0);
  });
});
