import type { ReactNode } from "react";

/** What is folded away behind one press. */
export function Fold({
  title,
  className = "",
  children,
}: {
  title: ReactNode;
  className?: string;
  children: ReactNode;
}) {
  return (
    <details className={className}>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">{title}</summary>
      {children}
    </details>
  );
}
