import { type ReactNode, type Ref, useRef } from "react";
import { TableOut } from "./TableOut";
import { type Sorted, useTableRows } from "./useTableRows";

/** The head of a column: its name, or its name with what only a reader hears, hints or looks. */
export type Head =
  | string
  | {
      readonly key: string;
      readonly name: ReactNode;
      readonly hint?: string | undefined;
      readonly look?: string;
      readonly isUnseen?: boolean;
    };

/** The head of a column that needs none in sight. */
export const unseen = (name: string): Head => ({
  key: name,
  name: <span className="sr-only">{name}</span>,
  isUnseen: true,
});

interface Props {
  heads: readonly Head[];
  caption?: string;
  /** The room around a head: that of the cells below it. */
  cell?: string;
  className?: string;
  ref?: Ref<HTMLTableElement>;
  /** The rows. */
  children: ReactNode;
}

/** A table, its columns named above a line. One that is called something can be worked with. */
export function Table({ scrolls, ...table }: Props & { scrolls?: string }) {
  return scrolls ? <WorkedTable {...table} name={scrolls} /> : <PlainTable {...table} />;
}

const FEW_ROWS = 6;

/** A table that scrolls where the page is narrower, and is sorted, searched, copied and saved. */
function WorkedTable({ name, children, ...table }: Props & { name: string }) {
  const shown = useRef<HTMLElement>(null);
  const { rows, sorted, sortBy, wanted, setWanted } = useTableRows(children, shown);
  return (
    <>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keyboard */}
      <section ref={shown} aria-label={name} tabIndex={0} className="relative overflow-x-auto">
        <PlainTable {...table} sorted={sorted} onSort={sortBy}>
          {rows}
        </PlainTable>
      </section>
      <p className="flex flex-wrap items-center gap-4 print:hidden">
        {rows.length >= FEW_ROWS ? (
          <input
            type="search"
            value={wanted}
            onChange={(e) => setWanted(e.target.value)}
            placeholder="Find in table"
            aria-label={`Find in: ${name}`}
            className="w-36 border-b border-line bg-transparent text-note"
          />
        ) : null}
        <TableOut of={shown} name={name} />
      </p>
    </>
  );
}

function PlainTable({
  heads,
  caption,
  cell = "py-1 pr-4",
  className = "w-full",
  ref,
  children,
  sorted = null,
  onSort,
}: Props & { sorted?: Sorted | null; onSort?: (column: number) => void }) {
  return (
    <table ref={ref} className={`border-collapse ${className}`}>
      {caption ? <caption className="sr-only">{caption}</caption> : null}
      <thead>
        <tr className="border-b-[1.5px] border-ink text-left align-bottom text-note text-ink-2">
          {heads.map((head, column) => {
            const { key, name, hint, look = "" } = spelt(head);
            const way = sorted?.column === column ? (sorted.isDown ? DOWN : UP) : null;
            return (
              <th
                key={key}
                scope="col"
                title={hint}
                aria-sort={way?.sort}
                className={`${cell} font-medium ${look}`}
              >
                {onSort && !spelt(head).isUnseen ? (
                  <button
                    type="button"
                    className="cursor-pointer text-left"
                    onClick={() => onSort(column)}
                  >
                    {name}
                    {way ? <span aria-hidden> {way.arrow}</span> : null}
                  </button>
                ) : (
                  name
                )}
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  );
}

const UP = { sort: "ascending", arrow: "↑" } as const;
const DOWN = { sort: "descending", arrow: "↓" } as const;

const spelt = (head: Head): Exclude<Head, string> =>
  typeof head === "string" ? { key: head, name: head } : head;
