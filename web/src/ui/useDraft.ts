import { useCallback, useState } from "react";

/** What is typed but not kept yet; it survives an error, a lost connection and a reload, until it is kept or dropped. */
export function useDraft<T>(key: string, initial: T): [T, (next: T) => void, () => void] {
  const place = `draft:${key}`;
  const [value, setValue] = useState<T>(() => {
    const kept = sessionStorage.getItem(place);
    if (kept === null) return initial;
    try {
      return { ...initial, ...(JSON.parse(kept) as T) };
    } catch {
      return initial;
    }
  });
  const change = useCallback(
    (next: T) => {
      sessionStorage.setItem(place, JSON.stringify(next));
      setValue(next);
    },
    [place],
  );
  const drop = useCallback(() => {
    sessionStorage.removeItem(place);
    setValue(initial);
  }, [place, initial]);
  return [value, change, drop];
}
