// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { refusal, shown } from "../../testing/page";
import { blade } from "../../testing/records";
import { AboutForm } from "./AboutForm";
import { Abrasives } from "./Abrasives";
import { GradeForm } from "./GradeForm";
import { NewInstrument } from "./NewInstrument";
import { NewLot } from "./NewLot";

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

const type = async (label: string | RegExp, text: string) => {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  if (text) await userEvent.type(field, text);
};
const press = (name: string) => userEvent.click(screen.getByRole("button", { name }));

describe("what is said of a blade", () => {
  it("goes out whole; an emptied number is none", async () => {
    const { sent } = shown(<AboutForm blade={blade()} onDone={() => undefined} />);
    await type(/^Austenitised at/, "");
    await type(/^Tempers/, "200 200 180");
    await type(/^Due back/, "2026-06-01");
    await press("Save");
    expect(sent).toMatchObject([
      {
        method: "PATCH",
        path: "/api/blades/blade-0001",
        body: {
          claimed_grade: "1.2436",
          loan_due: "2026-06-01",
          heat_treatment: { austenitising_c: null, quench: "oil", tempers_c: [200, 200, 180] },
        },
      },
    ]);
  });

  it("is not sent while a temper or a day cannot be read", async () => {
    const { sent } = shown(<AboutForm blade={blade()} onDone={() => undefined} />);
    await type(/^Tempers/, "200 warm");
    await type(/^Due back/, "next week");
    await press("Save");
    expect(sent).toEqual([]);
    expect(screen.getByText("write numbers with spaces between them")).toBeTruthy();
    expect(screen.getByText(/“next week” is not a day/)).toBeTruthy();
  });
});

describe("a lot", () => {
  const rope: Schemas["LotKindOut"] = {
    kind: "rope",
    label: "rope",
    units: ["m"],
    details: [
      { name: "fibre", label: "fibre", unit: null },
      { name: "diameter_mm", label: "diameter", unit: "mm" },
    ],
    takes_up_damp: true,
  };

  it("is entered with what is said of its kind", async () => {
    const { sent } = shown(<NewLot kinds={[rope]} />);
    await type("Name of the lot", "hemp, lot 8");
    await type(/^Bought, m/, "60");
    await type("fibre", "hemp");
    await type(/^diameter/, "32");
    await userEvent.click(screen.getByLabelText("damp"));
    await press("Add to shelf");
    expect(sent[0]?.body).toMatchObject({
      kind: "rope",
      name: "hemp, lot 8",
      unit: "m",
      bought_amount: 60,
      price: null,
      details: { fibre: "hemp", diameter_mm: 32 },
      state: { damp: true, humidity_percent: null },
    });
  });

  it("is not entered with a price that is none", async () => {
    const { sent } = shown(<NewLot kinds={[rope]} />);
    await type("Price of it all", "a lot");
    await press("Add to shelf");
    expect(sent).toEqual([]);
    expect(screen.getByText("“a lot” is not a number")).toBeTruthy();
  });
});

describe("a grade", () => {
  it("says at its line what cannot be in its ranges", async () => {
    const { sent } = shown(<GradeForm grade={undefined} onDone={() => undefined} />, {
      "PUT /api/grades/X1": refusal("ranges.1.low_percent", "a content of 120 % is out of range"),
    });
    await type(/^Grade, by/, "X1");
    await type(/^Ranges/, "C 0.9-1.1{enter}Cr 120-130");
    await press("Save");
    expect(sent[0]?.body).toMatchObject({
      usual_low_hrc: null,
      ranges: [{ element: "C" }, { element: "Cr" }],
    });
    expect(await screen.findByText("line 2: a content of 120 % is out of range")).toBeTruthy();
  });
});

describe("an instrument", () => {
  it("is connected only within the limits of its line", async () => {
    const { sent } = shown(<NewInstrument />);
    await type("Name", "Line tester");
    await type("Port", "/dev/ttyUSB0");
    await type(/^Speed/, "3");
    await press("Connect");
    expect(sent).toEqual([]);
    await type(/^Speed/, "19200");
    await press("Connect");
    expect(sent[0]?.body).toMatchObject({ name: "Line tester", baud: 19200, range_low: null });
  });
});

describe("an abrasive", () => {
  it("is added, and its form is empty for the next", async () => {
    const shelf = { abrasives: [], compounds: [] } as unknown as Schemas["ShelfOut"];
    const { sent } = shown(<Abrasives shelf={shelf} />);
    await type("Name", "Blue stone");
    await type(/^Grain size/, "14,5");
    await press("Add to shelf");
    expect(sent[0]?.body).toMatchObject({ name: "Blue stone", size_um: 14.5 });
    await vi.waitFor(() => expect(screen.getByLabelText<HTMLInputElement>("Name").value).toBe(""));
  });
});
