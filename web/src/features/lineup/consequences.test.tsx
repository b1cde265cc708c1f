// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { refusal, shown } from "../../testing/page";
import { blade, trial } from "../../testing/records";
import { Consequences } from "./Consequences";
import { ToleranceForm } from "./ToleranceForm";

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

const lineUp = (part: object = {}) =>
  ({
    trial: trial({ tolerances: {}, let_go: [] }),
    scope: "these blades",
    blades: [blade(), blade({ id: "blade-0002", code: "AV-02" })],
    mismatches: [],
    pending: [],
    variables: [],
    taken_as_equal: [],
    references: [],
    ...part,
  }) as unknown as Schemas["LineUpOut"];
const mismatch = {
  blade: "AV-02",
  variable: "side_angle_deg",
  says: "angle differs by 2°",
  ways_out: [
    { kind: "resharpen", says: "sharpen AV-02 again", change: null },
    { kind: "let_go", says: "accept it", change: { let_go: ["side_angle_deg"] } },
    { kind: "drop", says: "leave AV-02 out", change: null },
  ],
};
const press = (name: string) => userEvent.click(screen.getByRole("button", { name }));

describe("what a line-up says of its answer", () => {
  it("is fair as far as is known, where nothing stands against it", () => {
    shown(<Consequences lineUp={lineUp()} />);
    expect(screen.getByText("The comparison is fair as far as is known.")).toBeTruthy();
  });

  it("offers the ways out of a mismatch: a place to go, a change, one blade less", async () => {
    const { sent } = shown(<Consequences lineUp={lineUp({ mismatches: [mismatch] })} />);
    expect(screen.queryByText(/fair as far/)).toBeNull();
    expect(screen.getByRole("link", { name: "sharpen AV-02 again" }).getAttribute("href")).toBe(
      "/trials/trial-0001/prepare",
    );
    await press("accept it");
    await press("leave AV-02 out");
    expect(sent).toMatchObject([
      { method: "PATCH", body: { let_go: ["side_angle_deg"] } },
      { method: "DELETE", path: "/api/trials/trial-0001/blades/blade-0002" },
    ]);
  });

  it("names what is not known, and what nobody recorded", () => {
    const open = { pending: ["AV-02: hardness"], taken_as_equal: ["room temperature"] };
    shown(<Consequences lineUp={lineUp(open)} />);
    expect(screen.getByText("AV-02: hardness")).toBeTruthy();
    expect(screen.getByText(/so taken as equal: room temperature\./)).toBeTruthy();
  });

  it("takes back what was accepted or widened", async () => {
    const { sent } = shown(
      <Consequences
        lineUp={lineUp({
          trial: trial({ tolerances: { side_angle_deg: 3 } }),
          variables: [{ name: "side_angle_deg", label: "angle", held: false }],
        })}
      />,
    );
    expect(screen.getByText("Accepted as different: angle.")).toBeTruthy();
    await press("Hold all of them equal again");
    await press("Restore the usual tolerances");
    expect(sent.map(({ body }) => body)).toMatchObject([{ let_go: [] }, { tolerances: {} }]);
  });
});

describe("how closely a variable is held", () => {
  const angle = {
    name: "side_angle_deg",
    label: "angle",
    kind: "difference",
    unit: "°",
    tolerance: 0.5,
    tolerance_unit: "°",
    usual_tolerance: 0.5,
    effect_percent: null,
  } as unknown as Schemas["VariableOut"];
  const form = (variable = angle, answers = {}) =>
    shown(
      <ToleranceForm
        trial={trial({ tolerances: { hardness_hrc: 2 }, effects: {}, let_go: [] })}
        variable={variable}
        onDone={() => undefined}
      />,
      answers,
    );
  const within = async (text: string) => {
    await userEvent.clear(screen.getByLabelText(/^Held equal within/));
    await userEvent.type(screen.getByLabelText(/^Held equal within/), text);
    await press("Save");
  };

  it("is kept beside the others, and the usual one is none of the trial's own", async () => {
    const { sent } = form();
    await within("1,5");
    expect(sent[0]?.body).toMatchObject({
      tolerances: { hardness_hrc: 2, side_angle_deg: 1.5 },
    });
    await within("0.5");
    expect(sent[1]?.body).toMatchObject({ tolerances: { hardness_hrc: 2 } });
  });

  it("is refused at the field", async () => {
    form(angle, { "PATCH /api/trials/*": refusal("tolerances", "give 0 to 90") });
    await within("400");
    expect(await screen.findByText("give 0 to 90")).toBeTruthy();
  });

  it("has no number where things are alike or not", () => {
    form({ ...angle, kind: "alike" });
    expect(screen.queryByLabelText(/^Held equal within/)).toBeNull();
    expect(screen.getByRole("button", { name: "Accept it as different" })).toBeTruthy();
  });
});
