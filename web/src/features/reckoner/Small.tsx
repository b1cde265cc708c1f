import { useState } from "react";
import { api, type Schemas } from "../../api/client";
import { labelOf, WORDS } from "../../domain/words";
import { Choice, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";
import { Answer, Calculation, useFigures, useReckoned } from "./reckon";

const number = (value: number | null | undefined): value is number => typeof value === "number";
const fourDigits = (value: number) => value.toPrecision(4).replace(/\.?0+$/, "");

/** Of two figures that say the same, the one typed last is the question. */
function usePair<A extends string, B extends string>(name: string, a: A, b: B, start: string) {
  const [from, setFrom] = useState<A | B>(a);
  const figures = useFigures<A | B>(name, { [a]: start, [b]: "" } as Record<A | B, string>);
  const pick = (key: A | B, other: number | undefined, error?: string | undefined) => ({
    ...figures.field(key, error),
    value: from === key ? figures.typed[key] : other === undefined ? "" : fourDigits(other),
    onChange: (e: { target: { value: string } }) => {
      setFrom(key);
      figures.setTyped({ ...figures.typed, [key]: e.target.value });
    },
  });
  const value = figures.read[from];
  return { from, value, pick };
}

export function Length() {
  const { from, value, pick } = usePair("length", "thou", "mm", "15");
  const query = { [from]: value } as { mm?: number; thou?: number };
  const { data, at } = useReckoned<Schemas["LengthOut"]>("length", query, number(value), () =>
    api.GET("/api/reckoner/length", { params: { query } }),
  );
  return (
    <Calculation place="length" title="thou and mm" footing={data?.footing}>
      <div className="grid grid-cols-2 gap-3">
        <Field
          label="Thousandths of an inch"
          unit="thou"
          {...pick("thou", data?.thou, at("thou"))}
        />
        <Field label="Millimetres" unit="mm" {...pick("mm", data?.mm, at("mm"))} />
      </div>
    </Calculation>
  );
}

export function Hardness() {
  const { from, value, pick } = usePair("hardness", "hrc", "hv", "60");
  const query = { [from]: value } as { hrc?: number; hv?: number };
  const { data, at } = useReckoned<Schemas["HardnessReckonedOut"]>(
    "hardness",
    query,
    number(value),
    () => api.GET("/api/reckoner/hardness", { params: { query } }),
  );
  return (
    <Calculation place="hardness" title="Hardness" footing={data?.footing}>
      <div className="grid grid-cols-2 gap-3">
        <Field label="Rockwell C" unit="HRC" {...pick("hrc", data?.hrc, at("hrc"))} />
        <Field label="Vickers" unit="HV" {...pick("hv", data?.hv, at("hv"))} />
      </div>
    </Calculation>
  );
}

export function Growth() {
  const { read, field } = useFigures("growth", { height: "0.5", grind: "2.2" });
  const ready = number(read.height) && number(read.grind);
  const query = { height_lost_mm: read.height ?? 0, primary_grind_side_deg: read.grind ?? 0 };
  const { data, at } = useReckoned<Schemas["NumberOut"]>("growth", query, ready, () =>
    api.GET("/api/reckoner/growth", { params: { query } }),
  );
  return (
    <Calculation
      place="growth"
      title="How thickness grows as the blade is ground back"
      footing={data?.footing}
    >
      <div className="grid grid-cols-2 gap-3">
        <Field label="Height ground off" unit="mm" {...field("height", at("steel_removed_mm"))} />
        <Field
          label="Primary grind, per side"
          unit="°"
          {...field("grind", at("primary_grind_side_deg"))}
        />
      </div>
      <Answer>{data ? `${data.value.toFixed(3)} mm thicker behind the edge` : "–"}</Answer>
    </Calculation>
  );
}

export function Convex() {
  const { read, field } = useFigures("convex", { thickness: "0.5", height: "1" });
  const ready = number(read.thickness) && number(read.height);
  const query = { thickness_mm: read.thickness ?? 0, height_mm: read.height ?? 0 };
  const { data, at } = useReckoned<Schemas["NumberOut"]>("convex", query, ready, () =>
    api.GET("/api/reckoner/convex", { params: { query } }),
  );
  return (
    <Calculation place="convex" title="Angle of a convex edge" footing={data?.footing}>
      <div className="grid grid-cols-2 gap-3">
        <Field label="Thickness there" unit="mm" {...field("thickness", at("thickness_mm"))} />
        <Field
          label="at this height above the apex"
          unit="mm"
          {...field("height", at("height_mm"))}
        />
      </div>
      <Answer>
        {data
          ? `${data.value.toFixed(1)}° per side, ${(2 * data.value).toFixed(1)}° included`
          : "–"}
      </Answer>
    </Calculation>
  );
}

export function Exposure() {
  const [medium, setMedium] = useState<"rope" | "board">("rope");
  const { read, field } = useFigures("exposure", {
    diameter: "32",
    strands: "1",
    cut: "300",
    board: "7",
    edge: "64",
    cuts: "18",
    reference: "80",
  });
  const rope = { diameter_mm: read.diameter, strands: read.strands };
  const board = { cut_length_mm: read.cut, board_mm: read.board };
  const figures = medium === "rope" ? rope : board;
  const scaling =
    number(read.cuts) && number(read.reference)
      ? { cuts: read.cuts, reference_mm: read.reference }
      : {};
  const ready = number(read.edge) && Object.values(figures).every(number);
  const query = { edge_length_mm: read.edge ?? 0, ...figures, ...scaling } as {
    edge_length_mm: number;
  };
  const { data, at, error } = useReckoned<Schemas["ExposureOut"]>("exposure", query, ready, () =>
    api.GET("/api/reckoner/exposure", { params: { query } }),
  );
  const placed = [
    "diameter_mm",
    "cut_length_mm",
    "thickness_mm",
    "edge_length_used_mm",
    "reference_length_mm",
  ];
  return (
    <Calculation
      place="exposure"
      title="Exposure of the edge"
      footing={data?.footing}
      error={error && !placed.some((name) => at(name)) ? error : null}
    >
      <div className="grid grid-cols-2 gap-3">
        <Choice
          label="Medium"
          value={medium}
          onPick={(picked) => setMedium(picked as typeof medium)}
        >
          <Options of={WORDS.reckonedMedia} />
        </Choice>
        <Field label="Edge in use" unit="mm" {...field("edge", at("edge_length_used_mm"))} />
        {medium === "rope" ? (
          <>
            <Field
              label="Diameter, of rope or strand"
              unit="mm"
              {...field("diameter", at("diameter_mm"))}
            />
            <Field
              label="Strands"
              hint="1 for the whole rope"
              {...field("strands", at("strands"))}
            />
          </>
        ) : (
          <>
            <Field label="Length of a cut" unit="mm" {...field("cut", at("cut_length_mm"))} />
            <Field label="Calipered thickness" unit="mm" {...field("board", at("thickness_mm"))} />
          </>
        )}
        <Field label="A count" unit="cuts" {...field("cuts")} />
        <Field
          label="on a reference edge of"
          unit="mm"
          {...field("reference", at("reference_length_mm"))}
        />
      </div>
      <Answer>{data ? `${data.exposure_mm2_per_mm.toFixed(2)} mm²/mm for each cut` : "–"}</Answer>
      {data ? (
        <p className="text-ink-2">
          {data.area_mm2.toFixed(1)} mm² severed by a cut
          {data.cuts_at_reference !== null &&
          number(read.cuts) &&
          number(read.edge) &&
          number(read.reference)
            ? `; ${read.cuts} cuts on ${read.edge} mm are worth ` +
              `${fourDigits(data.cuts_at_reference)} on ${read.reference} mm`
            : ""}
          .
        </p>
      ) : null}
    </Calculation>
  );
}

const SCALES = [...WORDS.gritScales, ["um", "µm"]] as const;

export function Abrasive() {
  const [scale, setScale] = useState<(typeof SCALES)[number][0]>("fepa_p");
  const { read, field } = useFigures("abrasive", { grit: "1000" });
  const ready = number(read.grit);
  const query = scale === "um" ? { size_um: read.grit ?? 0 } : { scale, grit: read.grit ?? 0 };
  const { data, at, error } = useReckoned<Schemas["AbrasiveReckonedOut"]>(
    "abrasive",
    query,
    ready,
    () => api.GET("/api/reckoner/abrasive", { params: { query } }),
  );
  return (
    <Calculation
      place="abrasive"
      title="Abrasive sizes"
      footing={data?.footing}
      error={error && !at("grit") && !at("size_um") ? error : null}
    >
      <div className="grid grid-cols-2 gap-3">
        <Choice label="Scale" value={scale} onPick={(picked) => setScale(picked as typeof scale)}>
          <Options of={SCALES} />
        </Choice>
        <Field
          label={scale === "um" ? "Grain size" : "Grit"}
          {...field("grit", at("grit") ?? at("size_um"))}
        />
      </div>
      <Answer>{data ? `${fourDigits(data.size_um)} µm` : "–"}</Answer>
      {data ? (
        <table className="mt-1 w-full border-collapse">
          <tbody>
            {data.grits.map((g) => (
              <tr key={g.scale} className="border-b border-line">
                <th scope="row" className="py-1 text-left">
                  {g.name}
                </th>
                <td>{fourDigits(g.size_um)} µm</td>
                <td className="text-note text-ink-2">
                  {g.what}, {labelOf("standings", g.standing)}
                  {g.listed ? "" : `, ${g.source}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </Calculation>
  );
}
