import { type InputHTMLAttributes, useState } from "react";
import { isDay, isMoment } from "../domain/days";
import { quoted } from "../domain/format";
import { Field } from "./Field";
import type { Around } from "./Surround";

type Props = Around & InputHTMLAttributes<HTMLInputElement> & { value: string };

/** A day, written the same way everywhere, whatever the browser's language: 2026-11-30. */
export function DayField(props: Props) {
  return <Written {...props} isRight={isDay} form="yyyy-mm-dd" what="a day like 2026-11-30" />;
}

/** A day with its time: 2026-11-30 14:05. */
export function MomentField(props: Props) {
  const what = "a day and time like 2026-11-30 14:05";
  return <Written {...props} isRight={isMoment} form="yyyy-mm-dd hh:mm" what={what} />;
}

function Written({
  isRight,
  form,
  what,
  error,
  ...rest
}: Props & { isRight: (text: string) => boolean; form: string; what: string }) {
  const [left, setLeft] = useState(false);
  const wrong = left && rest.value.trim() !== "" && !isRight(rest.value);
  return (
    <Field
      {...rest}
      placeholder={form}
      autoComplete="off"
      onFocus={() => setLeft(false)}
      onBlur={() => setLeft(true)}
      error={wrong ? `${quoted(rest.value)} is not ${what}` : error}
    />
  );
}
