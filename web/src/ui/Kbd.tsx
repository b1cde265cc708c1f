import type { ReactNode } from "react";

/** A key, as it stands on the keyboard. */
export function Kbd({ children }: { children: ReactNode }) {
  return (
    <kbd
      className={`rounded-edge border border-current px-1.5 py-px font-sans text-[0.72rem]
      font-semibold opacity-80`}
    >
      {children}
    </kbd>
  );
}
