import { useState } from "react";
import type { Refused } from "../../api/client";
import { quoted, typedNumber } from "../../domain/format";

/**
 * Numbers as they are typed: what is no number is said at its field, and told, so that nothing is
 * kept of the look while it stands there.
 */
export function useNumbers<Name extends string>(
  start: Readonly<Record<Name, number | null>>,
  refused: Refused | null,
  onTyped: (values: Record<Name, number | null>, isUnread: boolean) => void,
) {
  const names = Object.keys(start) as Name[];
  const [typed, setTyped] = useState(
    () => Object.fromEntries(names.map((n) => [n, said(start[n])])) as Record<Name, string>,
  );
  return (name: Name) => ({
    value: typed[name],
    inputMode: "decimal" as const,
    error:
      refused?.at(name) ??
      (typedNumber(typed[name]) === undefined
        ? `${quoted(typed[name])} is not a number`
        : undefined),
    onChange: (e: { target: { value: string } }) => {
      const now = { ...typed, [name]: e.target.value };
      setTyped(now);
      const read = names.map((n) => [n, typedNumber(now[n])] as const);
      onTyped(
        Object.fromEntries(read.map(([n, v]) => [n, v ?? null])) as Record<Name, number | null>,
        read.some(([, value]) => value === undefined),
      );
    },
  });
}

const said = (value: number | null) => (value === null ? "" : String(value));
