import type { ReactNode } from "react";
import { Section } from "../../ui/Section";
import type { TermName } from "../../ui/Term";

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
    <Section title={title} term={term} className="border-t-[1.5px] border-ink pt-2">
      <div className="mt-2">{children}</div>
    </Section>
  );
}
