import { type KeyboardEvent, useEffect, useRef } from "react";
import { CellField } from "../../ui/CellField";
import { Table, unseen } from "../../ui/Table";
import { TextButton } from "../../ui/TextButton";
import { type Column, type Form, isResult, pasted, type Row } from "./paperRows";

const WIDTH: Record<string, string> = { blade: "min-w-28", note: "min-w-40", edge: "min-w-14" };

export interface PaperView {
  readonly form: Form;
  readonly rows: readonly Row[];
  readonly columns: readonly Column[];
  readonly every: string;
  readonly faultAt: (row: Row, key: string) => string | undefined;
  readonly onRows: (rows: readonly Row[]) => void;
  readonly onMore: () => void;
}

/** Totals and brackets, a run a row, by keyboard alone: Tab to the right, Enter to the next line. */
export function PaperGrid({ form, columns, rows, every, faultAt, onRows, onMore }: PaperView) {
  const table = useRef<HTMLTableElement>(null);
  const first = columns.find((column) => isResult(column.key))?.key ?? "";
  const focus = (row: number, key: string) =>
    table.current?.querySelector<HTMLInputElement>(`[data-cell="${row}-${key}"]`)?.focus();
  const known = useRef(0);
  useEffect(() => {
    // a new line is gone to at once, and on arrival the first that waits for a result
    if (rows.length > known.current)
      table.current
        ?.querySelector<HTMLInputElement>(`[data-cell="${known.current}-${first}"]`)
        ?.focus({ preventScroll: known.current === 0 });
    known.current = rows.length;
  }, [rows.length, first]);
  const type = (at: number, key: string, text: string) =>
    onRows(rows.map((row, i) => (i === at ? withCell(row, key, text) : row)));
  const onKey = (event: KeyboardEvent, at: number, column: Column) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const moves: Record<string, readonly [number, string]> = {
      Enter: [at + 1, first],
      ArrowDown: [at + 1, column.key],
      ArrowUp: [at - 1, column.key],
    };
    const to = moves[event.key];
    if (!to) return;
    event.preventDefault();
    if (event.key === "Enter" && at === rows.length - 1) onMore();
    else focus(...to);
  };
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a table that scrolls is reached by keyboard
    <section aria-label="Finished runs" tabIndex={0} className="relative mt-5 overflow-x-auto">
      <Table
        heads={[
          unseen("line"),
          ...columns.map((column) => ({
            key: column.key,
            name: column.label + (column.unit ? `, ${column.unit}` : ""),
            hint: column.hint,
          })),
          unseen("delete"),
        ]}
        cell="pr-1 pb-1"
        ref={table}
      >
        {rows.map((row, at) => (
          <tr key={row.id} className="align-top">
            <td className="pt-2.5 pr-2 text-right text-note text-ink-2">{at + 1}</td>
            {columns.map((column) => (
              <td key={column.key} className={`pr-1 pb-1 ${WIDTH[column.key] ?? "min-w-20"}`}>
                <CellField
                  data-cell={`${at}-${column.key}`}
                  says={`${column.label}, line ${at + 1}`}
                  error={faultAt(row, column.key)}
                  inputMode={column.kind === "text" ? "text" : "decimal"}
                  list={column.key === "blade" ? "arms" : undefined}
                  placeholder={column.key === "check_every" ? every : ""}
                  value={row.cells[column.key] ?? ""}
                  onChange={(e) => type(at, column.key, e.target.value)}
                  onKeyDown={(e) => onKey(e, at, column)}
                  onPaste={(e) => {
                    const text = e.clipboardData.getData("text");
                    if (!/[\t\n]/.test(text)) return;
                    e.preventDefault();
                    onRows(pasted(rows, columns, { row: at, key: column.key }, text));
                  }}
                />
              </td>
            ))}
            <td>
              <TextButton
                aria-label={`Delete line ${at + 1}`}
                className="px-2"
                onClick={() => onRows(rows.filter((other) => other.id !== row.id))}
              >
                delete
              </TextButton>
            </td>
          </tr>
        ))}
      </Table>
      <Arms form={form} />
    </section>
  );
}

/** The blades that a line can name, offered while typing. */
export function Arms({ form }: { form: Form }) {
  return (
    <datalist id="arms">
      {form.arms.map(({ code }) => (
        <option key={code} value={code} />
      ))}
    </datalist>
  );
}

export const withCell = (row: Row, key: string, text: string): Row => ({
  ...row,
  cells: { ...row.cells, [key]: text },
});
