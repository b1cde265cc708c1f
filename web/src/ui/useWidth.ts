import { useLayoutEffect, useState } from "react";

/** The width of an element in px, kept up to date: charts are drawn to fit, not stretched. */
export function useWidth<T extends HTMLElement>(first = 640) {
  const [element, ref] = useState<T | null>(null);
  const [width, setWidth] = useState(first);
  useLayoutEffect(() => {
    if (!element) return;
    const measure = () => setWidth(Math.max(240, Math.floor(element.clientWidth)));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [element]);
  return { ref, width };
}
