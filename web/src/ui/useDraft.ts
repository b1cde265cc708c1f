import { useCallback, useState } from "react";

/**
 * What is typed but not kept yet; it survives an error, a lost connection and a reload, until it
 * is kept or dropped.
 * `drop` goes back to the start, `forget` leaves what is shown and only stops keeping it. */
export function useDraft<T>(
  key: string,
  initial: T,
): [T, (next: T) => void, () => void, () => void] {
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
  const forget = useCallback(() => sessionStorage.removeItem(place), [place]);
  return [value, change, drop, forget];
}
