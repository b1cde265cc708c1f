// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { refusal, shown } from "../../testing/page";
import { blade, edge, quantity, trial } from "../../testing/records";
import { Prepare } from "./Prepare";

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

const zones = [{ name: "heel", from_mm: 10, to_mm: 40, use: "cut" }];
const cutEdge = (n: number) =>
  edge({ id: `edge-${n}`, zones: zones as Schemas["EdgeOut"]["zones"] });
const blades = [1, 2, 3].map((n) =>
  blade({ id: `blade-${n}`, arm_id: `blade-${n}`, code: `AV-0${n}`, edges: [cutEdge(n)] }),
);
const recipe = { id: "recipe-1", name: "17°, 4 µm", steps: [], note: "" };

function page(usedUp: string[], answers: Record<string, unknown> = {}) {
  return shown(<Prepare />, {
    "GET /api/trials/*": {
      blades,
      runs: [],
      used_up: usedUp,
      trial: trial({ settled_rule: "the third edge on" }),
    },
    "GET /api/shelf": { recipes: [recipe], blades: [] },
    "GET /api/quantities": [quantity()],
    ...answers,
  });
}
const record = (blades: string) =>
  userEvent.click(screen.getByRole("button", { name: `Record the next edge of ${blades}` }));

describe("the next edges", () => {
  it("are made in one act, on the blades that are ticked, with the zones all had", async () => {
    const { sent } = page(["edge-1", "edge-2"]);
    expect(await screen.findByText("1 edge ready to cut; 2 blades still to sharpen.")).toBeTruthy();
    await userEvent.click(screen.getByRole("checkbox", { name: /AV-02/ }));
    await record("1 blade");
    expect(sent).toMatchObject([
      {
        method: "POST",
        body: { recipe_id: "recipe-1", edge_ids: { "blade-1": expect.any(String) }, zones },
      },
    ]);
  });

  it("keep their ids while they are refused: pressed again, they are the same edges", async () => {
    const { sent } = page(["edge-1", "edge-2", "edge-3"], {
      "POST /api/trials/*": refusal("edge_ids", "AV-02 left for another tester"),
    });
    await screen.findByText("No edge is ready to cut: 3 blades to sharpen.");
    await record("3 blades");
    expect(await screen.findByText("AV-02 left for another tester")).toBeTruthy();
    await record("3 blades");
    const [first, second] = sent.map(({ body }) => body);
    expect(second).toEqual(first);
  });

  it("are measured where they stand, saved as the field is left", async () => {
    const { sent } = page(["edge-2", "edge-3"]);
    await screen.findByText("1 edge ready to cut; 2 blades still to sharpen.");
    const field = screen.getByLabelText(/AV-01.*behind the edge/i);
    await userEvent.type(field, "16: 0.36 48: 0.37");
    await userEvent.tab();
    expect(sent[0]).toMatchObject({ method: "PUT", body: { edge_id: "edge-1" } });
  });
});
