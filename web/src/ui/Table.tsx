import { type ReactNode, type Ref, useRef } from "react";
import { TableOut } from "./TableOut";

/** The head of a column: its name, or its name with what only a reader hears, hints or looks. */
export type Head =
  | string
  | {
      readonly key: string;
      readonly name: ReactNode;
      readonly hint?: string | undefined;
      readonly look?: string;
    };

/** The head of a column that needs none in sight. */
export const unseen = (name: string): Head => ({
  key: name,
  name: <span className="sr-only">{name}</span>,
});

/** A table, its columns named above a line; one that is named scrolls where the page is narrower. */
export function Table({
  heads,
  caption,
  cell = "py-1 pr-4",
  className = "w-full",
  scrolls,
  ref,
  children,
}: {
  heads: readonly Head[];
  caption?: string;
  /** The room around a head: that of the cells below it. */
  cell?: string;
  className?: string;
  /** What it is called, to be reached and scrolled by keyboard. */
  scrolls?: string;
  ref?: Ref<HTMLTableElement>;
  /** The rows. */
  children: ReactNode;
}) {
  const shown = useRef<HTMLElement>(null);
  const table = (
    <table ref={ref} className={`border-collapse ${className}`}>
      {caption ? <caption className="sr-only">{caption}</caption> : null}
      <thead>
        <tr className="border-b-[1.5px] border-ink text-left align-bottom text-note text-ink-2">
          {heads.map((head) => {
            const {
              key,
              name,
              hint,
              look = "",
            }: Exclude<Head, string> = typeof head === "string" ? { key: head, name: head } : head;
            return (
              <th key={key} scope="col" title={hint} className={`${cell} font-medium ${look}`}>
                {name}
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  );
  return scrolls ? (
    <>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is reached by keyboard */}
      <section ref={shown} aria-label={scrolls} tabIndex={0} className="relative overflow-x-auto">
        {table}
      </section>
      <TableOut of={shown} name={scrolls} />
    </>
  ) : (
    table
  );
}
