// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import { refusal, shown } from "../testing/page";
import { quantity } from "../testing/records";
import { MeasureForm } from "./MeasureForm";

const PATH = /^\/api\/blades\/blade-0001\/measurements\//;

const measuring = (part: Parameters<typeof quantity>[0] = {}, onDone = vi.fn()) => ({
  ...shown(
    <MeasureForm
      bladeId="blade-0001"
      edgeId="edge-0003"
      quantity={quantity(part)}
      onDone={onDone}
    />,
  ),
  onDone,
});

describe("a measurement", () => {
  afterEach(() => {
    cleanup();
    sessionStorage.clear();
  });

  it("goes out with its standing, and the form is done", async () => {
    const { sent, onDone } = measuring();
    await userEvent.type(screen.getByLabelText(/^thickness behind/), "0,36");
    await userEvent.click(screen.getByText("Save"));
    expect(sent[0]?.path).toMatch(PATH);
    expect(sent[0]?.body).toMatchObject({
      quantity: "thickness_behind_edge_mm",
      edge_id: "edge-0003",
      value: 0.36,
      standing: "measured_here",
    });
    expect(onDone).toHaveBeenCalled();
  });

  it("is asked about where it is unusual, and not refused for it", async () => {
    measuring();
    await userEvent.type(screen.getByLabelText(/^thickness behind/), "1.5");
    expect(screen.getByRole("status").textContent).toContain("Above 1.2 mm is rare");
  });

  it("is not sent while stations cannot be read", async () => {
    const { sent } = measuring();
    await userEvent.type(screen.getByLabelText(/^or at stations/), "16; 0.36 48");
    await userEvent.click(screen.getByText("Save"));
    expect(sent).toEqual([]);
    expect(screen.getByText(/write each as place: thickness/)).toBeTruthy();
  });

  it("takes stations, and single readings of hardness with their block", async () => {
    const first = measuring();
    await userEvent.type(screen.getByLabelText(/^or at stations/), "16: 0.36  48: 0.37");
    await userEvent.click(screen.getByText("Save"));
    expect(first.sent[0]?.body).toMatchObject({
      value: null,
      details: {
        stations: [
          { position_mm: 16, value_mm: 0.36 },
          { position_mm: 48, value_mm: 0.37 },
        ],
      },
    });
    cleanup();
    const hardness = { name: "hardness_hrc", label: "hardness", unit: "HRC", low: 20, high: 70 };
    const second = measuring(hardness);
    await userEvent.type(screen.getByLabelText(/^or single readings/), "57.1 57.6 57.5");
    await userEvent.type(screen.getByLabelText(/^Test block says/), "60");
    await userEvent.click(screen.getByText("Save"));
    expect(second.sent[0]?.body).toMatchObject({
      details: { readings: [57.1, 57.6, 57.5], block_nominal_hrc: 60 },
    });
  });

  it("keeps words as words", async () => {
    const { sent } = measuring({ name: "grip", label: "grip", unit: "", low: null, high: null });
    await userEvent.type(screen.getByLabelText("grip"), "oak slabs");
    await userEvent.click(screen.getByText("Save"));
    expect(sent[0]?.body).toMatchObject({ value: null, words: "oak slabs" });
  });

  it("says at its field what the server refuses, and keeps what was typed", async () => {
    const detail = "thickness behind the edge of 9 mm is out of range";
    shown(<MeasureForm bladeId="blade-0001" quantity={quantity()} onDone={() => undefined} />, {
      "PUT /api/blades/blade-0001/measurements/*": refusal("thickness_behind_edge_mm", detail),
    });
    const field = screen.getByLabelText<HTMLInputElement>(/^thickness behind/);
    await userEvent.type(field, "9");
    await userEvent.click(screen.getByText("Save"));
    expect((await screen.findByText(detail)).id).toBe(`${field.id}-error`);
    expect(field.value).toBe("9");
  });
});
