import { type InputHTMLAttributes, useState } from "react";
import { isDay, isMoment } from "../domain/days";
import { Field } from "./Field";
import type { Around } from "./Surround";

type Props = Around & InputHTMLAttributes<HTMLInputElement> & { value: string };

/** A day, written the same way everywhere, whatever the browser's language: 2026-11-30. */
export function DayField(props: Props) {
  return <Written {...props} isRight={isDay} example="2026-11-30" what="a day" />;
}

/** A day with its time: 2026-11-30 14:05. */
export function MomentField(props: Props) {
  return <Written {...props} isRight={isMoment} example="2026-11-30 14:05" what="a day and time" />;
}

function Written({
  isRight,
  example,
  what,
  error,
  ...rest
}: Props & { isRight: (text: string) => boolean; example: string; what: string }) {
  const [left, setLeft] = useState(false);
  const wrong = left && rest.value.trim() !== "" && !isRight(rest.value);
  return (
    <Field
      {...rest}
      placeholder={example}
      autoComplete="off"
      onFocus={() => setLeft(false)}
      onBlur={() => setLeft(true)}
      error={wrong ? `“${rest.value}” is not ${what} like ${example}` : error}
    />
  );
}
