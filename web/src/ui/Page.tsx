import type { ReactNode } from "react";

const WIDTHS = {
  wide: "max-w-[1400px]",
  usual: "max-w-[1280px]",
  narrow: "max-w-[1100px]",
} as const;

/** A page below the bar of the application, as wide as what it shows needs. */
export function Page({
  width = "usual",
  className = "",
  children,
}: {
  width?: keyof typeof WIDTHS;
  className?: string;
  children: ReactNode;
}) {
  return (
    <div className={`mx-auto ${WIDTHS[width]} px-4 pt-6 pb-8 bench:px-7 ${className}`}>
      {children}
    </div>
  );
}
