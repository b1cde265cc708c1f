// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import { refusal, shown } from "../../testing/page";
import { Pairs } from "./Pairs";
import { UnderForce } from "./UnderForce";

afterEach(cleanup);

type Found = Parameters<typeof Pairs>[0]["found"];
const pair = {
  a: "AV-01",
  b: "AV-02",
  order: ["AV-02", "AV-01"],
  size: "34 %",
  interval: "6 to 69 %",
  verdict: "confounded",
  tag: "not comparable",
  reason_numbers: [1],
  words: "AV-02 outlasts AV-01 by 34 %.",
  scope: "these edges",
  edges_to_settle: 0,
};
const pairs = (part: object = {}) =>
  shown(
    <Pairs
      found={
        {
          stage: "dull",
          comparisons: [{ ...pair, ...part }],
          shared_reasons: ["one day"],
          reasons: ["the angle differs by 2°"],
        } as unknown as Found
      }
      blades={[]}
      highlighted={null}
      onHighlight={() => undefined}
    />,
  );
const told = () => screen.queryByText(/Holds for these edges/)?.textContent;

describe("a pair", () => {
  it("has its reason under the table, and its sentence on demand", async () => {
    pairs();
    expect(screen.getByText("For every pair: one day.")).toBeTruthy();
    expect(screen.getByText(/The angle differs by 2°\./)).toBeTruthy();
    expect(told()).toBeUndefined();
    await userEvent.click(screen.getByRole("button", { name: "more" }));
    expect(told()).toBe("AV-02 outlasts AV-01 by 34 %. Holds for these edges.");
    await userEvent.click(screen.getByRole("button", { name: "less" }));
    expect(told()).toBeUndefined();
  });

  it.each([
    [1, "About 1 more edge a blade would decide it."],
    [6, "About 6 more edges a blade would decide it."],
    [100, "About 100 or more edges a blade would decide it."],
  ])("that %i edges would settle says so", async (edges_to_settle, words) => {
    pairs({ edges_to_settle });
    await userEvent.click(screen.getByRole("button", { name: "more" }));
    expect(told()?.endsWith(words)).toBe(true);
  });
});

describe("lives at another limit", () => {
  const ask = async (force: string) => {
    await userEvent.type(screen.getByLabelText(/^Force/), force);
    await userEvent.click(screen.getByRole("button", { name: "Show lives" }));
  };

  it("are told blade by blade", async () => {
    shown(<UnderForce trialId="trial-1" />, {
      "GET /api/trials/*": { headline: "Under 350 gf:", lives: { "AV-01": "21 cuts, 17 to 26" } },
    });
    await ask("350");
    expect((await screen.findByRole("status")).textContent).toMatch(/AV-01.*21 cuts, 17 to 26/);
  });

  it("are not asked for beyond what a tester can read, and a refusal stands at the force", async () => {
    shown(<UnderForce trialId="trial-1" />, {
      "GET /api/trials/*": refusal("limit_gf", "no run has force readings"),
    });
    await ask("9000");
    expect(screen.getByText("Give a force from 1 to 5000 gf")).toBeTruthy();
    await userEvent.clear(screen.getByLabelText(/^Force/));
    await ask("350");
    expect(await screen.findByText("no run has force readings")).toBeTruthy();
  });
});
