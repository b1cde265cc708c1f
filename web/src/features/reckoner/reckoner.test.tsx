// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import { refusal, shown } from "../../testing/page";
import { blade, edge } from "../../testing/records";
import { Bevels } from "./Bevels";
import { Brine, BrineChange } from "./Brine";
import { Length } from "./Small";

afterEach(() => {
  cleanup();
  sessionStorage.clear();
});

const retype = async (label: RegExp, text: string) => {
  await userEvent.clear(screen.getByLabelText(label));
  await userEvent.type(screen.getByLabelText(label), text);
};

const whole = { face_width_mm: 0.684, side_angle_deg: 17, thickness_mm: 0.4, height_mm: 0.654 };
const bevel = {
  whole,
  main: whole,
  micro: null,
  included_deg: 34,
  cutting_included_deg: 34,
  thickness_thou: 15.748,
  remarks: ["a wide bevel for this angle"],
  footing: { formula: "w = t / (2 sin a)", holds: "flat bevels", source: "geometry" },
};

describe("a bevel", () => {
  it("is answered with its formula and what is odd about it", async () => {
    shown(<Bevels />, { "GET /api/reckoner/bevel": bevel });
    expect(await screen.findByText("0.684 mm wide")).toBeTruthy();
    expect(screen.getByText(/34.0° included, 0.654 mm high, 0.400 mm is 15.7 thou/)).toBeTruthy();
    expect(screen.getByText("w = t / (2 sin a)")).toBeTruthy();
    expect(screen.getByRole("status").textContent).toBe("a wide bevel for this angle");
  });

  it("says at the field what is no number, and gives no answer meanwhile", async () => {
    shown(<Bevels />, { "GET /api/reckoner/bevel": bevel });
    await screen.findByText("0.684 mm wide");
    await retype(/^Angle per side/, "steep");
    expect(screen.getByText("“steep” is not a number")).toBeTruthy();
    expect(screen.queryByText("0.684 mm wide")).toBeNull();
  });

  it("says at the field what cannot be", async () => {
    const refused = refusal("side_angle_deg", "an angle per side of 95° is out of range");
    shown(<Bevels />, { "GET /api/reckoner/bevel": refused });
    await retype(/^Angle per side/, "95");
    const alert = await screen.findByText("an angle per side of 95° is out of range");
    expect(alert).toBeTruthy();
    expect(screen.getByLabelText(/^Angle per side/).getAttribute("aria-invalid")).toBe("true");
  });

  it("is saved as measured on the newest edge of a blade", async () => {
    const onShelf = blade({ edges: [edge({ id: "edge-0002" }), edge()] });
    const { sent } = shown(<Bevels />, {
      "GET /api/reckoner/bevel": bevel,
      "GET /api/shelf": { blades: [{ blade: onShelf }], recipes: [] },
    });
    await userEvent.click(await screen.findByLabelText("Save it on the newest edge of"));
    await userEvent.click(screen.getByRole("option", { name: "AV-01, edge 3" }));
    await userEvent.click(screen.getByRole("button", { name: "Save thickness and angle" }));
    expect((await screen.findByText("Saved on AV-01")).getAttribute("href")).toBe(
      "/blades/blade-0001",
    );
    expect(sent.map(({ body }) => body)).toMatchObject([
      { edge_id: "edge-0003", quantity: "thickness_behind_edge_mm", value: 0.4 },
      { edge_id: "edge-0003", quantity: "side_angle_deg", value: 17 },
    ]);
  });
});

describe("two figures that say the same", () => {
  it("take turns: what was typed last is the question", async () => {
    shown(<Length />, { "GET /api/reckoner/length": { thou: 15.74803, mm: 0.4 } });
    const shows = (label: string) =>
      (screen.getByLabelText(new RegExp(`^${label}`)) as HTMLInputElement).value;
    await screen.findByDisplayValue("0.4");
    expect(shows("Thousandths")).toBe("15");
    await retype(/^Millimetres/, "0.40");
    expect(shows("Millimetres")).toBe("0.40");
    expect(await screen.findByDisplayValue("15.75")).toBeTruthy();
  });
});

describe("a brine", () => {
  const found = { salt_g: 52.63, salt_percent: 5, g_per_l: 51.7, density_kg_per_l: 1.0343 };

  it("is told in every measure, whichever was given", async () => {
    shown(<Brine />, { "GET /api/reckoner/brine": found });
    expect(await screen.findByText("52.6 g")).toBeTruthy();
    expect(screen.getByText("1.0343 kg/L")).toBeTruthy();
    await userEvent.click(screen.getByRole("radio", { name: /kg\/L/ }));
    expect(screen.getByLabelText(/^Strength,/)).toHaveProperty("value", "1.034");
  });

  it("is corrected and topped up in sentences", async () => {
    shown(<BrineChange />, {
      "GET /api/reckoner/brine-change": { says: "stir in 40 g of salt" },
      "GET /api/reckoner/top-up": refusal("brine_g_now", "it weighs more than before"),
    });
    expect(await screen.findByText("stir in 40 g of salt")).toBeTruthy();
    expect(await screen.findByText("it weighs more than before")).toBeTruthy();
  });
});
