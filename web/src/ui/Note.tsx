import type { HTMLAttributes } from "react";

/** What is said beside the matter, smaller and paler. */
export function Note({ className = "", ...rest }: HTMLAttributes<HTMLParagraphElement>) {
  return <p className={`text-note text-ink-2 ${className}`} {...rest} />;
}
