import { useLayoutEffect, useRef, useState } from "react";

/** The width of an element in px, kept up to date: charts are drawn to fit, not stretched. */
export function useWidth<T extends HTMLElement>(first = 640) {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(first);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const measure = () => setWidth(Math.max(240, Math.floor(element.clientWidth)));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return { ref, width };
}
