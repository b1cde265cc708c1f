import { Field, LongField } from "../../ui/Field";
import { Arms, type PaperView, withCell } from "./PaperGrid";

const HEAD = ["blade", "edge", "round", "zone", "check_every", "verifies", "note"];

/** Readings one by one: count, what was found and, after @, its place; typed or pasted. */
export function PaperTally({ form, columns, rows, every, faultAt, onRows }: PaperView) {
  const head = columns.filter((column) => HEAD.includes(column.key));
  return (
    <div className="mt-5 grid gap-x-8 gap-y-6 bench:grid-cols-2 xl:grid-cols-3">
      {rows.map((row, at) => (
        <fieldset key={row.id} className="border-t-[1.5px] border-ink pt-2">
          <legend className="pr-3 font-semibold">Line {at + 1}</legend>
          <div className="grid grid-cols-3 gap-2">
            {head.map((column) => (
              <Field
                key={column.key}
                label={column.label}
                list={column.key === "blade" ? "arms" : undefined}
                placeholder={column.key === "check_every" ? every : ""}
                value={row.cells[column.key] ?? ""}
                error={faultAt(row, column.key)}
                onChange={(e) =>
                  onRows(
                    rows.map((other) =>
                      other.id === row.id ? withCell(row, column.key, e.target.value) : other,
                    ),
                  )
                }
              />
            ))}
          </div>
          <LongField
            label={`Count in ${form.count_unit}, and reading or pass, fail, doubt`}
            rows={6}
            className="mt-2"
            placeholder={"0 150\n8 240 @12\n16 fail paper"}
            value={row.readings}
            error={faultAt(row, "readings")}
            onChange={(e) =>
              onRows(
                rows.map((other) =>
                  other.id === row.id ? { ...row, readings: e.target.value } : other,
                ),
              )
            }
          />
        </fieldset>
      ))}
      <Arms form={form} />
    </div>
  );
}
