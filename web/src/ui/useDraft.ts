import { useCallback, useState } from "react";

/**
 * What is typed but not kept yet; it survives an error, a lost connection and a reload, until it
 * is kept or dropped. Without a key it lasts as long as it is on the screen.
 * `drop` goes back to the start, `forget` leaves what is shown and only stops keeping it. */
export function useDraft<T>(
  key: string | undefined,
  initial: T,
): [T, (next: T) => void, () => void, () => void] {
  const place = key === undefined ? undefined : `draft:${key}`;
  const [value, setValue] = useState<T>(() => {
    const kept = place && sessionStorage.getItem(place);
    if (!kept) return initial;
    try {
      return { ...initial, ...(JSON.parse(kept) as T) };
    } catch {
      return initial;
    }
  });
  const change = useCallback(
    (next: T) => {
      if (place) sessionStorage.setItem(place, JSON.stringify(next));
      setValue(next);
    },
    [place],
  );
  const drop = useCallback(() => {
    if (place) sessionStorage.removeItem(place);
    setValue(initial);
  }, [place, initial]);
  const forget = useCallback(() => {
    if (place) sessionStorage.removeItem(place);
  }, [place]);
  return [value, change, drop, forget];
}
