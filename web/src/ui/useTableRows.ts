import {
  Children,
  isValidElement,
  type ReactElement,
  type ReactNode,
  type RefObject,
  useLayoutEffect,
  useState,
} from "react";
import { ordered } from "../domain/tableOrder";
import { cellText } from "../domain/tableText";

export interface Sorted {
  readonly column: number;
  readonly isDown: boolean;
}

/**
 * Rows of a table sorted by a column and found by what they say. Cells are read as they are shown,
 * so that every table can be sorted without saying how. A row marked `data-more` belongs to the one
 * above it.
 */
export function useTableRows(children: ReactNode, table: RefObject<HTMLElement | null>) {
  const [sorted, setSorted] = useState<Sorted | null>(null);
  const [order, setOrder] = useState<readonly string[]>([]);
  const [wanted, setWanted] = useState("");
  const own = Children.toArray(children).filter(isValidElement);
  const rows = sorted ? inOrder(own, order) : own;

  const sortBy = (column: number) => {
    if (sorted?.column === column && sorted.isDown) return setSorted(null);
    const shown = groupsOf(table.current);
    if (shown.length !== rows.length) return;
    const next = { column, isDown: sorted?.column === column };
    const cells = shown.map(([first]) => cellOf(first?.cells[column]));
    setOrder(ordered(cells, next.isDown).map((place) => keyOf(rows[place])));
    setSorted(next);
  };

  useLayoutEffect(() => {
    const text = wanted.trim().toLowerCase();
    for (const group of groupsOf(table.current)) {
      const says = group.flatMap((row) => [...row.cells].map(cellOf)).join(" ");
      for (const row of group) row.hidden = !says.toLowerCase().includes(text);
    }
  });

  return { rows, sorted, sortBy, wanted, setWanted };
}

/** The rows of a table as they are shown, head and all, each a list of its cells. */
export const shownRows = (table: HTMLElement | null): string[][] =>
  [...(table?.querySelectorAll("tr") ?? [])]
    .filter((row) => !row.hidden)
    .map((row) => [...row.cells].map(cellOf));

function groupsOf(table: HTMLElement | null): HTMLTableRowElement[][] {
  const groups: HTMLTableRowElement[][] = [];
  for (const row of table?.querySelectorAll<HTMLTableRowElement>("tbody > tr") ?? []) {
    if ("more" in row.dataset) groups.at(-1)?.push(row);
    else groups.push([row]);
  }
  return groups;
}

/** What a cell says, or what is entered in it. */
function cellOf(cell: HTMLTableCellElement | undefined): string {
  const entered = [...(cell?.querySelectorAll("input, select") ?? [])].map((each) =>
    each instanceof HTMLSelectElement
      ? (each.selectedOptions[0]?.text ?? "")
      : (each as HTMLInputElement).value,
  );
  // biome-ignore lint/performance/useDomNodeTextContent: lines of a cell stay apart
  return cellText(entered.join(" ") || (cell?.innerText ?? cell?.textContent ?? ""));
}

const keyOf = (row: ReactElement | undefined) => String(row?.key);

function inOrder(rows: readonly ReactElement[], order: readonly string[]): ReactElement[] {
  const place = new Map(order.map((key, at) => [key, at]));
  const at = (row: ReactElement) => place.get(keyOf(row)) ?? order.length;
  return [...rows].sort((a, b) => at(a) - at(b));
}
