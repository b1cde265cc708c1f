// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { Route, Routes } from "react-router";
import { afterEach, describe, expect, it } from "vitest";
import { shown } from "../../testing/page";
import { AnswerField } from "./AnswerField";
import { CountFace } from "./CountFace";
import { Session } from "./Session";
import { Trainers } from "./Trainers";

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

const round = {
  kind: "unfair" as const,
  number: 1,
  of: 10,
  asks: "Which variable makes this line-up unfair?",
  options: [
    { key: "1", says: "hardness" },
    { key: "0", says: "none: it is fair" },
  ],
  taps: [],
  readings: [],
  limit_gf: null,
  has_picture: false,
  blades: [],
  heads: ["blade", "A", "B"],
  rows: [["hardness, HRC (±1 HRC)", "60", "63"]],
};
const record = {
  trainers: [{ kind: "unfair", name: "Spot the unfair pair", teaches: "Find it.", sessions: [] }],
  eye: "0 pictures graded.",
  by_grade: [],
  can_agree: false,
  has_agreed: false,
  agreed: "Soaks reckon with the usual error of a rating.",
};
const server = {
  "GET /api/trainers": record,
  "GET /api/trainers/unfair/rounds/*": round,
  "POST /api/trainers/unfair/rounds/*": { is_right: true, says: "B differs.", later: [] },
  "PUT /api/trainings/*": { id: "x", made_utc: "", right: 10, of: 10, says: "10 of 10 right" },
};
const session = (
  <Routes>
    <Route path="*" element={<Session />} />
  </Routes>
);

describe("an answer", () => {
  it("is one key where a round has options, and nothing else is sent", () => {
    const said: string[] = [];
    shown(
      <AnswerField
        round={round}
        error={undefined}
        isJudging={false}
        onAnswer={(answer) => said.push(answer)}
      />,
    );
    const input = screen.getByLabelText(round.asks);
    expect(document.activeElement).toBe(input);
    fireEvent.change(input, { target: { value: "7" } });
    fireEvent.change(input, { target: { value: "1" } });
    expect(said).toEqual(["1"]);
  });

  it("is a number and Enter where there are none", () => {
    const said: string[] = [];
    const open = { ...round, options: [] };
    shown(
      <AnswerField
        round={open}
        error="give a number"
        isJudging={false}
        onAnswer={(answer) => said.push(answer)}
      />,
    );
    const input = screen.getByLabelText(round.asks);
    fireEvent.change(input, { target: { value: "12" } });
    expect(said).toEqual([]);
    fireEvent.submit(input);
    expect(said).toEqual(["12"]);
    expect(screen.getByText(/Give a number|give a number/)).toBeTruthy();
  });
});

describe("a session", () => {
  it("tells the truth after each round, and is saved once the ten are answered", async () => {
    const { sent } = shown(session, { ...server, "GET /api/trainers": countAsUnfair() });
    for (let n = 1; n <= 10; n++) {
      fireEvent.click(await screen.findByRole("button", { name: /none: it is fair/ }));
      await screen.findByText("B differs.");
      if (n < 10) fireEvent.click(screen.getByRole("button", { name: "Next round" }));
    }
    await waitFor(() => {
      fireEvent.click(screen.getByRole("button", { name: "See the score" }));
      screen.getByText("10 of 10 right.");
    });
    const saved = sent.find((each) => each.method === "PUT")?.body as { answers: string[] };
    expect(saved.answers).toEqual(Array(10).fill("0"));
    expect(sessionStorage.length).toBe(0);
  });
});

/** Without a path the page takes the first trainer, count: the server knows it by that name here. */
const countAsUnfair = () => ({
  ...record,
  trainers: record.trainers.map((trainer) => ({ ...trainer, kind: "count" })),
});
Object.assign(server, {
  "GET /api/trainers/count/rounds/*": round,
  "POST /api/trainers/count/rounds/*": { is_right: true, says: "B differs.", later: [] },
});

describe("counting", () => {
  it("shows cuts and what interrupts them, and asks once the last is over", async () => {
    const taps = [
      { at_ms: 30, kind: "cut" as const, words: "" },
      { at_ms: 60, kind: "interruption" as const, words: "The kettle has boiled." },
      { at_ms: 500, kind: "spoiled" as const, words: "" },
    ];
    shown(
      <CountFace taps={taps}>
        <p>How many?</p>
      </CountFace>,
    );
    await screen.findByText("cut");
    expect(screen.queryByText("How many?")).toBeNull();
    await screen.findByText("The kettle has boiled.");
    await screen.findByText("spoiled");
    await screen.findByText("How many?", undefined, { timeout: 4000 });
  });
});

describe("the trainers", () => {
  it("offer the rater's error once it is learned, and take it back", async () => {
    const { sent } = shown(<Trainers />, {
      "GET /api/trainers": { ...record, can_agree: true },
      "PUT /api/rater-error": record,
    });
    fireEvent.click(await screen.findByRole("button", { name: "Use my error in soaks" }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.body).toEqual({ agrees: true });
  });
});
