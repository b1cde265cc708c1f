import type { ReactNode } from "react";
import { capital } from "../../domain/format";
import { TextButton } from "../../ui/TextButton";

/** Lines of a list that can grow, shrink and change their order. */
export function Rows<T extends object>({
  title,
  rows,
  blank,
  add,
  error,
  onChange,
  children,
}: {
  title?: string;
  rows: readonly T[];
  blank: T;
  add: string;
  error: string | undefined;
  onChange: (rows: T[]) => void;
  children: (row: T, change: (part: Partial<T>) => void, index: number) => ReactNode;
}) {
  const small = "min-h-11 min-w-11 cursor-pointer self-end disabled:opacity-30";
  return (
    <div>
      {title ? <h3 className="mt-3 font-semibold">{title}</h3> : null}
      {rows.map((row, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows have no name, and are edited in place
        <div key={i} className="mt-2 flex flex-wrap gap-2">
          <div className="grid min-w-0 flex-1 basis-72 grid-cols-1 gap-3 bench:grid-cols-3">
            {children(
              row,
              (part) => onChange(rows.map((r, at) => (at === i ? { ...r, ...part } : r))),
              i,
            )}
          </div>
          <button
            type="button"
            aria-label="Move up"
            disabled={i === 0}
            className={small}
            onClick={() =>
              onChange(
                rows.map((r, at) => (at === i ? (rows[i - 1] ?? r) : at === i - 1 ? row : r)),
              )
            }
          >
            ↑
          </button>
          <button
            type="button"
            aria-label="Delete this line"
            className={small}
            onClick={() => onChange(rows.filter((_, at) => at !== i))}
          >
            ×
          </button>
        </div>
      ))}
      {error ? (
        <p role="alert" className="mt-1 text-note font-medium text-rust">
          {capital(error)}.
        </p>
      ) : null}
      <TextButton className="mt-1 font-semibold" onClick={() => onChange([...rows, blank])}>
        {add}
      </TextButton>
    </div>
  );
}
