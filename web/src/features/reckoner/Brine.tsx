import { api, type Schemas } from "../../api/client";
import { labelOf, WORDS, type WordOf } from "../../domain/words";
import { Field } from "../../ui/Field";
import { Toggles } from "../../ui/Toggles";
import { useDraft } from "../../ui/useDraft";
import { Calculation, useFigures, useReckoned } from "./reckon";

const number = (value: number | null | undefined): value is number => typeof value === "number";
type Measure = WordOf<"brineMeasures">;

/** What comes out, each with its name. */
function Parts({ parts }: { parts: ReadonlyArray<readonly [name: string, value: string]> }) {
  return (
    <dl className="mt-3 flex flex-wrap gap-x-8 gap-y-2" aria-live="polite">
      {parts.map(([name, value]) => (
        <div key={name}>
          <dt className="text-note text-ink-2">{name}</dt>
          <dd className="text-lead font-bold">{value}</dd>
        </div>
      ))}
    </dl>
  );
}

/** A brine from any measure of its strength, in every other, and the salt for so much water. */
export function Brine() {
  const [{ by: measure }, setMeasure] = useDraft<{ by: Measure }>("reckoner:brine-by", {
    by: "salt_percent",
  });
  const { read, field } = useFigures("brine", {
    salt_percent: "5",
    g_per_l: "50",
    density_kg_per_l: "1.034",
    conductivity_ms_per_cm: "48",
    water: "1000",
    temperature: "20",
  });
  const strength = read[measure];
  const ready = number(strength) && number(read.water) && number(read.temperature);
  const query = {
    water_g: read.water ?? 0,
    temperature_c: read.temperature ?? 20,
    [measure]: strength,
  };
  const { data, at } = useReckoned<Schemas["BrineOut"]>("brine", query, ready, () =>
    api.GET("/api/reckoner/brine", { params: { query } }),
  );
  return (
    <Calculation place="brine" title="Brine: how much salt" footing={data?.footing}>
      <Toggles
        says="Strength given in"
        value={measure}
        onPick={(by) => setMeasure({ by })}
        choices={WORDS.brineMeasures}
      />
      <div className="mt-3 grid grid-cols-3 gap-3">
        <Field
          label="Strength"
          unit={labelOf("brineMeasures", measure)}
          {...field(measure, at(measure))}
        />
        <Field label="Water" unit="g" {...field("water", at("water_g"))} />
        <Field label="Temperature" unit="°C" {...field("temperature", at("temperature_c"))} />
      </div>
      {data ? (
        <Parts
          parts={[
            ["salt to weigh in", `${data.salt_g.toFixed(1)} g`],
            ["by mass", `${data.salt_percent.toFixed(2)} %`],
            ["in a litre", `${data.g_per_l.toFixed(1)} g`],
            ["density", `${data.density_kg_per_l.toFixed(4)} kg/L`],
          ]}
        />
      ) : null}
    </Calculation>
  );
}

/** A measured brine made stronger or weaker, and what evaporated put back. */
export function BrineChange() {
  const { read, field } = useFigures("brine-change", {
    brine: "2000",
    has: "3.1",
    wants: "5",
    now: "1850",
  });
  const ready = number(read.brine) && number(read.has) && number(read.wants);
  const query = {
    brine_g: read.brine ?? 0,
    salt_percent: read.has ?? 0,
    wanted_percent: read.wants ?? 0,
  };
  const change = useReckoned<Schemas["BrineChangeOut"]>("brine-change", query, ready, () =>
    api.GET("/api/reckoner/brine-change", { params: { query } }),
  );
  const topped = number(read.brine) && number(read.now);
  const before = { brine_g_before: read.brine ?? 0, brine_g_now: read.now ?? 0 };
  const topUp = useReckoned<Schemas["BrineChangeOut"]>("top-up", before, topped, () =>
    api.GET("/api/reckoner/top-up", { params: { query: before } }),
  );
  return (
    <Calculation
      place="brine-change"
      title="Correct an existing brine"
      footing={change.data?.footing}
    >
      <div className="grid grid-cols-2 gap-3 bench:grid-cols-4">
        <Field
          label="Brine"
          unit="g"
          {...field("brine", change.at("brine_g") ?? topUp.at("brine_g_before"))}
        />
        <Field label="Has" unit="%" {...field("has", change.at("salt_percent"))} />
        <Field label="Is to have" unit="%" {...field("wants", change.at("wanted_percent"))} />
        <Field
          label="Weighs now"
          unit="g"
          {...field("now", topUp.at("brine_g_now") ?? topUp.at("water_g"))}
        />
      </div>
      <Parts
        parts={[
          ["to change its strength", change.data?.says ?? ""],
          ["for what evaporated", topUp.data?.says ?? ""],
        ]}
      />
    </Calculation>
  );
}

/** What a pH is called, and whether a cabinet is within the standard. */
export function Conditions() {
  const { read, field } = useFigures("conditions", {
    ph: "6.9",
    g_per_l: "50",
    temperature_c: "35",
    collected_ml_per_h: "1.5",
  });
  const ready = number(read.ph);
  const query = {
    ph: read.ph ?? 7,
    ...(number(read.g_per_l) ? { g_per_l: read.g_per_l } : {}),
    ...(number(read.temperature_c) ? { temperature_c: read.temperature_c } : {}),
    ...(number(read.collected_ml_per_h) ? { collected_ml_per_h: read.collected_ml_per_h } : {}),
  };
  const { data, at } = useReckoned<Schemas["ConditionsOut"]>("conditions", query, ready, () =>
    api.GET("/api/reckoner/conditions", { params: { query } }),
  );
  return (
    <Calculation place="conditions" title="pH, and a spray cabinet" footing={data?.footing}>
      <div className="grid grid-cols-2 gap-3 bench:grid-cols-4">
        <Field label="pH" {...field("ph", at("ph"))} />
        <Field label="Solution" unit="g/L" {...field("g_per_l", at("g_per_l"))} />
        <Field label="Cabinet" unit="°C" {...field("temperature_c", at("temperature_c"))} />
        <Field
          label="Collected"
          unit="mL/h"
          {...field("collected_ml_per_h", at("collected_ml_per_h"))}
        />
      </div>
      {data ? (
        <Parts
          parts={[
            ["this pH is", data.ph_says],
            ["outside of the standard", data.faults.join("; ") || "nothing"],
          ]}
        />
      ) : null}
    </Calculation>
  );
}

/** An area as grades. */
export function RustRatings() {
  const { read, field } = useFigures("ratings", { area: "1.4", low: "", high: "" });
  const ready = number(read.area);
  const query = {
    rust_percent: read.area ?? 0,
    ...(number(read.low) ? { low: read.low } : {}),
    ...(number(read.high) ? { high: read.high } : {}),
  };
  const { data, at } = useReckoned<Schemas["RatingsOut"]>("ratings", query, ready, () =>
    api.GET("/api/reckoner/ratings", { params: { query } }),
  );
  return (
    <Calculation place="ratings" title="Ratings of a rusted area" footing={data?.footing}>
      <div className="grid grid-cols-3 gap-3">
        <Field label="Rusted" unit="%" {...field("area", at("rust_percent"))} />
        <Field label="Minimum" unit="%" {...field("low", at("low"))} />
        <Field label="Maximum" unit="%" {...field("high", at("high"))} />
      </div>
      {data ? (
        <Parts
          parts={data.says.map((said) => {
            const [name = "", grade = ""] = said.split(": ");
            return [name, grade] as const;
          })}
        />
      ) : null}
    </Calculation>
  );
}
