import { type RefObject, useEffect, useRef } from "react";
import type { KeyChoice } from "./keyChoice";

interface Hands {
  enabled: boolean;
  keys: KeyChoice;
  field: RefObject<HTMLInputElement | null>;
  onCut: () => void;
  onRead: () => void;
  onTakeBack: () => void;
  onType: (text: string) => void;
  onClear: () => void;
  /** What each action does, by its id. */
  actions: Record<string, () => void>;
}

/**
 * The bench's keys: they work wherever the focus is, so that a hand with a blade in it needs no
 * pointer.
 */
export function useBenchKeys(hands: Hands): void {
  const current = useRef(hands);
  current.current = hands;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const h = current.current;
      if (!h.enabled || event.ctrlKey || event.metaKey || event.altKey) return;
      const inReading = event.target === h.field.current;
      if (
        !inReading &&
        event.target instanceof HTMLElement &&
        event.target.closest("input, textarea, select")
      )
        return;
      const act = action(event, h, inReading);
      if (!act) return;
      event.preventDefault();
      if (!event.repeat) act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}

function action(event: KeyboardEvent, h: Hands, inReading: boolean): (() => void) | undefined {
  const { key } = event;
  if (key === " " || (h.keys.pedal !== null && key === h.keys.pedal)) return h.onCut;
  if (key === "Enter") return onControl(event.target) ? undefined : h.onRead;
  if (key === "Backspace") return inReading ? undefined : h.onTakeBack;
  if (key === "Escape") return h.onClear;
  if (/^[0-9.,/;+]$/.test(key)) return inReading ? undefined : () => h.onType(key);
  if (key === "?") return h.actions.help;
  if (!h.keys.lettersOn) return undefined;
  const wanted = Object.entries(h.keys.letters).find(
    ([id, letter]) => letter === key.toLowerCase() && h.actions[id],
  );
  return wanted && h.actions[wanted[0]];
}

/** Enter on a focused button or link is that button's own. */
function onControl(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && Boolean(target.closest("button, a"));
}
