import type { ReactNode, Ref } from "react";
import { Term, type TermName } from "./Term";

/** The heading of a part of a page; a `?` beside it explains a term of it. */
export function Heading({
  term,
  className = "",
  children,
}: {
  term?: TermName | undefined;
  className?: string;
  children: ReactNode;
}) {
  return (
    <h2 className={`text-lead font-bold ${className}`}>
      {children} {term ? <Term of={term} /> : null}
    </h2>
  );
}

/** A part of a page under its heading; a ruled one begins with a line. */
export function Section({
  title,
  term,
  ruled = false,
  className = "",
  children,
  ref,
}: {
  title: string;
  term?: TermName | undefined;
  ruled?: boolean;
  className?: string;
  children: ReactNode;
  ref?: Ref<HTMLElement>;
}) {
  const rule = ruled ? "mt-8 border-t-[1.5px] border-ink pt-3" : "";
  return (
    <section ref={ref} aria-label={title} className={`${rule} ${className}`}>
      <Heading term={term}>{title}</Heading>
      {children}
    </section>
  );
}
