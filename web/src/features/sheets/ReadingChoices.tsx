import { useState } from "react";
import type { Schemas } from "../../api/client";
import { WORDS } from "../../domain/words";
import { Choice, Option, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";

type Reading = Schemas["SheetReadingBody"];
type Standing = NonNullable<Reading["hardness_standing"]>;

/** How the sheet is read as a whole. */
export function ReadingChoices({
  seen,
  set,
}: {
  seen: Schemas["SheetPreviewOut"];
  set: (part: Partial<Reading>) => void;
}) {
  const { reading } = seen;
  return (
    <div className="grid grid-cols-2 gap-3 bench:grid-cols-6">
      <Choice
        label="A row is"
        value={reading.shape}
        onPick={(v) => set({ shape: v as Reading["shape"] })}
      >
        <Options of={WORDS.sheetShapes} />
      </Choice>
      <Choice
        label="Rows of heads"
        value={String(reading.head_rows)}
        onPick={(v) => set({ head_rows: Number(v) })}
      >
        {["0", "1", "2", "3"].map((n) => (
          <Option key={n} value={n}>
            {n}
          </Option>
        ))}
      </Choice>
      <Choice label="Counted in" value={reading.count_unit} onPick={(v) => set({ count_unit: v })}>
        <Options of={WORDS.countUnits} />
      </Choice>
      {seen.forced.some(Boolean) ? (
        <Choice
          label="Forces in"
          value={reading.force_unit ?? "gf"}
          onPick={(v) => set({ force_unit: v as "gf" | "N" })}
        >
          <Options of={WORDS.forceUnits} />
        </Choice>
      ) : null}
      {reading.roles.includes("angle_deg") ? (
        <Choice
          label="Angles are"
          value={reading.angle_is ?? "side"}
          onPick={(v) => set({ angle_is: v as "side" | "included" })}
        >
          <Options of={WORDS.anglesAre} />
        </Choice>
      ) : null}
      <Choice
        label="Decimals with"
        value={reading.decimal_comma ? "comma" : "point"}
        onPick={(v) => set({ decimal_comma: v === "comma" })}
      >
        <Options of={WORDS.decimalMarks} />
      </Choice>
      <Every
        key={reading.check_every}
        value={reading.check_every ?? ""}
        unit={reading.count_unit}
        onKeep={(every) => set({ check_every: every })}
      />
      <Known
        isThere={reading.roles.includes("hardness_hrc")}
        label="Hardness is"
        value={reading.hardness_standing ?? "measured_elsewhere"}
        onPick={(hardness_standing) => set({ hardness_standing })}
      />
      <Known
        isThere={reading.roles.includes("angle_deg")}
        label="Angle is"
        value={reading.angle_standing ?? "measured_elsewhere"}
        onPick={(angle_standing) => set({ angle_standing })}
      />
    </div>
  );
}

/** How a fact that the sheet tells is known. */
function Known({
  isThere,
  label,
  value,
  onPick,
}: {
  isThere: boolean;
  label: string;
  value: Standing;
  onPick: (to: Standing) => void;
}) {
  if (!isThere) return null;
  return (
    <Choice label={label} value={value} onPick={(v) => onPick(v as Standing)}>
      <Options of={WORDS.standings} />
    </Choice>
  );
}

function Every({
  value,
  unit,
  onKeep,
}: {
  value: string;
  unit: string;
  onKeep: (every: string) => void;
}) {
  const [typed, setTyped] = useState(value);
  return (
    <Field
      label="Checked every"
      unit={unit}
      inputMode="decimal"
      value={typed}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={() => (typed === value ? null : onKeep(typed))}
      onKeyDown={(e) => (e.key === "Enter" ? onKeep(typed) : null)}
    />
  );
}
