import type { ReactNode } from "react";

/** One part of a method, under its heading. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="border-t-[1.5px] border-ink pt-2">
      <h2 className="mb-2 text-lead font-bold">{title}</h2>
      {children}
    </section>
  );
}
