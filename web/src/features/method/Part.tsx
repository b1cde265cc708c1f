import type { ReactNode } from "react";
import { Term, type TermName } from "../../ui/Term";

/** One part of a method, under its heading. */
export function Part({
  title,
  term,
  children,
}: {
  title: string;
  term?: TermName;
  children: ReactNode;
}) {
  return (
    <section aria-label={title} className="border-t-[1.5px] border-ink pt-2">
      <h2 className="mb-2 text-lead font-bold">
        {title} {term ? <Term of={term} /> : null}
      </h2>
      {children}
    </section>
  );
}
