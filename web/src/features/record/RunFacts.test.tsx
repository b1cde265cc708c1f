// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { refusal, shown } from "../../testing/page";
import { run, trial } from "../../testing/records";
import { RunFacts } from "./RunFacts";

const record = { trial: trial(), edges: [] } as unknown as Schemas["TrialRecordOut"];
const PATH = "PATCH /api/runs/run-0001";

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

describe("what is said of a run", () => {
  it("is sent where it changed, with the reason", async () => {
    const { sent } = shown(<RunFacts run={run()} record={record} />);
    expect(screen.queryByLabelText("Why")).toBeNull();
    await userEvent.clear(screen.getByLabelText("Block"));
    await userEvent.type(screen.getByLabelText(/^Checked every/), "2,5");
    await userEvent.type(screen.getByLabelText("Why"), "noted on the sheet");
    await userEvent.click(screen.getByText("Save change"));
    expect(sent[0]?.body).toEqual({
      block: null,
      check_every: 2.5,
      reason: "noted on the sheet",
      trace_id: expect.any(String),
    });
  });

  it("is not sent while a number is none, and nothing typed is lost", async () => {
    const { sent } = shown(<RunFacts run={run()} record={record} />);
    await userEvent.type(screen.getByLabelText("Block"), "nd");
    await userEvent.type(screen.getByLabelText("Why"), "x");
    await userEvent.click(screen.getByText("Save change"));
    expect(sent).toEqual([]);
    expect(screen.getByText("“2nd” is not a number")).toBeTruthy();
  });

  it("says a missing reason at its field", async () => {
    const says = "say why it is changed";
    shown(<RunFacts run={run()} record={record} />, { [PATH]: refusal("reason", says) });
    await userEvent.type(screen.getByLabelText("Note"), "wet");
    await userEvent.click(screen.getByText("Save change"));
    expect(await screen.findByText(says)).toBeTruthy();
  });
});
