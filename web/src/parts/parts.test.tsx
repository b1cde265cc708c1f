import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../api/client";
import { BevelSection } from "../charts/BevelSection";
import { labelOf } from "../domain/words";
import { factWords } from "./FactHistory";
import { StepList, stepWords } from "./StepList";

const step: Schemas["StepBody"] = {
  abrasive: "water stone",
  kind: "alumina",
  size_um: 11.5,
  grit: "JIS 1000",
  side_angle_deg: 15,
  strokes_per_side: 30,
  pressure: "light",
  note: "",
  repeats: 1,
};

describe("the steps of a regime", () => {
  it("read as a tester would say them", () => {
    expect(stepWords(step)).toBe("water stone, 11.5 µm (JIS 1000) at 15°, 30 strokes a side");
    expect(stepWords({ abrasive: "strop", repeats: 2 })).toBe("strop, 2 times");
    expect(renderToStaticMarkup(<StepList steps={[step, step]} />).match(/<li>/g)).toHaveLength(2);
  });
});

describe("facts in words", () => {
  const quantity = (name: string, low: number | null): Schemas["QuantityOut"] => ({
    name,
    label: name,
    of: "blade",
    unit: low === null ? "" : "HRC",
    low,
    high: low === null ? null : 70,
    usual_low: null,
    usual_high: null,
    decimals: 1,
    suggested: [],
    zero_is_none: false,
  });
  const measurement = { value: 58.04, words: "" } as Schemas["MeasurementOut"];

  it("carry their unit and honest digits, or say that they are not known", () => {
    expect(factWords(measurement, quantity("hardness_hrc", 20))).toBe("58.0 HRC");
    expect(factWords({ ...measurement, value: null, words: "flat" }, quantity("grind", null))).toBe(
      "flat",
    );
    expect(factWords(undefined, quantity("grind", null))).toBe("not known");
  });

  it("say how they are known", () => {
    expect(labelOf("standings", "claimed")).toBe("claimed by the maker");
    expect(labelOf("standings", null)).toBe("");
  });
});

describe("the cross-section", () => {
  const main = { thickness_mm: 0.4, side_angle_deg: 15, face_width_mm: 0.773, height_mm: 0.746 };
  const micro = { thickness_mm: 0.07, side_angle_deg: 20, face_width_mm: 0.1, height_mm: 0.094 };

  it("says what it shows, and what angle cuts", () => {
    const plain = renderToStaticMarkup(
      <BevelSection main={main} micro={null} thickness={0.4} width={460} />,
    );
    expect(plain).toContain("Cross-section: 0.40 mm behind the edge, 30.0° included");
    expect(plain).toContain("cuts at 30.0° included");
    const with20 = renderToStaticMarkup(
      <BevelSection main={main} micro={micro} thickness={0.4} width={460} />,
    );
    expect(with20).toContain("micro-bevel 40.0° included");
    expect(with20).toContain("cuts at 40.0° included");
  });

  it("is to scale: as wide to high as the wedge", () => {
    const drawn = renderToStaticMarkup(
      <BevelSection main={main} micro={null} thickness={0.4} width={460} />,
    );
    const points = [...(drawn.match(/d="M([^"]+)"/)?.[1] ?? "").matchAll(/([\d.]+),([\d.]+)/g)].map(
      (m) => [Number(m[1]), Number(m[2])],
    );
    const [, left, apex, right] = points as [number, number][];
    if (!left || !apex || !right) throw new Error("the outline has five points");
    expect((right[0] - left[0]) / (apex[1] - left[1])).toBeCloseTo(
      main.thickness_mm / main.height_mm,
      6,
    );
  });
});
