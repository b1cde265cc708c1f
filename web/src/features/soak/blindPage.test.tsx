// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import { refusal, shown } from "../../testing/page";
import { BlindPage } from "./BlindPage";
import { QuickLook } from "./QuickLook";
import type { Seen } from "./seen";

afterEach(() => {
  cleanup();
  localStorage.clear();
});

const place = (number: number, part: object = {}) => ({
  number,
  stage: "covered",
  is_done: false,
  has_picture: true,
  ...part,
});
const grades = [7, 10].map((grade) => ({
  grade,
  looks_like: `so much rust as at ${grade}`,
  above_percent: 0.1,
  up_to_percent: 0.5,
}));
const GRADES = { "GET /api/soak-grades": grades };
const grade = (n: number) =>
  userEvent.click(screen.getByRole("button", { name: new RegExp(`as at ${n}`) }));
async function begin(pass: object, more: object = {}) {
  const page = shown(<BlindPage />, { ...GRADES, "GET /api/soaks/*": pass, ...more });
  await userEvent.type(screen.getByLabelText(/^Inspected by/), "Rhea");
  await userEvent.click(screen.getByRole("button", { name: "Begin" }));
  return page;
}

describe("sides graded again without names", () => {
  it("come one by one, and the one that is seen is graded", async () => {
    const { sent } = await begin({
      places: [place(1, { is_done: true }), place(2), place(3)],
      agreements: [],
    });
    expect(await screen.findByAltText("Side number 2")).toBeTruthy();
    expect(screen.getByText(/^Number 2 of 3/)).toBeTruthy();
    await grade(7);
    expect(sent).toMatchObject([{ body: { grade: 7, seen_by: "Rhea" } }]);
    expect(sent[0]?.path).toMatch(/\/2$/);
  });

  it("end with what a grade by eye is worth", async () => {
    await begin({
      places: [place(1, { is_done: true })],
      agreements: ["Rhea: grades of one side lie 0.8 apart."],
    });
    expect(await screen.findByText("All 1 sides are graded.")).toBeTruthy();
    expect(screen.getByText("Rhea: grades of one side lie 0.8 apart.")).toBeTruthy();
  });

  it("that are refused stay where they are", async () => {
    await begin(
      { places: [place(1)], agreements: [] },
      { "PUT /api/soaks/*": refusal("grade", "this side left the soak") },
    );
    await screen.findByAltText("Side number 1");
    await grade(7);
    expect(await screen.findByText("this side left the soak")).toBeTruthy();
  });
});

describe("a look without a camera", () => {
  const kept: object[] = [];
  const look = (isPaste = false) =>
    shown(
      <QuickLook
        isPaste={isPaste}
        seen={{ discolouration: "none" } as unknown as Seen}
        refused={null}
        busy={false}
        onSeen={() => undefined}
        onUnread={() => undefined}
        onKeep={(more) => kept.push(more)}
      />,
      GRADES,
    );

  it("takes spots by number, size and side, and asks for what is missing", async () => {
    look();
    await userEvent.click(screen.getByRole("button", { name: "Save spots" }));
    expect(kept).toEqual([]);
    expect(screen.getByText("say how many")).toBeTruthy();
    await userEvent.type(screen.getByLabelText("Number"), "12");
    await userEvent.click(screen.getByRole("button", { name: "Save spots" }));
    expect(kept).toEqual([{ spots: { count: 12, size_mm: 1, side_cm2: 22 }, pits: 12 }]);
  });

  it("under a paste is a shade and no rust", () => {
    look(true);
    expect(screen.getByText("A separate scale: it does not measure rust.")).toBeTruthy();
    expect(screen.queryByLabelText("Number")).toBeNull();
  });
});
