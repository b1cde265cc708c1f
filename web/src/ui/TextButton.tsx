import type { ButtonHTMLAttributes } from "react";

/** A button that reads like a link; a small one stands inside a line of text. */
export function TextButton({
  small = false,
  className = "",
  type = "button",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { small?: boolean }) {
  const size = small ? "min-h-8 text-note" : "min-h-11";
  return (
    <button
      type={type}
      className={`${size} cursor-pointer underline decoration-line underline-offset-4
        hover:decoration-ink ${className}`}
      {...rest}
    />
  );
}
