import { useState } from "react";
import type { Schemas } from "../../api/client";
import { labelOf, WORDS } from "../../domain/words";
import { CellChoice, Choice, Option, Options } from "../../ui/Choice";
import { Field } from "../../ui/Field";

type Seen = Schemas["SheetPreviewOut"];
type Reading = Schemas["SheetReadingBody"];
type Standing = NonNullable<Reading["hardness_standing"]>;

/** What each column is: guessed, and changed by hand; with the first rows beneath. */
export function Columns({ seen, onReading }: { seen: Seen; onReading: (to: Reading) => void }) {
  const { reading } = seen;
  const set = (part: Partial<Reading>) => onReading({ ...reading, ...part });
  const wrong = new Set(seen.faults.map((f) => `${f.line}|${letter(f.column)}`));
  return (
    <section aria-label="What each column is" className="mt-6">
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
        <Choice
          label="Counted in"
          value={reading.count_unit}
          onPick={(v) => set({ count_unit: v })}
        >
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
      <Changes seen={seen} />
      {seen.remembered.length ? (
        <p className="mt-2 flex flex-wrap items-center gap-3 text-note">
          A sheet with these heads was imported before:
          {seen.remembered.map((each) => (
            <button
              key={each.name}
              type="button"
              className="min-h-9 cursor-pointer font-semibold underline underline-offset-4"
              onClick={() => onReading(each.reading)}
            >
              read it as “{each.name}”
            </button>
          ))}
        </p>
      ) : null}
      {seen.notes.map((note) => (
        <p key={note} className="mt-1 text-note text-ink-2">
          {note}
        </p>
      ))}
      <section
        aria-label="The first rows"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a table that scrolls is reached by keyboard
        tabIndex={0}
        className="relative mt-3 overflow-x-auto"
      >
        <table className="border-collapse">
          <thead>
            <tr className="align-bottom">
              <th className="sr-only">row</th>
              {reading.roles.map((role, at) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a column is known by its place
                <th key={at} className="min-w-36 pr-1 pb-1 text-left font-medium">
                  <span className="text-note text-ink-2">
                    {String.fromCharCode(65 + (at % 26))}{" "}
                  </span>
                  {seen.heads[at] || <span className="text-ink-2">no head</span>}
                  <span className="mt-1 block">
                    <CellChoice
                      says={`What column ${at + 1} is`}
                      value={role}
                      onPick={(v) =>
                        set({ roles: reading.roles.map((each, i) => (i === at ? v : each)) })
                      }
                    >
                      {seen.roles.map((each) => (
                        <Option key={each.role} value={each.role}>
                          {each.label}
                        </Option>
                      ))}
                    </CellChoice>
                  </span>
                  <OwnUnit seen={seen} at={at} onUnits={(units) => set({ units })} />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {seen.rows.map((row, n) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by its place
              <tr key={n} className={n < reading.head_rows ? "text-note text-ink-2" : ""}>
                <td className="pr-2 text-right text-note text-ink-2">{n + 1}</td>
                {reading.roles.map((role, at) => (
                  <td
                    // biome-ignore lint/suspicious/noArrayIndexKey: a column is known by its place
                    key={at}
                    className={`max-w-52 truncate border border-line px-2 py-1
                      ${role === "left_out" ? "text-ink-2 line-through" : ""}
                      ${wrong.has(`${n + 1}|${at}`) ? "bg-rust-soft font-semibold text-rust" : ""}`}
                  >
                    {row[at] ?? ""}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </section>
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

/** The unit of one column, where it holds lengths or forces of a unit of its own. */
function OwnUnit({
  seen,
  at,
  onUnits,
}: {
  seen: Seen;
  at: number;
  onUnits: (units: string[]) => void;
}) {
  const isLength = seen.counted[at] && WORDS.lengthUnits.some(([unit]) => unit === seen.count_unit);
  const units = isLength ? WORDS.lengthUnits : seen.forced[at] ? WORDS.forceUnits : [];
  if (units.length === 0) return null;
  const whole = isLength ? seen.reading.count_unit : (seen.reading.force_unit ?? "gf");
  const own = seen.reading.units?.[at] || whole;
  const pick = (unit: string) =>
    onUnits(
      seen.reading.roles.map((_, i) =>
        i === at ? (unit === whole ? "" : unit) : (seen.reading.units?.[i] ?? ""),
      ),
    );
  return (
    <span className="mt-1 block">
      <CellChoice says={`Unit of column ${at + 1}`} value={own} onPick={pick}>
        {units.map(([unit]) => (
          <Option key={unit} value={unit}>
            in {unit}
          </Option>
        ))}
      </CellChoice>
    </span>
  );
}

/** Every guess that changes a value, before and after; what it rests on is changed beside it. */
function Changes({ seen }: { seen: Seen }) {
  if (seen.changes.length === 0) return null;
  return (
    <section aria-label="Values that change" className="mt-3 border-l-4 border-next pl-3">
      <h2 className="font-semibold">Values that change when they are read</h2>
      <ul>
        {seen.changes.map((change) => (
          <li key={change.place}>
            {seen.heads[change.place] || `column ${change.place + 1}`}: <b>{change.before}</b>{" "}
            becomes <b>{change.after}</b> ({labelOf("sheetChanges", change.why)})
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The place of the column that a fault names by its letter. */
function letter(column: string | undefined): number {
  const name = /^[A-Z]+/.exec(column ?? "")?.[0] ?? "";
  return [...name].reduce((sum, char) => sum * 26 + char.charCodeAt(0) - 64, 0) - 1;
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
