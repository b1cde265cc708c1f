import type { ButtonHTMLAttributes } from "react";

type Kind = "next" | "plain" | "quiet" | "danger";

const LOOK: Record<Kind, string> = {
  next: "px-4 bg-next text-on-next border-next hover:brightness-110",
  plain: "px-4 border-ink text-ink hover:bg-kraft hover:text-ink",
  quiet:
    "border-transparent text-ink underline decoration-line underline-offset-4 hover:decoration-ink",
  danger: "px-4 border-rust text-rust hover:bg-rust-soft",
};

const SHAPE =
  "inline-flex min-h-11 cursor-pointer items-center justify-center gap-2 rounded-edge " +
  "border-[1.5px] font-semibold disabled:cursor-default disabled:opacity-45";

/** The look of a button, for links that act like one. */
export function buttonLook(kind: Kind = "plain"): string {
  return `${SHAPE} ${LOOK[kind]}`;
}

export function Button({
  kind = "plain",
  className = "",
  type = "button",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { kind?: Kind }) {
  return <button type={type} className={`${buttonLook(kind)} ${className}`} {...rest} />;
}
