import type { Schemas } from "../../api/client";
import { WORDS } from "../../domain/words";
import { CellChoice, Option } from "../../ui/Choice";

type Seen = Schemas["SheetPreviewOut"];

/** The first rows under their heads, with what each column is. */
export function FirstRows({
  seen,
  set,
}: {
  seen: Seen;
  set: (part: Partial<Schemas["SheetReadingBody"]>) => void;
}) {
  const { reading } = seen;
  const wrong = new Set(seen.faults.map((f) => `${f.line}|${letter(f.column)}`));
  return (
    <section
      aria-label="First rows"
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
                <span className="text-note text-ink-2">{String.fromCharCode(65 + (at % 26))} </span>
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

/** The place of the column that a fault names by its letter. */
function letter(column: string | undefined): number {
  const name = /^[A-Z]+/.exec(column ?? "")?.[0] ?? "";
  return [...name].reduce((sum, char) => sum * 26 + char.charCodeAt(0) - 64, 0) - 1;
}
