import { Label } from "radix-ui";
import {
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
  useId,
} from "react";

interface Around {
  label: string;
  unit?: string;
  error?: string | undefined;
  hint?: string | undefined;
  /** A question about an unusual value; it does not stand in the way. */
  ask?: string | undefined;
  className?: string;
}

const INPUT =
  "min-h-11 w-full rounded-edge border-[1.5px] bg-sheet px-3 text-ink placeholder:text-ink-2 aria-invalid:border-rust aria-invalid:bg-rust-soft";

function Surround({
  id,
  label,
  unit,
  error,
  hint,
  ask,
  className = "",
  children,
}: Around & { id: string; children: ReactNode }) {
  return (
    <div className={`flex flex-col gap-1 ${className}`}>
      <Label.Root htmlFor={id} className="text-note font-medium text-ink-2">
        {label}
        {unit ? <span className="font-normal">, {unit}</span> : null}
      </Label.Root>
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

/** A labelled input; its error stands at it, and what was typed stays. */
export function Field({
  label,
  unit,
  error,
  hint,
  ask,
  className,
  ...rest
}: Around & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId();
  const described = error ? `${id}-error` : hint || ask ? `${id}-hint` : undefined;
  return (
    <Surround {...{ id, label, unit, error, hint, ask, className }}>
      <input
        id={id}
        className={`${INPUT} border-line`}
        aria-invalid={Boolean(error)}
        aria-describedby={described}
        {...rest}
      />
    </Surround>
  );
}

/** A labelled choice. */
export function Choice({
  label,
  unit,
  error,
  hint,
  className,
  children,
  ...rest
}: Around & SelectHTMLAttributes<HTMLSelectElement>) {
  const id = useId();
  return (
    <Surround {...{ id, label, unit, error, hint, className }}>
      <select id={id} className={`${INPUT} border-line`} {...rest}>
        {children}
      </select>
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

/** A labelled yes or no. */
export function Tick({
  label,
  ...rest
}: { label: ReactNode } & InputHTMLAttributes<HTMLInputElement>) {
  return (
    <label className="flex min-h-11 cursor-pointer items-center gap-3">
      <input type="checkbox" className="size-5 shrink-0 accent-next" {...rest} />
      <span>{label}</span>
    </label>
  );
}
