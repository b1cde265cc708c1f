import type { InputHTMLAttributes } from "react";

interface Cell extends InputHTMLAttributes<HTMLInputElement> {
  /** What the input is called: its column and its row. */
  says: string;
  error?: string | undefined;
  /** A question about an unusual value; it does not stand in the way. */
  ask?: string | undefined;
  hint?: string | undefined;
}

/** An input in a cell of a table; what is to be said of it stands below it. */
export function CellField({ says, error, ask, hint, className = "w-full", ...rest }: Cell) {
  return (
    <>
      <input
        aria-label={says}
        aria-invalid={Boolean(error)}
        className={`min-h-11 rounded-edge border border-line bg-sheet px-2
          aria-invalid:border-2 aria-invalid:border-rust aria-invalid:bg-rust-soft ${className}`}
        {...rest}
      />
      <CellError says={error} />
      {ask && !error ? (
        <p role="status" className="max-w-44 border-l-4 border-glint pl-1 text-note">
          {ask}
        </p>
      ) : null}
      {hint && !ask && !error ? <p className="max-w-52 text-note text-ink-2">{hint}</p> : null}
    </>
  );
}

/** What is wrong in a cell, or in the rows above it. */
export function CellError({ says }: { says: string | undefined }) {
  return says ? (
    <p role="alert" className="max-w-56 text-note font-medium text-rust">
      {says}
    </p>
  ) : null;
}
