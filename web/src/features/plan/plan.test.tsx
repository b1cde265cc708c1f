// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { refusal, shown } from "../../testing/page";
import { Played } from "./Played";
import { Schedules } from "./Schedules";

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

const ahead = (code: string, life: number) => ({ code, expected: { life } });
const found = (part: object = {}) =>
  ({
    blades: [ahead("AV-01", 30), ahead("AV-02", 24.4)],
    codes: {},
    method: { count_unit: "cuts", checks: [{ kind: "force", scatter_percent: null }] },
    edge_spread_percent: 4.24,
    reading_scatter_percent: 7,
    shows_percent: 30,
    ...part,
  }) as unknown as Schemas["TrialPlanOut"];
const press = (name: string | RegExp) => userEvent.click(screen.getByRole("button", { name }));
const verdict = (number: number, outcome: string) => ({
  number,
  outcome,
  percent: 20,
  low: -4,
  high: 50,
});
const played = {
  id: "play-1",
  trials: 100,
  says: ["Of 100 trials 62 told AV-01 from AV-02 rightly."],
  pairs: [
    {
      a: "AV-02",
      b: "AV-01",
      percent: 23,
      right: 62,
      wrong: 1,
      silent: 37,
      expected: 60,
      verdicts: [verdict(1, "silent"), verdict(2, "right")],
    },
  ],
};

describe("a plan that is played", () => {
  it("starts from what the plan expects, and takes what is stated", async () => {
    const { sent } = shown(<Played found={found()} trialId="t1" />, {
      "POST /api/trials/*": played,
    });
    expect(screen.getByLabelText(/^Life of AV-02/)).toHaveProperty("value", "24");
    expect(screen.getByText("usual; a gauge study tells yours")).toBeTruthy();
    await press("Play 100 trials");
    expect(await screen.findByText(/^Of 100 trials 62/)).toBeTruthy();
    expect(sent[0]?.body).toMatchObject({
      lives: { "AV-01": 30, "AV-02": 24 },
      edge_spread_percent: 4.2,
      trials: 100,
    });
    const cells = screen.getAllByRole("cell").map((cell) => cell.textContent);
    expect(cells).toEqual(["AV-01 / AV-02", "+23 %", "62", "1", "37", "60"]);
  });

  it("says at a life what cannot be", async () => {
    shown(<Played found={found()} trialId="t1" />, {
      "POST /api/trials/*": refusal("lives.AV-02", "a life of 0 is out of range"),
    });
    await press("Play 100 trials");
    expect(await screen.findByText("a life of 0 is out of range")).toBeTruthy();
    expect(screen.getByLabelText(/^Life of AV-02/).getAttribute("aria-invalid")).toBe("true");
  });

  it("is not offered for one blade, nor where no ratio can be shown", () => {
    const { container } = shown(<Played found={found({ shows_percent: null })} trialId="t1" />);
    expect(container.textContent).toBe("");
  });
});

describe("ways of checking", () => {
  const schedule = (name: string, kind: string, chosen = false) => ({
    name,
    chosen,
    method: { schedule: kind, every: 2, ends: [] },
    expected: { life: 24, readings: 13.6, cuts: 30, low: 21.2, high: 27.1 },
  });

  it("are compared on one life, and one press takes another", async () => {
    const { sent } = shown(
      <Schedules
        schedules={
          [
            schedule("when Kessik says", "adaptive", true),
            schedule("every 2 cuts", "every"),
          ] as unknown as Schemas["ScheduleAheadOut"][]
        }
        method={
          {
            count_unit: "cuts",
            checks: [],
            ends: [],
          } as unknown as Schemas["MethodOut"]
        }
        trialId="t1"
      />,
    );
    expect(screen.getByText("For a blade that lasts about 24 cuts")).toBeTruthy();
    expect(screen.queryByRole("button", { name: "when Kessik says" })).toBeNull();
    await press("every 2 cuts");
    expect(sent).toMatchObject([
      { path: "/api/trials/t1/method", body: { method: { schedule: "every", every: 2 } } },
    ]);
  });
});
