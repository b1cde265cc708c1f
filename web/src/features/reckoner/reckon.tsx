import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { body, Refused, type Schemas } from "../../api/client";
import { quoted, typedNumber } from "../../domain/format";
import { Notice } from "../../ui/Notice";
import { Heading } from "../../ui/Section";
import { useDraft } from "../../ui/useDraft";

type Request<T> = Parameters<typeof body<T>>[0];

/**
 * What is typed into a calculation, kept over a reload; numbers as read, undefined where they
 * cannot be.
 */
export function useFigures<K extends string>(name: string, initial: Record<K, string>) {
  const [typed, setTyped] = useDraft(`reckoner:${name}`, initial);
  const read = Object.fromEntries(
    Object.entries<string>(typed).map(([key, text]) => [key, typedNumber(text)]),
  ) as Record<K, number | null | undefined>;
  const field = (key: K, error?: string | undefined) => ({
    value: typed[key],
    inputMode: "decimal" as const,
    onChange: (e: { target: { value: string } }) => setTyped({ ...typed, [key]: e.target.value }),
    error: read[key] === undefined ? `${quoted(typed[key])} is not a number` : error,
  });
  return { typed, setTyped, read, field };
}

/** An answer that follows what is typed; a refusal says at which figure. */
export function useReckoned<T>(
  name: string,
  figures: unknown,
  ready: boolean,
  ask: () => Request<T>,
) {
  const found = useQuery({
    queryKey: ["reckoner", name, figures],
    queryFn: () => body<T>(ask()),
    enabled: ready,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: keepPreviousData,
  });
  const refused = found.error instanceof Refused ? found.error : null;
  return {
    data: ready && !found.isError ? found.data : undefined,
    at: (field: string) => (ready ? refused?.at(field) : undefined),
    error: ready ? found.error : null,
  };
}

/** One calculation: figures in, an answer out, and what it stands on. */
export function Calculation({
  place,
  title,
  footing,
  error,
  children,
}: {
  place: string;
  title: string;
  footing: Schemas["FormulaBasisOut"] | undefined;
  error?: Error | null;
  children: ReactNode;
}) {
  return (
    <section id={place} aria-label={title} className="scroll-mt-4 border-t border-line py-5">
      <Heading className="mb-3">{title}</Heading>
      {children}
      <Notice says={error?.message} className="mt-2 font-medium" />
      {footing ? (
        <dl className="mt-3 grid grid-cols-[4.5rem_1fr] gap-x-3 text-note text-ink-2">
          <dt>formula</dt>
          <dd>{footing.formula}</dd>
          <dt>holds for</dt>
          <dd>{footing.holds}</dd>
          <dt>source</dt>
          <dd>{footing.source}</dd>
        </dl>
      ) : null}
    </section>
  );
}

/** An answer, large. */
export function Answer({ children }: { children: ReactNode }) {
  return (
    <p className="mt-3 min-h-9 text-[1.5rem] leading-tight font-bold" aria-live="polite">
      {children}
    </p>
  );
}
