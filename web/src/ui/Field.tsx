import { type InputHTMLAttributes, type TextareaHTMLAttributes, useId } from "react";
import { type Around, describedBy, INPUT, Surround } from "./Surround";

/** A labelled input; its error stands at it, and what was typed stays. */
export function Field({
  label,
  unit,
  error,
  hint,
  ask,
  className,
  term,
  ...rest
}: Around & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId();
  return (
    <Surround {...{ id, label, unit, error, hint, ask, className, term }}>
      <input
        id={id}
        className={`${INPUT} border-line`}
        aria-invalid={Boolean(error)}
        aria-describedby={describedBy(id, { error, hint, ask })}
        {...rest}
      />
    </Surround>
  );
}

/** A labelled text of several lines. */
export function LongField({
  label,
  error,
  hint,
  className,
  ...rest
}: Around & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const id = useId();
  return (
    <Surround {...{ id, label, error, hint, className }}>
      <textarea
        id={id}
        rows={2}
        className={`${INPUT} border-line py-2`}
        aria-invalid={Boolean(error)}
        {...rest}
      />
    </Surround>
  );
}
