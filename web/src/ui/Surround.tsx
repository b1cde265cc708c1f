import { Label } from "radix-ui";
import type { ReactNode } from "react";
import { termIn } from "../domain/terms";
import { Term, type TermName } from "./Term";

export interface Around {
  label: string;
  unit?: string | undefined;
  error?: string | undefined;
  hint?: string | undefined;
  /** A question about an unusual value; it does not stand in the way. */
  ask?: string | undefined;
  className?: string | undefined;
  /** A term that a `?` beside it explains; by itself one that the label names. */
  term?: TermName | undefined;
}

export const INPUT =
  "min-h-11 w-full rounded-edge border-[1.5px] bg-sheet px-3 text-ink placeholder:text-ink-2 " +
  "aria-invalid:border-rust aria-invalid:bg-rust-soft";

/** The id of what is said at an input, where anything is. */
export const describedBy = (id: string, { error, hint, ask }: Omit<Around, "label">) =>
  error ? `${id}-error` : hint || ask ? `${id}-hint` : undefined;

/** A label over an input, and what is said of it below: its error, a question, or a hint. */
export function Surround({
  id,
  label,
  unit,
  error,
  hint,
  ask,
  className = "",
  term,
  children,
}: Around & { id: string; children: ReactNode }) {
  const explained = term ?? termIn(label);
  const name = (
    <Label.Root htmlFor={id} id={`${id}-label`} className="text-note font-medium text-ink-2">
      {label}
      {unit ? <span className="font-normal">, {unit}</span> : null}
    </Label.Root>
  );
  return (
    <div className={`flex flex-col gap-1 ${className}`}>
      {explained ? (
        <span className="flex items-center">
          {name}
          <Term of={explained} />
        </span>
      ) : (
        name
      )}
      {children}
      {error ? (
        <p id={`${id}-error`} role="alert" className="text-note font-medium text-rust">
          {error}
        </p>
      ) : ask ? (
        <p
          id={`${id}-hint`}
          role="status"
          className="border-l-4 border-glint pl-2 text-note font-medium"
        >
          {ask}
        </p>
      ) : hint ? (
        <p id={`${id}-hint`} className="text-note text-ink-2">
          {hint}
        </p>
      ) : null}
    </div>
  );
}
