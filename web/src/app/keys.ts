import { useEffect, useRef } from "react";

/** Keys of a place: what each does, in words, for the handler and for the `?` list alike. */
export interface PlaceKey {
  readonly key: string;
  readonly does: string;
  readonly run: () => void;
}

const WRITTEN_IN =
  "input, textarea, [role=combobox], [role=listbox], [contenteditable=true], [role=dialog]";

/** True where a key belongs to something being typed or chosen. */
export function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && Boolean(target.closest(WRITTEN_IN));
}

/** Listen for single keys while nothing is being typed. */
export function useKeys(keys: readonly PlaceKey[]): void {
  const current = useRef(keys);
  current.current = keys;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      const found = current.current.find((k) => k.key.toLowerCase() === event.key.toLowerCase());
      if (!found) return;
      event.preventDefault();
      found.run();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
